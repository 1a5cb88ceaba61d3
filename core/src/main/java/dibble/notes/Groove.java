package dibble.notes;

import dibble.recording.ClipIndex;
import dibble.time.TempoMap;
import java.util.HashMap;
import java.util.Map;

/**
 * The feel of another track: how far before or behind each place of a bar it plays, and how loud there. Notes go where
 * that track would have played them; where it never plays, they stay.
 */
public final class Groove implements NoteFunction {
    /** The statistics of a position in the bar. */
    private static final class Habit {
        long off;
        long velocity;
        int notes;
    }

    private final Grid grid;
    private final TempoMap tempo;
    private final int strength;
    private final int velocities;
    private final Map<Long, Habit> habits = new HashMap<>();
    private final double meanVelocity;

    /**
     * @param grid the positions, without swing
     * @param other the model for the groove
     * @param strength the share of the distance that notes move, 0 to 100
     * @param velocities the share of its accents that notes adopt, 0 to 100
     */
    public Groove(Grid grid, TempoMap tempo, ClipIndex other, int strength, int velocities) {
        this.grid = grid;
        this.tempo = tempo;
        this.strength = strength;
        this.velocities = velocities;
        double sum = 0;
        for (int note = 0; note < other.noteCount(); note++) {
            long place = grid.nearest(other.start(note));
            Habit habit = habits.computeIfAbsent(inBar(place), at -> new Habit());
            habit.off += other.start(note) - place;
            habit.velocity += other.velocity(note);
            habit.notes++;
            sum += other.velocity(note);
        }
        meanVelocity = other.noteCount() == 0 ? 0 : sum / other.noteCount();
    }

    private long inBar(long place) {
        return place - tempo.barStart(tempo.place(place).bar());
    }

    @Override
    public void on(Rewrite notes) {
        notes.each(note -> {
            long start = notes.index().start(note);
            long place = grid.nearest(start);
            Habit habit = habits.get(inBar(place));
            if (habit != null) {
                long to = place + Math.round((double) habit.off / habit.notes);
                notes.move(note, start + Math.round((to - start) * strength / 100.0));
                double louder = (double) habit.velocity / habit.notes - meanVelocity;
                notes.setVelocity(note, notes.velocity(note) + Math.round(louder * velocities / 100));
            }
        });
    }
}
