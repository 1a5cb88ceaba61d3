package dibble.transport;

import java.util.function.LongUnaryOperator;

/** The places of a grid (beats, clocks) along a {@link Course}, one after the other. Belongs to one thread. */
final class Steps {
    private final Course course;
    private final LongUnaryOperator grid;
    private int pass;
    private long tick;

    /**
     * @param grid the first place of the grid at or after a tick
     * @param now the first step is at or after it
     */
    Steps(Course course, LongUnaryOperator grid, long now) {
        this.course = course;
        this.grid = grid;
        pass = course.pass(now);
        long at = course.tempo().ticks(course.position(now));
        // A place is a rounded number of nanoseconds: the tick before may be meant.
        long from = course.tempo().nanos(at) < course.position(now) ? at + 1 : at;
        step(from);
    }

    private void step(long from) {
        tick = grid.applyAsLong(from);
        if (course.loop() != null && tick >= course.loop().to()) {
            pass++;
            tick = grid.applyAsLong(course.loop().from());
        }
    }

    void next() {
        step(tick + 1);
    }

    long tick() {
        return tick;
    }

    int pass() {
        return pass;
    }

    /** When this step is due, on the clock. */
    long due() {
        return course.time(course.tempo().nanos(tick), pass);
    }
}
