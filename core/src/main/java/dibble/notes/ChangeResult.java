package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.recording.ClipIndex;
import java.util.BitSet;

/**
 * The result of a change.
 *
 * @param clip the same instance if nothing changed
 * @param from for each note of the clip its index before the change, or {@link ClipIndex#NONE}
 * @param shifts for each note the ticks by which it moved with its bars; null for none
 * @param selected the notes that were selected, and those that were added
 * @param effect the effect on the selected notes
 */
public record ChangeResult(MidiTrack clip, int[] from, long[] shifts, BitSet selected, Effect effect) {
    /**
     * The effect of a change on notes.
     *
     * @param notes the number of selected notes
     * @param changed the number of changed notes, without deleted ones
     * @param moved the number of notes with another start
     * @param most the largest change of a start, in ticks
     * @param mean the average change of the moved starts, in ticks
     * @param stayed the number of notes that could not change because of another note
     * @param gone the number of deleted notes
     */
    public record Effect(int notes, int changed, int moved, long most, double mean, int stayed, int gone) {
        /** Nothing was done. */
        public static final Effect NONE = new Effect(0, 0, 0, 0, 0, 0, 0);

        /** Both together. */
        public Effect and(Effect other) {
            int all = moved + other.moved;
            return new Effect(
                    notes + other.notes,
                    changed + other.changed,
                    all,
                    Math.max(most, other.most),
                    all == 0 ? 0 : (mean * moved + other.mean * other.moved) / all,
                    stayed + other.stayed,
                    gone + other.gone);
        }
    }
}
