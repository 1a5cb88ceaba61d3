package dibble.transport;

import dibble.time.Clock;
import java.util.concurrent.locks.LockSupport;

/**
 * Plays a {@link PlaybackPlan} on its own thread, each event at its time. Another plan can replace it during playback.
 * When it is stopped, it ends the notes and releases the pedals that it left down.
 */
public final class Player implements AutoCloseable {
    private final Clock clock;
    private final Thread thread;
    private volatile PlaybackPlan program;
    private volatile boolean stopping;
    private volatile boolean ended;

    /** The external clock, which can jump, or null. */
    private final Follower follower;

    /** The time on its clock at which it begins, however late its thread does, and the jumps of the follower by then. */
    private final long entry;

    private final int jumpsAtEntry;

    /** Plays along the clock of this machine. */
    public Player(String name, Clock clock, PlaybackPlan program) {
        this(name, clock, null, program, program.course().at());
    }

    /**
     * Plays along an external clock, whose time is that of the session.
     *
     * @param entry the start position; later events that are already due are played at once
     */
    public Player(String name, Follower follower, PlaybackPlan program, long entry) {
        this(name, follower, follower, program, entry);
    }

    private Player(String name, Clock clock, Follower follower, PlaybackPlan program, long entry) {
        this.clock = clock;
        this.follower = follower;
        this.entry = entry;
        jumpsAtEntry = jumps();
        this.program = program;
        thread = new Thread(this::run, name);
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
    }

    /** Begins. */
    public void start() {
        thread.start();
    }

    /** Puts another program in the place of the one that is played. */
    public void change(PlaybackPlan next) {
        program = next;
        LockSupport.unpark(thread);
    }

    private int jumps() {
        return follower == null ? 0 : follower.jumps();
    }

    /** Skips to the present position if too much was missed to catch up. A follower jumps itself. */
    private boolean skipMissed(PlaybackState playing) {
        long now = clock.nanos();
        boolean skips = follower == null && playing.hasMissed(now);
        if (skips) {
            playing.jump(now);
        }
        return skips;
    }

    private void run() {
        int jumps = jumpsAtEntry;
        // From the start, though this thread may be slightly late: events that are already due are played at once.
        PlaybackPlan first = program;
        PlaybackState playing = new PlaybackState(first, entry);
        while (!stopping && !playing.isOver()) {
            PlaybackPlan now = program;
            if (now != playing.program()) {
                skipMissed(playing);
                playing.change(now, clock.nanos());
                continue;
            }
            if (jumps != jumps()) {
                jumps = jumps();
                playing.jump(follower.jumpedTo());
                continue;
            }
            int seen = jumps;
            if (PreciseTimer.until(clock, playing.due(), () -> stopping || program != now || seen != jumps())
                    && !skipMissed(playing)) {
                playing.act();
            }
        }
        playing.end();
        ended = true;
    }

    /** Returns true if it still plays. */
    public boolean isPlaying() {
        return !ended;
    }

    /** Returns the position, in nanoseconds of its plan's tempo. */
    public long position() {
        return program.course().position(clock.nanos());
    }

    /** Stops, and returns when the last off is out. */
    @Override
    public void close() {
        stopping = true;
        PreciseTimer.end(thread);
    }
}
