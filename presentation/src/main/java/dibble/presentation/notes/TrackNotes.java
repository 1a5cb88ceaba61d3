package dibble.presentation.notes;

import dibble.recording.ClipIndex;
import dibble.recording.ManualEdits;
import dibble.recording.Regions;
import java.util.BitSet;

/**
 * The notes of a track, indexed.
 *
 * @param hand the present notes, including muted ones
 * @param index the notes and lanes of those
 * @param muted the muted notes
 * @param played the notes as they were printed
 * @param longest the length of the longest note in ticks, to find visible notes
 * @param longestPlayed the same for the printed notes
 * @param keys the keys with notes
 */
public record TrackNotes(
        ManualEdits hand,
        ClipIndex index,
        BitSet muted,
        ClipIndex played,
        long longest,
        long longestPlayed,
        BitSet keys) {
    static TrackNotes of(Regions regions) {
        ManualEdits hand = regions.editable();
        ClipIndex index = hand.index();
        ClipIndex played = regions.byHand().isEmpty() ? index : ClipIndex.of(regions.printed());
        return new TrackNotes(hand, index, hand.muted(), played, longest(index), longest(played), keys(index));
    }

    private static long longest(ClipIndex index) {
        long longest = 0;
        for (int note = 0; note < index.noteCount(); note++) {
            longest = Math.max(longest, index.end(note) - index.start(note));
        }
        return longest;
    }

    private static BitSet keys(ClipIndex index) {
        BitSet keys = new BitSet();
        for (int note = 0; note < index.noteCount(); note++) {
            keys.set(index.key(note));
        }
        return keys;
    }

    /** The first note that begins at or after a tick; as many as there are where none does. */
    public static int firstFrom(ClipIndex index, long tick) {
        int low = 0;
        int high = index.noteCount();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (index.start(middle) < tick) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }
}
