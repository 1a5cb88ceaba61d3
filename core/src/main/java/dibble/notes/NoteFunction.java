package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.recording.ClipIndex;
import java.util.BitSet;

/** A change of the selected notes, and of controllers. */
@FunctionalInterface
public interface NoteFunction {
    void on(Rewrite notes);

    /**
     * The clip as it is after the change.
     *
     * @param selected the numbers of notes as {@link ClipIndex} has them
     */
    default ChangeResult of(MidiTrack clip, BitSet selected) {
        return of(clip, ClipIndex.of(clip), selected);
    }

    /** The same where the clip's index is known already. */
    default ChangeResult of(MidiTrack clip, ClipIndex index, BitSet selected) {
        Rewrite notes = new Rewrite(clip, index, selected);
        on(notes);
        return notes.changed();
    }

    /** All notes of a clip. */
    static BitSet all(ClipIndex index) {
        BitSet all = new BitSet();
        all.set(0, index.noteCount());
        return all;
    }
}
