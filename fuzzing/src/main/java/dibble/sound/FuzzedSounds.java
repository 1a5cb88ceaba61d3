package dibble.sound;

import dibble.midi.ShortMessage;
import java.io.IOException;
import java.nio.file.Path;
import javax.sound.midi.MidiUnavailableException;

/** Plays the presets of a sound file. */
public final class FuzzedSounds {
    private static final AudioSettings SETTINGS = AudioSettings.offline(44_100);
    private static final int BLOCKS = 4;

    private FuzzedSounds() {}

    /**
     * Opens a file and plays some of its sounds.
     *
     * @throws IOException with one line where there are none that can be played
     */
    public static void play(Path file) throws IOException {
        SoundBank bank;
        try {
            bank = SoundBank.open(file);
        } catch (SoundBankException e) {
            throw new IOException(e.getMessage());
        }
        float[] left = new float[SETTINGS.block()];
        float[] right = new float[SETTINGS.block()];
        try (JdkSynth synth = new JdkSynth(SETTINGS, bank)) {
            for (Preset preset :
                    bank.presets().subList(0, Math.min(2, bank.presets().size()))) {
                synth.setDrums(preset.drums());
                synth.play(ShortMessage.programChange(preset.drums() ? 9 : 0, preset.program()), 0);
                for (int key : new int[] {40, 60, 127}) {
                    synth.play(ShortMessage.noteOn(preset.drums() ? 9 : 0, key, 100), 0);
                }
            }
            for (int i = 0; i < BLOCKS; i++) {
                synth.render(left, right);
            }
        } catch (MidiUnavailableException e) {
            throw new IllegalStateException(e);
        }
    }
}
