package dibble.transport;

import dibble.midi.RealTime;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.concurrent.TimeUnit;

/**
 * The time of somebody else's MIDI clock: a clock that is at the session's nanosecond when the other is. Clocks arrive
 * unevenly; a loop that corrects a tenth of each error, and the rate by a little of it, keeps the tempo from wobbling.
 * Any thread reads the time; one thread brings the clocks.
 */
public final class ClockFollower implements Clock {
    private static final double PHASE = 0.08;
    private static final double RATE = 0.004;

    /** Clocks from which the tempo is taken at first. */
    private static final int MEASURED = 24;

    /** A clock that has not come for so long has stopped. */
    private static final long SILENT = TimeUnit.MILLISECONDS.toNanos(600);

    /** A time of the session at a time here, and how fast the one goes against the other. */
    private record Anchor(long real, double virtual, double rate) {
        double at(long now) {
            return virtual + (now - real) * rate;
        }
    }

    private final Clock clock;
    private volatile TempoMap tempo;
    private final long[] lasts = new long[MEASURED + 1];
    private int heard;
    private boolean waiting;
    private long count;
    private long from;
    private volatile Anchor anchor;
    private volatile long lastHeard;
    private volatile boolean running;
    private volatile long startedAt;

    /** @param tempo that of the session, by which clocks are places */
    public ClockFollower(Clock clock, TempoMap tempo) {
        this.clock = clock;
        this.tempo = tempo;
    }

    /** Gives it the tempo of a session that was changed; while the other runs it keeps what it has. */
    public void setTempo(TempoMap next) {
        if (!running) {
            tempo = next;
        }
    }

    /** Whether the other runs. */
    public boolean isRunning() {
        return running && clock.nanos() - lastHeard < SILENT;
    }

    /** When its first beat came, on the clock here. */
    public long startedAt() {
        return startedAt;
    }

    /** Where it began, in nanoseconds of the session. */
    public long from() {
        return tempo.nanos(from);
    }

    /** Takes a song position, which counts at the next continue. */
    public void songPosition(int sixteenths) {
        from = sixteenths * (long) TempoMap.PPQ / 4;
    }

    /**
     * Takes a clock, start, continue or stop.
     *
     * @param stamp when it came, on the clock here
     */
    public void heard(int status, long stamp) {
        switch (status) {
            case RealTime.START -> {
                from = 0;
                waiting = true;
            }
            case RealTime.CONTINUE -> waiting = true;
            case RealTime.STOP -> {
                if (running) {
                    from += count * ClockSender.TICKS;
                }
                running = false;
                waiting = false;
            }
            case RealTime.CLOCK -> clock(stamp);
            default -> {
                // No part of a clock.
            }
        }
    }

    private void clock(long stamp) {
        long between = stamp - lastHeard;
        if (heard > 0 && between > SILENT) {
            heard = 0;
        }
        if (heard < lasts.length) {
            lasts[heard++] = stamp;
        } else {
            System.arraycopy(lasts, 1, lasts, 0, lasts.length - 1);
            lasts[lasts.length - 1] = stamp;
        }
        lastHeard = stamp;
        if (waiting) {
            waiting = false;
            count = 0;
            startedAt = stamp;
            anchor = new Anchor(stamp, tempo.nanos(from), rate(1));
            running = true;
        } else if (running) {
            count++;
            follow(stamp);
        }
    }

    /** How fast the session's time goes, by the clocks of late. */
    private double rate(double otherwise) {
        if (heard < 3) {
            return otherwise;
        }
        double each = (lasts[heard - 1] - lasts[0]) / (double) (heard - 1);
        return (tempo.nanos(from + ClockSender.TICKS) - tempo.nanos(from)) / each;
    }

    private void follow(long stamp) {
        double due = tempo.nanos(from + count * ClockSender.TICKS);
        Anchor now = anchor;
        double is = now.at(stamp);
        if (count < MEASURED && heard <= MEASURED) {
            // Too few clocks to smooth: what they say together is believed.
            anchor = new Anchor(stamp, due, rate(now.rate));
            return;
        }
        double error = due - is;
        double step = Math.max(1, due - tempo.nanos(from + (count - 1) * ClockSender.TICKS));
        anchor = new Anchor(stamp, is + PHASE * error, now.rate + RATE * error / step);
    }

    /** The tempo of the other now, in quarter notes a minute; 0 where it is not known. */
    public double bpm() {
        if (heard < 3) {
            return 0;
        }
        double each = (lasts[heard - 1] - lasts[0]) / (double) (heard - 1);
        return TimeUnit.MINUTES.toNanos(1) / (each * RealTime.CLOCKS_A_QUARTER);
    }

    /** Where the other is, in nanoseconds of the session; it stands still where the other does. */
    @Override
    public long nanos() {
        Anchor now = anchor;
        if (now == null) {
            return 0;
        }
        long until = running ? Math.min(clock.nanos(), lastHeard + SILENT) : lastHeard;
        return Math.round(now.at(until));
    }
}
