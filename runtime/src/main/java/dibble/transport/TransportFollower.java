package dibble.transport;

import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.concurrent.TimeUnit;

/**
 * The time of a transport that reports its position block by block. Its beats are positions if it reports them, and its
 * tempo the rate of the session; otherwise its seconds are the session's. Allocates nothing and takes no lock on a
 * report.
 */
public final class TransportFollower extends ExternalTransport {
    /** The time that it runs ahead without a report: longer than a block. */
    private static final long AHEAD = TimeUnit.MILLISECONDS.toNanos(250);

    /**
     * A server says when its transport stops. One that says nothing is held up, which must not end a recording, or has gone.
     */
    static final long SILENCE = TimeUnit.SECONDS.toNanos(10);

    /** Farther from where it should be than this, it has gone to another place. */
    private static final long JUMP = TimeUnit.MILLISECONDS.toNanos(3);

    private volatile long jumpedTo;
    private volatile double bpm;

    /** @param tempo that of the session, by which beats are places */
    public TransportFollower(Clock clock, TempoMap tempo) {
        super(clock, tempo, SILENCE);
    }

    /**
     * Takes in where the transport is. One thread.
     *
     * @param rolls whether it moves
     * @param nanos since its beginning; counts where it says no beats
     * @param tick how many quarter notes since its beginning, in ticks of {@link TempoMap#PPQ}; counts where it says a tempo
     * @param otherBpm quarter notes a minute; 0 where it says no beats
     * @param stamp when it is there, on the clock here
     */
    public void told(boolean rolls, long nanos, double tick, double otherBpm, long stamp) {
        TempoMap by = tempo();
        boolean hasBeats = otherBpm > 0;
        long whole = (long) Math.floor(tick);
        double beatNanos = by.nanos(whole) + (tick - whole) * (by.nanos(whole + 1) - by.nanos(whole));
        double place = hasBeats ? beatNanos : nanos;
        double rate = hasBeats ? otherBpm / by.bpm(whole) : 1;
        bpm = otherBpm;
        if (!rolls) {
            stopped(stamp);
            moving.set(stamp, place, 0, place);
            lastHeard = stamp;
            return;
        }
        boolean isElsewhere = !running || Math.abs(moving.at(stamp) - place) > JUMP;
        moving.set(stamp, place, rate, place + AHEAD * rate);
        lastHeard = stamp;
        if (isElsewhere) {
            jumpedTo = Math.round(place);
            jumped(stamp);
        }
    }

    @Override
    public long jumpedTo() {
        return jumpedTo;
    }

    @Override
    public double bpm() {
        return bpm;
    }
}
