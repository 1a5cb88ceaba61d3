package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.recording.ClipIndex;
import java.util.BitSet;

/**
 * What came of a change.
 *
 * @param clip the very same where nothing changed
 * @param from for each note of the clip which note of the former one it was, or {@link ClipIndex#NONE}
 * @param shifts for each note by how many ticks it was taken elsewhere with the bars around it; null for nowhere
 * @param selected which notes of the clip are those that were selected, and those that were added
 * @param effect what it did to them
 */
public record ChangeResult(MidiTrack clip, int[] from, long[] shifts, BitSet selected, Effect effect) {
    /**
     * What a change did to notes.
     *
     * @param notes how many were selected
     * @param changed how many are not what they were, those that are gone not counted
     * @param moved how many begin elsewhere
     * @param most the farthest that one begins from where it began, in ticks
     * @param mean how far those that begin elsewhere do so on average, in ticks
     * @param stayed how many stayed as they were, since another note was in their place
     * @param gone how many notes are gone
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
