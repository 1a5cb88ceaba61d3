package dibble.studio;

import dibble.time.TempoMap;
import dibble.transport.PlaybackTimebase;

/**
 * The time and position of a recording. Its times on the clock follow from the playback timebase, so that a recording
 * and its playback cannot disagree.
 *
 * @param course the timebase
 * @param pass the pass of the timebase
 * @param startsAt the start on the studio's clock: the end of a count-in, or a punch-in
 * @param from the start in the music, in nanoseconds of the tempo
 * @param endTick the tick of an automatic end, or {@link #OPEN}
 * @param loops whether another pass follows, as a separate take
 * @param early the nanoseconds before the start in which a note counts as played on it
 * @param tempo the tempo and meter of the recording: those of its timebase, each from its time on
 */
record RecordPlan(
        PlaybackTimebase course,
        int pass,
        long startsAt,
        long from,
        long endTick,
        boolean loops,
        long early,
        TempoMap tempo) {
    /** It ends when it is stopped. */
    static final long OPEN = Long.MAX_VALUE;

    /** A beat has this many parts that still count as on the beginning of the next pass. */
    private static final int NEAR = 8;

    /** Returns a plan for a recording that begins at a time of the clock, and ends when it is stopped. */
    static RecordPlan open(long startsAt, long from, long early, TempoMap tempo) {
        return along(PlaybackTimebase.of(tempo, from, startsAt), from, 0, OPEN, false, early);
    }

    /**
     * Returns a plan for a recording along a course.
     *
     * @param from where it begins, in nanoseconds of the course's tempo
     * @param endTick the tick at which it ends, or {@link #OPEN}
     */
    static RecordPlan along(PlaybackTimebase course, long from, int pass, long endTick, boolean loops, long early) {
        return new RecordPlan(course, pass, course.time(from, pass), from, endTick, loops, early, course.tempo());
    }

    /** Returns its end on the studio's clock, or {@link #OPEN}. */
    long endsAt() {
        return endTick == OPEN ? OPEN : course.time(course.tempo().nanos(endTick), pass);
    }

    /** Returns the nanoseconds before the end in which a note belongs to the next pass; 0 for none. */
    long nearEnd() {
        if (!loops) {
            return 0;
        }
        TempoMap now = course.tempo();
        long first = course.loop().from();
        return now.nanos(first + now.meter(first).ticksPerBeat() / NEAR) - now.nanos(first);
    }

    /** Returns the plan for the next pass: it has the tempo that the course has by then. */
    RecordPlan next() {
        return along(course, course.loopFrom(), pass + 1, endTick, true, nearEnd());
    }

    /**
     * Returns the same plan along another course: it begins, if it has not, and ends at the same ticks.
     *
     * @param now when the other course takes over, on the studio's clock
     */
    RecordPlan along(PlaybackTimebase other, long now) {
        // The other course counts its passes from the present one on.
        int ahead = pass - course.pass(now);
        if (now <= startsAt) {
            long begins = other.tempo().nanos(course.tempo().ticks(from));
            return along(other, begins, Math.max(0, ahead), endTick, loops, early);
        }
        TempoMap spliced = tempo.spliced(course.tempo().tickAtOrBefore(course.position(now)), other.tempo());
        return new RecordPlan(other, Math.max(0, ahead), startsAt, from, endTick, loops, early, spliced);
    }
}
