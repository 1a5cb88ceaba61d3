package dibble.studio;

import dibble.time.TempoMap;

/**
 * When and where a recording happens.
 *
 * @param startsAt when it begins, on the studio's clock: the end of a count-in, or of the way to a punch-in
 * @param from where it begins in the music, in nanoseconds of the tempo
 * @param endsAt when it ends by itself, on the studio's clock, or {@link #OPEN}
 * @param loop where it begins again then, as a take of its own each time; null where it does not
 * @param early how long before the start a note may be played and counts as on it, in nanoseconds
 * @param tempo the tempo and meter of the session
 */
record RecordPlan(long startsAt, long from, long endsAt, Loop loop, long early, TempoMap tempo) {
    /** It ends when it is stopped. */
    static final long OPEN = Long.MAX_VALUE;

    /** A beat has this many parts that still count as on the beginning of the next pass. */
    private static final int NEAR = 8;

    /**
     * A stretch that is recorded again and again.
     *
     * @param from its first tick
     * @param to the tick behind it
     */
    record Loop(long from, long to) {}

    /** One that ends when it is stopped. */
    static RecordPlan open(long startsAt, long from, long early, TempoMap tempo) {
        return new RecordPlan(startsAt, from, OPEN, null, early, tempo);
    }

    /** How long before the end a note is meant for the next pass; 0 where there is none. */
    long nearEnd() {
        return loop == null
                ? 0
                : (tempo.nanos(loop.from() + tempo.meter(loop.from()).ticksPerBeat() / NEAR)
                        - tempo.nanos(loop.from()));
    }

    /** The same for the next time round. */
    RecordPlan next() {
        long again = tempo.nanos(loop.from());
        return new RecordPlan(endsAt, again, endsAt + tempo.nanos(loop.to()) - again, loop, nearEnd(), tempo);
    }

    /**
     * The same with another tempo from a time on: it ends at the same tick.
     *
     * @param now on the studio's clock
     */
    RecordPlan withTempo(TempoMap other, long now) {
        long tick = tempo.ticks(from + Math.max(0, now - startsAt));
        TempoMap spliced = tempo.spliced(tick, other);
        if (endsAt == OPEN) {
            return new RecordPlan(startsAt, from, OPEN, loop, early, spliced);
        }
        long end = tempo.ticks(from + endsAt - startsAt);
        long ends = Math.max(now, startsAt) + spliced.nanos(end) - spliced.nanos(tick);
        return new RecordPlan(startsAt, from, ends, loop, early, spliced);
    }
}
