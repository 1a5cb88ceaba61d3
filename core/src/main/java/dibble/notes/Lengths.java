package dibble.notes;

import java.util.HashMap;
import java.util.Map;
import java.util.function.IntConsumer;

/** Changes of the lengths of notes, in ticks. */
public final class Lengths {
    private Lengths() {}

    /** All are so long. */
    public static NoteFunction set(long ticks) {
        return each((notes, note) -> ticks);
    }

    /** Scales each length by a percentage. */
    public static NoteFunction scale(int percent) {
        return each((notes, note) -> Math.round((notes.end(note) - notes.start(note)) * percent / 100.0));
    }

    /** Each is so much longer, or shorter. */
    public static NoteFunction add(long ticks) {
        return each((notes, note) -> notes.end(note) - notes.start(note) + ticks);
    }

    /** None is shorter than so much. */
    public static NoteFunction minimum(long ticks) {
        return each((notes, note) -> Math.max(ticks, notes.end(note) - notes.start(note)));
    }

    private interface Length {
        long of(Rewrite notes, int note);
    }

    private static NoteFunction each(Length length) {
        return notes -> notes.each(note -> {
            long ticks = length.of(notes, note);
            if (ticks != notes.end(note) - notes.start(note)) {
                notes.place(note, notes.start(note), notes.start(note) + ticks);
            }
        });
    }

    /** Each reaches to the next that begins, or so far before it; what begins together ends together. */
    public static NoteFunction legato(long gap) {
        return notes -> beforeNext(notes, note -> -1L, gap, true);
    }

    /** None reaches further than to so far before the next that begins. */
    public static NoteFunction beforeNext(long gap) {
        return notes -> beforeNext(notes, note -> -1L, gap, false);
    }

    /** None reaches further than to so far before the next of its key. */
    public static NoteFunction beforeNextOfKey(long gap) {
        return notes -> beforeNext(notes, note -> (long) notes.key(note), gap, false);
    }

    private interface Voice {
        long of(int note);
    }

    private static void beforeNext(Rewrite notes, Voice voice, long gap, boolean lengthen) {
        // From the last to the first, so that the next of each voice is known.
        Map<Long, long[]> next = new HashMap<>();
        IntConsumer change = note -> {
            long start = notes.start(note);
            long[] known = next.computeIfAbsent(voice.of(note), it -> new long[] {Long.MAX_VALUE, Long.MAX_VALUE});
            if (start != known[0]) {
                known[1] = known[0];
                known[0] = start;
            }
            if (known[1] != Long.MAX_VALUE) {
                long end = Math.max(start + 1, known[1] - gap);
                if (lengthen ? end != notes.end(note) : end < notes.end(note)) {
                    notes.place(note, start, end);
                }
            }
        };
        for (int note = notes.selected().length() - 1;
                note >= 0;
                note = notes.selected().previousSetBit(note - 1)) {
            change.accept(note);
        }
    }
}
