package dibble.recording;

import dibble.midi.ShortMessage;
import java.util.Arrays;
import java.util.function.IntConsumer;

/**
 * Pairs ons with offs: the notes that have begun and not ended, by whose they are (a source, a device, a track: a small
 * number), channel and key, each with a number of the caller's. One note sounds at a place at a time, so another on ends
 * the one before it. Belongs to one thread.
 */
public final class OpenNotes {
    /** Stands for no note. */
    public static final int NONE = -1;

    private static final int KEYS = 16 * 128;

    private int[][] open = {};
    private int count;

    private static int place(int message) {
        return ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
    }

    /** Begins a note; the number of the one that ends by that, or {@link #NONE}. */
    public int begin(int whose, int message, int number) {
        if (whose >= open.length) {
            open = Arrays.copyOf(open, whose + 1);
        }
        if (open[whose] == null) {
            open[whose] = new int[KEYS];
            Arrays.fill(open[whose], NONE);
        }
        int before = open[whose][place(message)];
        open[whose][place(message)] = number;
        count += before == NONE ? 1 : 0;
        return before;
    }

    /** Ends a note; its number, or {@link #NONE} where none is open there. */
    public int end(int whose, int message) {
        int before = at(whose, message);
        if (before != NONE) {
            open[whose][place(message)] = NONE;
            count--;
        }
        return before;
    }

    /** The number of the note that is open at the place of a message, or {@link #NONE}. */
    public int at(int whose, int message) {
        return whose < open.length && open[whose] != null ? open[whose][place(message)] : NONE;
    }

    /** How many notes are open. */
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
        for (int whose = 0; whose < open.length && count > 0; whose++) {
            for (int place = 0; open[whose] != null && place < KEYS; place++) {
                if (open[whose][place] != NONE) {
                    open[whose][place] = NONE;
                    count--;
                    ending.end(whose, ShortMessage.noteOff(place >>> 7, place & 0x7F, ShortMessage.DEFAULT_RELEASE));
                }
            }
        }
    }

    /** Tells the numbers of all notes that are open. */
    public void forEach(IntConsumer told) {
        for (int[] notes : open) {
            for (int place = 0; notes != null && place < KEYS; place++) {
                if (notes[place] != NONE) {
                    told.accept(notes[place]);
                }
            }
        }
    }
}
