package dibble.transport;

import dibble.midi.RealTime;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.concurrent.TimeUnit;

/**
 * The time of an external MIDI clock, at the session's nanosecond of the other device. Clocks arrive unevenly; a
 * control loop that corrects a tenth of each error, and the rate by a little of it, keeps the tempo stable. It never
 * runs more than two clocks ahead of the last one, so that nothing is played before it is due. Any thread reads the
 * time; one thread delivers the clocks.
 */
public final class ClockFollower extends ExternalTransport {
    private static final double PHASE = 0.08;
    private static final double RATE = 0.004;

    /** Clocks from which the tempo is taken at first. */
    private static final int MEASURED = 24;

    /** Longer than a clock at the slowest tempo. */
    private static final long SILENCE = TimeUnit.MILLISECONDS.toNanos(600);

    /** The clocks that it runs ahead when none arrives. */
    private static final int AHEAD = 2;

    private final long[] lasts = new long[MEASURED + 1];
    private int heard;
    private boolean waiting;
    private long count;

    /** The tick of the last start, continue or position. */
    private volatile long from;

    /** @param tempo that of the session, by which clocks are places */
    public ClockFollower(Clock clock, TempoMap tempo) {
        super(clock, tempo, SILENCE);
    }

    @Override
    public long jumpedTo() {
        return tempo().nanos(from);
    }

    /** Returns the position that the last clock was for, in nanoseconds of the session; the clock thread only. */
    long heardPosition() {
        return tempo().nanos(from + count * ClockSender.TICKS);
    }

    /** Takes a song position: it counts at the next continue, or where the other runs on, at the next clock. */
    public void songPosition(int sixteenths) {
        from = sixteenths * (long) TempoMap.PPQ / 4;
        count = 0;
        waiting |= running;
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
            // One that runs goes on: a continue says nothing new.
            case RealTime.CONTINUE -> waiting |= !running;
            case RealTime.STOP -> {
                if (running && !waiting) {
                    // The next clock after a continue is the next of the music.
                    from += (count + 1) * ClockSender.TICKS;
                    count = 0;
                }
                stopped(stamp);
                waiting = false;
            }
            case RealTime.CLOCK -> clock(stamp);
            default -> {
                // No part of a clock.
            }
        }
    }

    private void clock(long stamp) {
        boolean wasSilent = heard > 0 && stamp - lastHeard > SILENCE;
        if (wasSilent) {
            heard = 0;
        }
        if (heard < lasts.length) {
            lasts[heard++] = stamp;
        } else {
            System.arraycopy(lasts, 1, lasts, 0, lasts.length - 1);
            lasts[lasts.length - 1] = stamp;
        }
        if (waiting) {
            waiting = false;
            count = 0;
            jump(stamp, rate(1));
        } else if (running && wasSilent) {
            // Who did not send clocks did not go on either: it continues where it was.
            from += (count + 1) * ClockSender.TICKS;
            count = 0;
            jump(stamp, moving.rate());
        } else if (running) {
            count++;
            follow(stamp);
        }
        lastHeard = stamp;
    }

    private void jump(long stamp, double rate) {
        set(stamp, tempo().nanos(from), rate);
        jumped(stamp);
    }

    private void set(long stamp, double virtual, double rate) {
        moving.set(stamp, virtual, rate, tempo().nanos(from + (count + AHEAD) * ClockSender.TICKS));
    }

    /** Returns the rate of the session's time by the recent clocks. */
    private double rate(double otherwise) {
        if (heard < 3) {
            return otherwise;
        }
        double each = (lasts[heard - 1] - lasts[0]) / (double) (heard - 1);
        return (tempo().nanos(from + ClockSender.TICKS) - tempo().nanos(from)) / each;
    }

    private void follow(long stamp) {
        double due = tempo().nanos(from + count * ClockSender.TICKS);
        if (count < MEASURED && heard <= MEASURED) {
            // Too few clocks for smoothing: their average is used directly.
            set(stamp, due, rate(moving.rate()));
            return;
        }
        double is = moving.at(stamp);
        double error = due - is;
        double step = Math.max(1, due - tempo().nanos(from + (count - 1) * ClockSender.TICKS));
        set(stamp, is + PHASE * error, moving.rate() + RATE * error / step);
    }

    @Override
    public double bpm() {
        if (heard < 3) {
            return 0;
        }
        double each = (lasts[heard - 1] - lasts[0]) / (double) (heard - 1);
        return TimeUnit.MINUTES.toNanos(1) / (each * RealTime.CLOCKS_A_QUARTER);
    }
}
