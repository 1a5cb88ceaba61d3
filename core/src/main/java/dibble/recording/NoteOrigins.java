package dibble.recording;

import java.util.Arrays;
import java.util.Optional;
import java.util.function.IntToLongFunction;
import java.util.function.LongUnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The origins of the notes of an edited clip: for each its number among the played notes, and the ticks by which it
 * moved with its bars since. Immutable.
 */
public final class NoteOrigins {
    /** A note that was added manually. */
    public static final int NONE = OpenNotes.NONE;

    private static final Pattern RUN = Pattern.compile("(\\d{1,8})(?:-(\\d{1,8}))?(?:@(-?\\d{1,12}))?");
    private static final String ADDED = "+";

    private final int[] played;

    /** Null where nothing was taken elsewhere. */
    private final long[] shifts;

    private NoteOrigins(int[] played, long[] shifts) {
        this.played = played;
        this.shifts = shifts;
    }

    /**
     * @param played for each note its number among those that were played, or {@link #NONE}
     * @param shifts for each note by how many ticks it was taken elsewhere with the bars around it; null for nowhere
     */
    public static NoteOrigins of(int[] played, long[] shifts) {
        boolean stay = shifts == null || Arrays.stream(shifts).allMatch(shift -> shift == 0);
        return new NoteOrigins(played.clone(), stay ? null : shifts.clone());
    }

    /** Of notes that are as they were played. */
    public static NoteOrigins same(int notes) {
        int[] played = new int[notes];
        Arrays.setAll(played, note -> note);
        return new NoteOrigins(played, null);
    }

    /** Of how many notes they are. */
    public int size() {
        return played.length;
    }

    /** The number of a note among those that were played, or {@link #NONE}. */
    public int played(int note) {
        return played[note];
    }

    /** By how many ticks a note was taken elsewhere with the bars around it. */
    public long shift(int note) {
        return shifts == null ? 0 : shifts[note];
    }

    /**
     * Returns the origins after another change.
     *
     * @param from for each new note its number here, or {@link #NONE}
     * @param more the ticks by which each moved in that change; null for none
     */
    public NoteOrigins after(int[] from, long[] more) {
        int[] next = new int[from.length];
        long[] nextShifts = shifts == null && more == null ? null : new long[from.length];
        for (int note = 0; note < from.length; note++) {
            next[note] = from[note] == NONE ? NONE : played[from[note]];
            if (nextShifts != null && next[note] != NONE) {
                nextShifts[note] = shift(from[note]) + (more == null ? 0 : more[note]);
            }
        }
        // Most changes leave the order of notes: then one array is enough for all steps of undo.
        return nextShifts == null && Arrays.equals(next, played) ? this : of(next, nextShifts);
    }

    /**
     * Returns the origins after a change of the ticks of the music.
     *
     * @param played the start of each played note
     * @param tick the new tick of a tick
     */
    NoteOrigins retimed(IntToLongFunction played, LongUnaryOperator tick) {
        if (shifts == null) {
            return this;
        }
        long[] next = new long[shifts.length];
        for (int note = 0; note < next.length; note++) {
            if (this.played[note] != NONE && shifts[note] != 0) {
                long home = played.applyAsLong(this.played[note]);
                next[note] = tick.applyAsLong(home + shifts[note]) - tick.applyAsLong(home);
            }
        }
        return of(this.played, next);
    }

    /** Returns the origins after the played notes got other numbers. @param numberNow by number, or {@link #NONE} */
    NoteOrigins renumbered(int[] numberNow) {
        int[] next = new int[played.length];
        for (int note = 0; note < next.length; note++) {
            next[note] = played[note] == NONE ? NONE : numberNow[played[note]];
        }
        return Arrays.equals(next, played) ? this : of(next, shifts);
    }

    /** As a file says it: runs of numbers, with a shift where there is one, and a plus for each note that was added. */
    public String text() {
        StringBuilder text = new StringBuilder();
        int note = 0;
        while (note < played.length) {
            int last = note;
            while (last + 1 < played.length
                    && played[note] != NONE
                    && played[last + 1] == played[last] + 1
                    && shift(last + 1) == shift(note)) {
                last++;
            }
            text.append(text.length() == 0 ? "" : " ");
            if (played[note] == NONE) {
                text.append(ADDED);
            } else {
                text.append(played[note]);
                text.append(last > note ? "-" + played[last] : "");
                text.append(shift(note) == 0 ? "" : "@" + shift(note));
            }
            note = last + 1;
        }
        return text.toString();
    }

    /**
     * Reads what {@link #text} wrote.
     *
     * @param notes how many notes they must be of
     * @param most how many notes were played
     * @return empty where the text is not of so many notes
     */
    public static Optional<NoteOrigins> parse(String text, int notes, int most) {
        int[] played = new int[notes];
        long[] shifts = new long[notes];
        int note = 0;
        for (String run : text.isBlank() ? new String[0] : text.strip().split(" +")) {
            Matcher matcher = RUN.matcher(run);
            boolean added = run.equals(ADDED);
            if (!added && !matcher.matches()) {
                return Optional.empty();
            }
            int first = added ? NONE : Integer.parseInt(matcher.group(1));
            int last = added || matcher.group(2) == null ? first : Integer.parseInt(matcher.group(2));
            if (last < first || last >= most || note + last - first >= notes) {
                return Optional.empty();
            }
            for (int number = first; number <= last; number++) {
                played[note] = number;
                shifts[note++] = added || matcher.group(3) == null ? 0 : Long.parseLong(matcher.group(3));
            }
        }
        return note < notes ? Optional.empty() : Optional.of(of(played, shifts));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof NoteOrigins that
                && Arrays.equals(played, that.played)
                && Arrays.equals(shifts, that.shifts);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(played);
    }

    @Override
    public String toString() {
        return text();
    }
}
