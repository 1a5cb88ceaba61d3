package dibble.transport;

import dibble.midi.RealTime;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Sends MIDI clock, 24 a quarter note, with start, song position, continue and stop, on a thread of its own, along a
 * {@link Course}. Clocks come from the beginning of a count-in on, so that who follows has the tempo when it starts; the
 * start comes a moment before the clock that is the first beat, as the standard asks. Where the course comes round a
 * loop, or is another, the new place is said. Who fails is left out; who comes later joins at the next sixteenth.
 */
public final class ClockSender implements AutoCloseable {
    /** Ticks from one clock to the next. */
    public static final long TICKS = TempoMap.PPQ / RealTime.CLOCKS_A_QUARTER;

    private static final Logger LOG = LoggerFactory.getLogger(ClockSender.class);
    private static final long TICKS_A_SIXTEENTH = TempoMap.PPQ / 4;
    private static final int LAST_POSITION = 16383;
    private static final long AHEAD = TimeUnit.MILLISECONDS.toNanos(2);

    /** Where the clock goes. Called on the sender's thread; may fail. */
    public interface Out {
        void realTime(int status);

        /** @param sixteenths since the beginning of the song, 0-16383 */
        void songPosition(int sixteenths);
    }

    /** Something to say to one of them. */
    private interface Word {
        void say(Out out);
    }

    private final Clock clock;
    private final Thread thread = new Thread(this::run, "dibble-clock");
    private volatile Course course;
    private volatile List<Out> outs;
    private volatile boolean stopping;
    private long lead;

    /** Those that follow now; the others have failed, or have not joined yet. Sender's thread. */
    private final List<Out> following = new ArrayList<>();

    private final List<Out> failed = new ArrayList<>();

    /** @param outs who is sent the clock; told apart by identity */
    public ClockSender(Clock clock, Course course, List<? extends Out> outs) {
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

    /** Has others follow from now on. */
    public void setOuts(List<? extends Out> others) {
        outs = List.copyOf(others);
    }

    /** Goes on along another course. */
    public void change(Course next) {
        course = next;
        LockSupport.unpark(thread);
    }

    private void run() {
        BooleanSupplier stops = () -> stopping;
        Course now = course;
        following.addAll(outs);
        countIn(now, stops);
        Steps steps = steps(now, now.at());
        if (Waiting.until(clock, now.at() - AHEAD, stops)) {
            begin(steps);
        }
        while (!stopping) {
            Course next = course;
            if (next != now) {
                Steps before = steps;
                steps = steps(next, clock.nanos());
                if (steps.tick() != before.tick()) {
                    goTo(steps);
                }
                now = next;
            }
            Course along = now;
            if (Waiting.until(clock, steps.due(), () -> stopping || course != along)) {
                letJoin(steps);
                send(out -> out.realTime(RealTime.CLOCK));
                int pass = steps.pass();
                steps.next();
                if (steps.pass() != pass) {
                    goTo(steps);
                }
            }
        }
        send(out -> out.realTime(RealTime.STOP));
    }

    private static Steps steps(Course course, long now) {
        return new Steps(course, tick -> (tick + TICKS - 1) / TICKS * TICKS, now);
    }

    private void countIn(Course course, BooleanSupplier stops) {
        long first = course.tempo().ticks(course.place());
        long each = course.tempo().nanos(first + TICKS) - course.tempo().nanos(first);
        // The last one before the start leaves room for it.
        for (long left = lead / each; left > 0 && left * each > AHEAD; left--) {
            if (!Waiting.until(clock, course.at() - left * each, stops)) {
                return;
            }
            send(out -> out.realTime(RealTime.CLOCK));
        }
    }

    private void begin(Steps steps) {
        if (steps.tick() == 0) {
            send(out -> out.realTime(RealTime.START));
        } else {
            send(out -> join(out, steps.tick()));
        }
    }

    private static void join(Out out, long tick) {
        out.songPosition((int) Math.min(LAST_POSITION, tick / TICKS_A_SIXTEENTH));
        out.realTime(RealTime.CONTINUE);
    }

    /** Says another place; positions are for those that stand, so they are stopped for it. */
    private void goTo(Steps steps) {
        send(out -> {
            out.realTime(RealTime.STOP);
            join(out, steps.tick());
        });
    }

    private void letJoin(Steps steps) {
        List<Out> all = outs;
        following.retainAll(all);
        failed.retainAll(all);
        if (following.size() + failed.size() < all.size() && steps.tick() % TICKS_A_SIXTEENTH == 0) {
            for (Out out : all) {
                if (!following.contains(out) && !failed.contains(out)) {
                    following.add(out);
                    say(out, it -> join(it, steps.tick()));
                }
            }
            following.removeAll(failed);
        }
    }

    private void send(Word word) {
        for (Out out : following) {
            say(out, word);
        }
        following.removeAll(failed);
    }

    /** Who fails must not take the others along. */
    private void say(Out out, Word word) {
        try {
            word.say(out);
        } catch (RuntimeException e) {
            LOG.warn("a port that follows the clock failed: {}", e.toString());
            failed.add(out);
        }
    }

    /** Stops, and returns when that is said. */
    @Override
    public void close() {
        stopping = true;
        Waiting.end(thread);
    }
}
