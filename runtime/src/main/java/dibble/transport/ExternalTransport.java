package dibble.transport;

import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.concurrent.TimeUnit;

/** The common part of followers: the starts, stops and jumps of the other device, with their times. */
abstract class ExternalTransport implements Follower {
    /** A stop that is followed by a start within this time is a jump to another place, as at a loop's end. */
    private static final long JUMP = TimeUnit.MILLISECONDS.toNanos(50);

    private final Clock clock;

    /** Another that has not been heard for so long has stopped, in nanoseconds. */
    private final long silence;

    final MovingPosition moving = new MovingPosition();
    volatile boolean running;
    volatile long lastHeard;
    private volatile TempoMap tempo;
    private volatile long stoppedAt;
    private volatile long startedAt;
    private volatile int jumps;

    /**
     * @param tempo that of the session, by which beats are places
     * @param silence the time without a word after which the other has stopped, in nanoseconds
     */
    ExternalTransport(Clock clock, TempoMap tempo, long silence) {
        this.clock = clock;
        this.silence = silence;
        this.tempo = tempo;
    }

    /** The other has started, or gone to another place. */
    final void jumped(long stamp) {
        startedAt = stamp;
        running = true;
        jumps = jumps + 1;
    }

    /** The other has stopped. */
    final void stopped(long stamp) {
        if (running) {
            stoppedAt = stamp;
        }
        running = false;
    }

    @Override
    public final void setTempo(TempoMap next) {
        if (!isRunning()) {
            tempo = next;
        }
    }

    @Override
    public final TempoMap tempo() {
        return tempo;
    }

    /** Returns true if the other runs: it was started, and is heard. */
    @Override
    public final boolean isRunning() {
        return running && clock.nanos() - lastHeard < silence;
    }

    @Override
    public final boolean mayJump() {
        return !running && stoppedAt != 0 && clock.nanos() - stoppedAt < JUMP;
    }

    @Override
    public final long startedAt() {
        return startedAt;
    }

    @Override
    public final int jumps() {
        return jumps;
    }

    /** Returns the position of the other device, in nanoseconds of the session; constant while it is stopped. */
    @Override
    public final long nanos() {
        return moving.isSet() ? Math.round(moving.at(running ? clock.nanos() : lastHeard)) : 0;
    }

    @Override
    public final void rest(long nanos) {
        clock.rest(nanos);
    }
}
