package dibble.transport;

/**
 * A place of the session that moves on with the clock here, up to a limit. One thread sets it, any reads it, with no lock
 * and no object made: a number that is odd while it is set tells a reader to look again.
 */
final class MovingPosition {
    private volatile int version;
    private volatile long real;
    private volatile double place;
    private volatile double rate;
    private volatile double most;

    /**
     * @param at a time on the local clock
     * @param is the position at that time, in nanoseconds of the session
     * @param speed the rate of the session's time to the local clock
     * @param limit the position beyond which it does not advance automatically
     */
    void set(long at, double is, double speed, double limit) {
        int next = version + 1;
        version = next;
        real = at;
        place = is;
        rate = speed;
        most = limit;
        version = next + 1;
    }

    /** Returns true if it was ever set. */
    boolean isSet() {
        return version != 0;
    }

    /** Returns the rate. Setting thread only. */
    double rate() {
        return rate;
    }

    /** The place at a time on the clock here. */
    double at(long now) {
        while (true) {
            int before = version;
            double at = Math.min(most, place + (now - real) * rate);
            if (before == version && (before & 1) == 0) {
                return at;
            }
            Thread.onSpinWait();
        }
    }
}
