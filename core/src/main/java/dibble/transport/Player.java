package dibble.transport;

import dibble.midi.ShortMessage;
import dibble.time.Clock;
import java.util.Arrays;
import java.util.List;

/**
 * Plays a {@link Timeline} on a thread of its own, each event at its time. When it is stopped it ends the notes and
 * lifts the sustain pedals that it left down.
 */
public final class Player implements AutoCloseable {
    /** Where events go; called on the player's thread. */
    @FunctionalInterface
    public interface Sink {
        /** @param lane the lane of the event in its timeline */
        void play(int lane, int message);
    }

    private static final int SUSTAIN = 64;

    private final Clock clock;
    private final Timeline timeline;
    private final Sink sink;
    private final boolean loops;
    private final Thread thread;
    private final boolean[][] on;
    private final boolean[][] pedal;
    private volatile boolean stopping;
    private volatile boolean ended;
    private volatile long startedAt;
    private long from;
    private long beginning;
    private long end;

    /** @param loops whether it begins again at the end, until it is stopped */
    public Player(String name, Clock clock, Timeline timeline, int lanes, boolean loops, Sink sink) {
        this.clock = clock;
        this.timeline = timeline;
        this.loops = loops;
        end = timeline.length();
        this.sink = sink;
        on = new boolean[lanes][16 * 128];
        pedal = new boolean[lanes][16];
        thread = new Thread(this::run, name);
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
    }

    /** Has it repeat a stretch, in nanoseconds, rather than the whole. Before it is started. */
    public void repeat(long first, long last) {
        beginning = first;
        end = last;
    }

    /** Begins to play at a place, in nanoseconds since the start of the timeline. */
    public void start(long place) {
        startAt(place, clock.nanos());
    }

    /**
     * Begins to play at a place, at a time of the clock that may be still to come. What holds at the place (programs,
     * controllers, bend, pedals) is played first, at once.
     */
    public void startAt(long place, long time) {
        from = place;
        startedAt = time - place;
        thread.start();
    }

    private void run() {
        int at = timeline.firstAt(from);
        chase(from);
        while (!stopping) {
            boolean over = at == timeline.size() || loops && timeline.nanos(at) >= end;
            if (over) {
                if (!waitUntil(startedAt + end) || !loops) {
                    break;
                }
                liftAll();
                startedAt = startedAt + end - beginning;
                at = timeline.firstAt(beginning);
                chase(beginning);
                continue;
            }
            if (waitUntil(startedAt + timeline.nanos(at))) {
                play(timeline.lane(at), timeline.message(at));
                at++;
            }
        }
        liftAll();
        ended = true;
    }

    private void chase(long place) {
        if (place > 0) {
            List<List<Integer>> held = timeline.chase(place, on.length);
            for (int lane = 0; lane < on.length; lane++) {
                for (int message : held.get(lane)) {
                    play(lane, message);
                }
            }
        }
    }

    private boolean waitUntil(long time) {
        return Waiting.until(clock, time, () -> stopping);
    }

    private void play(int lane, int message) {
        int place = ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
        if (ShortMessage.startsNote(message)) {
            on[lane][place] = true;
        } else if (ShortMessage.endsNote(message)) {
            on[lane][place] = false;
        } else if (ShortMessage.kind(message) == ShortMessage.CONTROLLER && ShortMessage.data1(message) == SUSTAIN) {
            pedal[lane][ShortMessage.channel(message)] = ShortMessage.data2(message) >= 64;
        }
        sink.play(lane, message);
    }

    private void liftAll() {
        for (int lane = 0; lane < on.length; lane++) {
            for (int place = 0; place < on[lane].length; place++) {
                if (on[lane][place]) {
                    sink.play(lane, ShortMessage.noteOff(place >>> 7, place & 0x7F, ShortMessage.DEFAULT_RELEASE));
                }
            }
            for (int channel = 0; channel < 16; channel++) {
                if (pedal[lane][channel]) {
                    sink.play(lane, ShortMessage.controller(channel, SUSTAIN, 0));
                }
            }
            Arrays.fill(on[lane], false);
            Arrays.fill(pedal[lane], false);
        }
    }

    /** Whether it still plays. */
    public boolean isPlaying() {
        return !ended;
    }

    /** Nanoseconds since the start of the timeline. */
    public long position() {
        return Math.max(0, clock.nanos() - startedAt);
    }

    /** Stops, and returns when the last off is out. */
    @Override
    public void close() {
        stopping = true;
        Waiting.end(thread);
    }
}
