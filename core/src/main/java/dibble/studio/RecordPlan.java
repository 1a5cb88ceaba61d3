package dibble.studio;

import dibble.time.TempoMap;

/**
 * When and where a recording happens.
 *
 * @param startsAt when it begins, on the studio's clock: the end of a count-in, or of the way to a punch-in
 * @param from where it begins in the session's time, in nanoseconds
 * @param to where it ends by itself, or {@link #OPEN}
 * @param loops whether it begins again at {@code from} there, as a take of its own each time
 * @param early how long before the start a note may be played and counts as on it, in nanoseconds
 * @param tempo the tempo and meter of the session
 */
record RecordPlan(long startsAt, long from, long to, boolean loops, long early, TempoMap tempo) {
    /** It ends when it is stopped. */
    static final long OPEN = Long.MAX_VALUE;

    /** When it ends by itself, on the studio's clock. */
    long endsAt() {
        return to == OPEN ? OPEN : startsAt + to - from;
    }

    /** The same for the next time round. */
    RecordPlan next() {
        return new RecordPlan(endsAt(), from, to, true, 0, tempo);
    }
}
