package dibble.recording;

import dibble.midi.ShortMessage;
import java.util.Arrays;
import java.util.function.IntConsumer;

/**
 * Pairs ons with offs: the open notes by owner (a small number for a source, a device or a track), channel and key,
 * each with a number of the caller. An on ends an open note at the same place. Confined to one thread.
 */
public final class OpenNotes {
    /** No note. */
    public static final int NONE = -1;

    private static final int KEYS = 128;

    /** By whose they are and their channel: a file can have many tracks, each with a channel or two. */
    private int[][] open = {};

    private int count;

    private static int row(int whose, int message) {
        return whose << 4 | ShortMessage.channel(message);
    }

    /** Returns an off for a note, with the default release velocity. */
    public static int off(int on) {
        return ShortMessage.noteOff(ShortMessage.channel(on), ShortMessage.data1(on), ShortMessage.DEFAULT_RELEASE);
    }

    /** Begins a note; the number of the one that ends by that, or {@link #NONE}. */
    public int begin(int whose, int message, int number) {
        int row = row(whose, message);
        if (row >= open.length) {
            open = Arrays.copyOf(open, Math.max(row + 1, open.length * 2));
        }
        if (open[row] == null) {
            open[row] = new int[KEYS];
            Arrays.fill(open[row], NONE);
        }
        int key = ShortMessage.data1(message);
        int before = open[row][key];
        open[row][key] = number;
        count += before == NONE ? 1 : 0;
        return before;
    }

    /** Ends a note; its number, or {@link #NONE} where none is open there. */
    public int end(int whose, int message) {
        int before = at(whose, message);
        if (before != NONE) {
            open[row(whose, message)][ShortMessage.data1(message)] = NONE;
            count--;
        }
        return before;
    }

    /** The number of the note that is open at the place of a message, or {@link #NONE}. */
    public int at(int whose, int message) {
        int row = row(whose, message);
        return row < open.length && open[row] != null ? open[row][ShortMessage.data1(message)] : NONE;
    }

    /** Returns the number of open notes. */
    public int count() {
        return count;
    }

    /** Takes an off for a note that is left open. */
    @FunctionalInterface
    public interface Ending {
        /** @param off on the note's channel, with the default release velocity */
        void end(int whose, int off);
    }

    /** The offs of all notes that are open, by whose they are, channel and key; none is open afterwards. */
    public void endAll(Ending ending) {
        for (int row = 0; row < open.length && count > 0; row++) {
            for (int key = 0; open[row] != null && key < KEYS; key++) {
                if (open[row][key] != NONE) {
                    open[row][key] = NONE;
                    count--;
                    ending.end(row >>> 4, ShortMessage.noteOff(row & 0xF, key, ShortMessage.DEFAULT_RELEASE));
                }
            }
        }
    }

    /** Tells the numbers of all notes that are open. */
    public void forEach(IntConsumer told) {
        for (int[] notes : open) {
            for (int key = 0; notes != null && key < KEYS; key++) {
                if (notes[key] != NONE) {
                    told.accept(notes[key]);
                }
            }
        }
    }
}
