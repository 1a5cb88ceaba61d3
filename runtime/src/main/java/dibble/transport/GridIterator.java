package dibble.transport;

import java.util.function.LongUnaryOperator;

/** The positions of a grid (beats, clocks) along a {@link PlaybackTimebase}, in order. Not thread-safe. */
final class GridIterator {
    private final LongUnaryOperator grid;
    private PlaybackTimebase course;
    private int pass;
    private long tick;

    /**
     * @param grid the first position of the grid at or after a tick
     * @param now the first step is at or after it
     */
    GridIterator(PlaybackTimebase course, LongUnaryOperator grid, long now) {
        this.course = course;
        this.grid = grid;
        pass = course.pass(now);
        long at = course.tempo().ticks(course.position(now));
        // A position is a rounded number of nanoseconds: the tick before may be meant.
        long from = course.tempo().nanos(at) < course.position(now) ? at + 1 : at;
        step(from);
    }

    private void step(long from) {
        tick = grid.applyAsLong(from);
        if (course.loop() != null && tick >= course.loop().to()) {
            pass++;
            tick = firstOfLoop();
        }
    }

    /** Returns the first step of a loop: its beginning, where the grid has no position in it. */
    private long firstOfLoop() {
        long first = grid.applyAsLong(course.loop().from());
        return first < course.loop().to() ? first : course.loop().from();
    }

    void next() {
        step(tick + 1);
    }

    /**
     * Goes on along a course to which the present one leads. Steps that were due before the other course began are to be
     * taken by then.
     *
     * @return whether the next step is at another tick than it was
     */
    boolean goOnAlong(PlaybackTimebase next) {
        long before = tick;
        int ahead = pass - course.pass(next.at());
        PlaybackTimebase.Loop left = course.loop();
        course = next;
        if (next.loop() == null) {
            // It has turned round already, to a loop that is not there any more.
            tick = ahead > 0 && left != null ? grid.applyAsLong(left.to()) : tick;
            pass = 0;
        } else if (ahead > 0 || tick >= next.loop().to()) {
            pass = Math.max(1, ahead);
            tick = firstOfLoop();
        } else {
            pass = 0;
        }
        return tick != before;
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
