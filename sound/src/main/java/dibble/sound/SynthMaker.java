package dibble.sound;

import javax.sound.midi.MidiUnavailableException;

/** Where synthesizers come from. */
interface SynthMaker {
    /**
     * One that nobody has.
     *
     * @param bank sounds that it has before Dibble's own; null for none
     */
    PartSynth take(SoundBank bank) throws MidiUnavailableException;
}
