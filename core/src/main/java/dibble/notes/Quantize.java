package dibble.notes;

import static dibble.text.CoreText.say;

import dibble.recording.ClipIndex;
import dibble.text.UserException;
import java.util.Locale;

/**
 * Moves notes towards the positions of a grid.
 *
 * @param strength the share of the distance, 0 to 100
 * @param leastOff notes closer to the grid stay, in ticks
 * @param mostOff notes farther from the grid stay, in ticks
 * @param chord notes that begin within so many ticks form a chord, which moves with its first note; 0 to move each
 *     note separately
 */
public record Quantize(Grid grid, What what, int strength, long leastOff, long mostOff, long chord)
        implements NoteFunction {
    /** The property of a note that is quantized. */
    public enum What {
        /** A note moves, as long as it is. */
        STARTS,
        ENDS,
        BOTH;

        /** As a command has it: {@code starts}. */
        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public Quantize {
        if (strength < 0 || strength > 100) {
            throw new UserException(say("quantize.strength-expected", strength));
        }
        if (leastOff < 0 || mostOff < leastOff) {
            throw new UserException(say("quantize.range-expected", leastOff, mostOff));
        }
    }

    /** Starts, all the way. */
    public static Quantize starts(Grid grid) {
        return new Quantize(grid, What.STARTS, 100, 0, Long.MAX_VALUE, 0);
    }

    @Override
    public void on(Rewrite notes) {
        ClipIndex index = notes.index();
        // When the last chord began, and how far it goes; the first note is in none that was before.
        long[] chordBegan = {-chord - 1, 0};
        notes.each(note -> {
            long start = index.start(note);
            boolean within = chord > 0 && start - chordBegan[0] <= chord;
            if (!within) {
                chordBegan[0] = start;
                chordBegan[1] = way(start, grid.nearest(start));
            }
            long by = what == What.ENDS ? 0 : chordBegan[1];
            long end = index.end(note) + by;
            if (what != What.STARTS) {
                long target = endPlace(index.end(note), start + by);
                long to = way(index.end(note), target);
                boolean isThere = target == index.end(note);
                end = to == 0 && !isThere ? end : index.end(note) + to;
            }
            if (by != 0 || end != index.end(note)) {
                notes.place(note, start + by, end);
            }
        });
    }

    private long way(long from, long to) {
        long off = Math.abs(to - from);
        return off < leastOff || off > mostOff ? 0 : Math.round((to - from) * strength / 100.0);
    }

    /** A note lasts to a place behind the one where it begins. */
    private long endPlace(long end, long start) {
        long place = grid.nearest(end);
        return place > start ? place : grid.after(start);
    }
}
