package dibble.transport;

import dibble.midi.RealTime;
import dibble.time.TempoMap;
import java.util.function.Consumer;

/**
 * The clocks of a {@link PlaybackTimebase}, and the messages between them by which a follower knows its position, step by step. A
 * song position counts sixteenths, so elsewhere a follower joins at the next one. Not thread-safe; reads no clock.
 */
final class ClockScript {
    /** Ticks from one clock to the next. */
    static final long TICKS = TempoMap.PPQ / RealTime.CLOCKS_A_QUARTER;

    private static final long TICKS_A_SIXTEENTH = TempoMap.PPQ / 4;
    private static final int LAST_POSITION = 16383;

    /** A message for one output. */
    interface Message {
        void sendTo(ClockSender.Out out);
    }

    private PlaybackTimebase course;
    private GridIterator steps;

    /** True while followers run at a known position. */
    private boolean running;

    ClockScript(PlaybackTimebase course) {
        this.course = course;
        steps = steps(course, course.at());
    }

    private static GridIterator steps(PlaybackTimebase course, long now) {
        return new GridIterator(course, tick -> (tick + TICKS - 1) / TICKS * TICKS, now);
    }

    PlaybackTimebase course() {
        return course;
    }

    /** When the next clock is due. */
    long due() {
        return steps.due();
    }

    /** The tick of the next clock. */
    long tick() {
        return steps.tick();
    }

    /** Returns true if a follower can join with the next clock. */
    boolean canJoin() {
        return running && isOnSixteenth();
    }

    private boolean isOnSixteenth() {
        return steps.tick() % TICKS_A_SIXTEENTH == 0;
    }

    /** Starts those who follow, a moment before the first clock. */
    void begin(Consumer<Message> send) {
        if (steps.tick() == 0) {
            send.accept(out -> out.realTime(RealTime.START));
            running = true;
        } else {
            letIn(send);
        }
    }

    private void letIn(Consumer<Message> send) {
        running = isOnSixteenth();
        if (running) {
            send.accept(joining());
        }
    }

    /** Returns what lets a follower in at the next clock. */
    Message joining() {
        int position = (int) Math.min(LAST_POSITION, steps.tick() / TICKS_A_SIXTEENTH);
        return out -> {
            out.songPosition(position);
            out.realTime(RealTime.CONTINUE);
        };
    }

    /** Sends the clock that is due. */
    void act(Consumer<Message> send) {
        if (!running) {
            letIn(send);
        }
        send.accept(out -> out.realTime(RealTime.CLOCK));
        int pass = steps.pass();
        steps.next();
        if (steps.pass() != pass) {
            jump(send);
        }
    }

    /** Leaves out the clocks that were missed while the machine stood still: followers go on where the music is now. */
    void skipTo(long now, Consumer<Message> send) {
        steps = steps(course, now);
        jump(send);
    }

    /** Positions are for followers that are stopped. */
    private void jump(Consumer<Message> send) {
        if (running) {
            send.accept(out -> out.realTime(RealTime.STOP));
        }
        letIn(send);
    }

    /** Goes on along another course; one to which the present one leads goes on without a word. */
    void change(PlaybackTimebase next, long now, Consumer<Message> send) {
        boolean leadsOn = course.leadsOn(next);
        while (leadsOn && due() <= Math.min(now, next.at())) {
            act(send);
        }
        boolean jumps = true;
        if (leadsOn) {
            jumps = steps.goOnAlong(next);
        } else {
            steps = steps(next, now);
        }
        course = next;
        if (jumps) {
            jump(send);
        }
    }
}
