package dibble.standins;

import dibble.midi.ChannelSet;
import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.IntConsumer;

/**
 * A sequencer with five lanes that generates music by {@link Patterns}. It leads with its own tempo and MIDI clock, or
 * follows a received clock. All its notes end when it stops.
 */
public final class PatternSequencer implements AutoCloseable {
    private static final int LANES = Patterns.values().length;
    private static final int CLOCKS_A_STEP = RealTime.CLOCKS_A_QUARTER / 4;
    private static final int MAX_AT_ONCE = 16;

    /** A note that is held, and the clock at which it ends. */
    private record Held(int off, long until) {}

    private final Clock clock;
    private final IntConsumer out;
    private final IntConsumer realTimeOut;
    private final java.util.ArrayList<Held> held = new java.util.ArrayList<>(MAX_AT_ONCE);
    private volatile List<Integer> channels = List.of(1, 2, 3, 4, 5);
    private volatile double bpm = 96;
    private volatile boolean follows;
    private volatile boolean running;
    private long at;
    private Thread thread;

    /**
     * @param out takes the packed messages that it plays
     * @param realTimeOut takes the status bytes of the clock that it leads with
     */
    PatternSequencer(Clock clock, IntConsumer out, IntConsumer realTimeOut) {
        this.clock = clock;
        this.out = out;
        this.realTimeOut = realTimeOut;
    }

    /** Sets the channels of its lanes, 1-16; lanes beyond the list are silent. */
    public synchronized void playOn(List<Integer> numbers) {
        if (!channels.equals(numbers)) {
            endAll();
            channels = List.copyOf(numbers);
        }
    }

    /** The channels of a set as lanes. */
    public void playOn(ChannelSet set) {
        playOn(set.numbers().stream().sorted().limit(LANES).toList());
    }

    /** @param quarters a minute, 20 to 300 */
    public void setTempo(double quarters) {
        if (!(quarters >= 20 && quarters <= 300)) {
            throw new IllegalArgumentException(
                    String.format(Locale.ROOT, "tempo %.1f (expected 20 to 300 quarters a minute)", quarters));
        }
        bpm = quarters;
    }

    /** Selects whether it follows a received clock or leads. Stops first. */
    public void setFollows(boolean clockOfOthers) {
        if (follows != clockOfOthers) {
            stop();
            follows = clockOfOthers;
        }
    }

    /** Returns true if it goes by the clock of others. */
    public boolean follows() {
        return follows;
    }

    /** Returns true if it was started, and not stopped since. */
    public boolean isRunning() {
        return running;
    }

    /** Starts from the beginning; one that follows then waits for clocks. */
    public synchronized void start() {
        stop();
        at = 0;
        running = true;
        if (!follows) {
            realTimeOut.accept(RealTime.START);
            thread = new Thread(this::lead, "dibble-patterns");
            thread.setDaemon(true);
            thread.start();
        }
    }

    /** Stops; all its notes end. */
    public synchronized void stop() {
        boolean was = running;
        running = false;
        if (thread != null) {
            LockSupport.unpark(thread);
            thread = null;
            if (was) {
                realTimeOut.accept(RealTime.STOP);
            }
        }
        endAll();
    }

    /** Takes what others' clock says; only where it follows. */
    void realTime(int status) {
        if (!follows) {
            return;
        }
        switch (status) {
            case RealTime.START -> start();
            case RealTime.STOP -> stop();
            case RealTime.CONTINUE -> running = true;
            case RealTime.CLOCK -> {
                if (running) {
                    tick();
                }
            }
            default -> {
                // Others are no part of a clock.
            }
        }
    }

    /** Takes where to continue from; only where it follows. */
    synchronized void songPosition(int sixteenths) {
        if (follows) {
            at = sixteenths * (long) RealTime.CLOCKS_A_QUARTER / 4;
        }
    }

    private void lead() {
        long next = clock.nanos();
        while (isLeadBy(Thread.currentThread())) {
            realTimeOut.accept(RealTime.CLOCK);
            tick();
            next += (long) (TimeUnit.MINUTES.toNanos(1) / bpm / RealTime.CLOCKS_A_QUARTER);
            for (long left = next - clock.nanos();
                    left > 0 && isLeadBy(Thread.currentThread());
                    left = next - clock.nanos()) {
                clock.rest(left);
            }
        }
    }

    private synchronized boolean isLeadBy(Thread who) {
        return thread == who;
    }

    /** Advances by one clock: ends due notes, then begins due notes. */
    private synchronized void tick() {
        if (!running) {
            return;
        }
        end(at);
        if (at % CLOCKS_A_STEP == 0) {
            long step = at / CLOCKS_A_STEP;
            List<Integer> on = channels;
            for (int lane = 0; lane < Math.min(LANES, on.size()); lane++) {
                int channel = on.get(lane) - 1;
                Patterns.values()[lane].play(step, (note, velocity, steps) -> {
                    out.accept(ShortMessage.noteOn(channel, note, velocity));
                    held.add(new Held(
                            ShortMessage.noteOff(channel, note, ShortMessage.DEFAULT_RELEASE),
                            at + (long) steps * CLOCKS_A_STEP - 1));
                });
            }
        }
        at++;
    }

    private void end(long now) {
        held.removeIf(note -> {
            boolean due = note.until() <= now;
            if (due) {
                out.accept(note.off());
            }
            return due;
        });
    }

    private synchronized void endAll() {
        end(Long.MAX_VALUE);
    }

    @Override
    public void close() {
        stop();
    }
}
