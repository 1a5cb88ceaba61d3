package dibble.transport;

import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.concurrent.TimeUnit;

/**
 * The time of a transport that says block by block where it is. Where it says beats, those are places, and its tempo is
 * how fast the session goes; else its seconds are the session's. Makes no object and takes no lock while it is told.
 */
public final class TransportFollower implements Follower {
    /** How far it runs on where nothing is said: longer than a block. */
    private static final long AHEAD = TimeUnit.MILLISECONDS.toNanos(250);

    /** A transport that has said nothing for so long has gone. */
    private static final long SILENT = TimeUnit.MILLISECONDS.toNanos(600);

    /** Farther from where it should be than this, it has gone to another place. */
    private static final long JUMP = TimeUnit.MILLISECONDS.toNanos(3);

    /** Who joins so soon after a start begins where that was. */
    private static final long JUST_NOW = TimeUnit.MILLISECONDS.toNanos(200);

    /** A stop that is followed by a start within this time is a jump to another place. */
    private static final long MAY_JUMP = TimeUnit.MILLISECONDS.toNanos(50);

    private final Clock clock;
    private final MovingPlace moving = new MovingPlace();
    private volatile TempoMap tempo;
    private volatile boolean running;
    private volatile long lastTold;
    private volatile long stoppedAt;
    private volatile long startedAt;
    private volatile long jumpedTo;
    private volatile double bpm;
    private volatile int jumps;

    /** @param tempo that of the session, by which beats are places */
    public TransportFollower(Clock clock, TempoMap tempo) {
        this.clock = clock;
        this.tempo = tempo;
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
        TempoMap by = tempo;
        boolean hasBeats = otherBpm > 0;
        long whole = (long) Math.floor(tick);
        double beatNanos = by.nanos(whole) + (tick - whole) * (by.nanos(whole + 1) - by.nanos(whole));
        double place = hasBeats ? beatNanos : nanos;
        double rate = hasBeats ? otherBpm / by.bpm(whole) : 1;
        bpm = otherBpm;
        if (!rolls) {
            if (running) {
                stoppedAt = stamp;
            }
            running = false;
            moving.set(stamp, place, 0, place);
            lastTold = stamp;
            return;
        }
        boolean isElsewhere = !running || Math.abs(moving.at(stamp) - place) > JUMP;
        moving.set(stamp, place, rate, place + AHEAD * rate);
        if (isElsewhere) {
            startedAt = stamp;
            jumpedTo = Math.round(place);
            jumps = jumps + 1;
        }
        lastTold = stamp;
        running = true;
    }

    @Override
    public void setTempo(TempoMap next) {
        if (!isRunning()) {
            tempo = next;
        }
    }

    @Override
    public TempoMap tempo() {
        return tempo;
    }

    @Override
    public boolean isRunning() {
        return running && clock.nanos() - lastTold < SILENT;
    }

    @Override
    public boolean mayJump() {
        return !running && stoppedAt != 0 && clock.nanos() - stoppedAt < MAY_JUMP;
    }

    @Override
    public long startedAt() {
        return startedAt;
    }

    @Override
    public int jumps() {
        return jumps;
    }

    @Override
    public long jumpedTo() {
        return jumpedTo;
    }

    @Override
    public long entry() {
        return clock.nanos() - startedAt < JUST_NOW ? jumpedTo : nanos();
    }

    @Override
    public double bpm() {
        return bpm;
    }

    @Override
    public long nanos() {
        return moving.isSet() ? Math.round(moving.at(clock.nanos())) : 0;
    }

    @Override
    public void rest(long nanos) {
        clock.rest(nanos);
    }
}
