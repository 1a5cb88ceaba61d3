package dibble.notes;

import java.util.SplittableRandom;

/** Changes of velocities. */
public final class Velocities {
    private Velocities() {}

    /** All have one, 1-127. */
    public static NoteFunction set(int velocity) {
        return notes -> notes.each(note -> notes.setVelocity(note, velocity));
    }

    /** Each is so much louder, or softer. */
    public static NoteFunction add(int more) {
        return notes -> notes.each(note -> notes.setVelocity(note, notes.velocity(note) + more));
    }

    /** Scales each velocity by a percentage. */
    public static NoteFunction scale(int percent) {
        return notes -> notes.each(note -> notes.setVelocity(note, Math.round(notes.velocity(note) * percent / 100.0)));
    }

    /** None is softer or louder than so much. */
    public static NoteFunction limit(int low, int high) {
        int least = Math.min(low, high);
        int most = Math.max(low, high);
        return notes ->
                notes.each(note -> notes.setVelocity(note, Math.max(least, Math.min(most, notes.velocity(note)))));
    }

    /** Moves each velocity towards their average, by a percentage of the difference. */
    public static NoteFunction even(int percent) {
        return notes -> {
            long[] sum = new long[1];
            notes.each(note -> sum[0] += notes.velocity(note));
            double mean = (double) sum[0] / Math.max(1, notes.selected().cardinality());
            notes.each(note -> notes.setVelocity(
                    note, Math.round(notes.velocity(note) + (mean - notes.velocity(note)) * percent / 100)));
        };
    }

    /** Each is a little louder or softer, at most by so much; the same each time for the same seed. */
    public static NoteFunction vary(int most, long seed) {
        return notes -> {
            SplittableRandom random = new SplittableRandom(seed);
            notes.each(note -> notes.setVelocity(note, notes.velocity(note) + random.nextInt(-most, most + 1)));
        };
    }

    /** From one velocity at the first note to another at the last, evenly in time. */
    public static NoteFunction slope(int first, int last) {
        return notes -> {
            long[] span = SelectionBounds.of(notes);
            double length = Math.max(1, span[1] - span[0]);
            notes.each(note -> notes.setVelocity(
                    note, Math.round(first + (last - first) * (notes.start(note) - span[0]) / length)));
        };
    }
}
