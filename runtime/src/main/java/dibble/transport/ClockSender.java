package dibble.transport;

import dibble.midi.RealTime;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Sends MIDI clock, 24 per quarter note, with start, song position, continue and stop, on its own thread, along a
 * {@link PlaybackTimebase}. Clocks begin with the count-in, so that a follower has the tempo before the start; the
 * start precedes the clock of the first beat slightly, as the standard requires. After a loop or a new timebase, the
 * new position is sent. A failing output is skipped; a late one joins at the next sixteenth.
 */
public final class ClockSender implements AutoCloseable {
    /** Ticks from one clock to the next. */
    public static final long TICKS = ClockScript.TICKS;

    private static final Logger LOG = LoggerFactory.getLogger(ClockSender.class);
    private static final long AHEAD = TimeUnit.MILLISECONDS.toNanos(2);

    /** An output of the clock. Called on the sender's thread; may fail. */
    public interface Out {
        void realTime(int status);

        /** @param sixteenths since the beginning of the song, 0-16383 */
        void songPosition(int sixteenths);
    }

    private final Clock clock;
    private final Thread thread = new Thread(this::run, "dibble-clock");
    private volatile PlaybackTimebase course;
    private volatile List<Out> outs;
    private volatile boolean stopping;
    private long lead;

    /** Those that follow now; the others have failed, or have not joined yet. Sender's thread. */
    private final List<Out> following = new ArrayList<>();

    private final List<Out> failed = new ArrayList<>();

    /** @param outs the outputs; compared by identity */
    public ClockSender(Clock clock, PlaybackTimebase course, List<? extends Out> outs) {
        this.clock = clock;
        this.course = course;
        this.outs = List.copyOf(outs);
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
    }

    /** Begins, with clocks for some nanoseconds before the music. */
    public void start(long leadNanos) {
        lead = leadNanos;
        thread.start();
    }

    /** Sets the outputs. */
    public void setOuts(List<? extends Out> others) {
        outs = List.copyOf(others);
    }

    /** Goes on along another course. */
    public void change(PlaybackTimebase next) {
        course = next;
        LockSupport.unpark(thread);
    }

    private void run() {
        BooleanSupplier stops = () -> stopping;
        PlaybackTimebase now = course;
        following.addAll(outs);
        countIn(now, stops);
        ClockScript script = new ClockScript(now);
        if (PreciseTimer.until(clock, now.at() - AHEAD, stops)) {
            script.begin(this::send);
        }
        while (!stopping) {
            PlaybackTimebase next = course;
            if (next != script.course()) {
                skipMissed(script);
                script.change(next, clock.nanos(), this::send);
            }
            if (PreciseTimer.until(clock, script.due(), () -> stopping || course != next) && !skipMissed(script)) {
                letJoin(script);
                script.act(this::send);
            }
        }
        send(out -> out.realTime(RealTime.STOP));
    }

    private boolean skipMissed(ClockScript script) {
        long now = clock.nanos();
        boolean skips = PreciseTimer.isMissed(script.due(), now);
        if (skips) {
            script.skipTo(now, this::send);
        }
        return skips;
    }

    private void countIn(PlaybackTimebase course, BooleanSupplier stops) {
        long first = course.tempo().ticks(course.place());
        long each = course.tempo().nanos(first + TICKS) - course.tempo().nanos(first);
        // The last one before the start leaves room for it.
        for (long left = lead / each; left > 0 && left * each > AHEAD; left--) {
            long due = course.at() - left * each;
            if (!PreciseTimer.until(clock, due, stops)) {
                return;
            }
            if (!PreciseTimer.isMissed(due, clock.nanos())) {
                send(out -> out.realTime(RealTime.CLOCK));
            }
        }
    }

    private void letJoin(ClockScript script) {
        List<Out> all = outs;
        following.retainAll(all);
        failed.retainAll(all);
        if (following.size() + failed.size() < all.size() && script.canJoin()) {
            for (Out out : all) {
                if (!following.contains(out) && !failed.contains(out)) {
                    following.add(out);
                    sendTo(out, script.joining());
                }
            }
            following.removeAll(failed);
        }
    }

    private void send(ClockScript.Message message) {
        for (Out out : following) {
            sendTo(out, message);
        }
        following.removeAll(failed);
    }

    /** A failing output must not affect the others. */
    private void sendTo(Out out, ClockScript.Message message) {
        try {
            message.sendTo(out);
        } catch (RuntimeException e) {
            LOG.warn("a port that follows the clock failed", e);
            failed.add(out);
        }
    }

    /** Stops, and returns when that is said. */
    @Override
    public void close() {
        stopping = true;
        PreciseTimer.end(thread);
    }
}
