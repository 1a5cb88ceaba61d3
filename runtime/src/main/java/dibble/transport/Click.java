package dibble.transport;

import dibble.midi.PortId;
import dibble.midi.ShortMessage;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.concurrent.locks.LockSupport;
import java.util.function.IntConsumer;

/**
 * Plays the beats of a {@link PlaybackTimebase} as clicks, on its own thread; the first beat of a bar is higher and
 * louder. It follows the timebase around a loop, and continues with one that replaces it.
 */
public final class Click implements AutoCloseable {
    /** The port of the click, which no part uses. */
    public static final String PORT = PortId.standIn("click");

    /** The percussion channel, 0-15. */
    private static final int CHANNEL = 9;

    /** General MIDI's high and low wood block. */
    private static final int FIRST_BEAT = 76;

    private static final int BEAT = 77;

    private final Clock clock;
    private final IntConsumer out;
    private final int countIn;
    private final boolean goesOn;
    private final Thread thread = new Thread(this::run, "dibble-click");
    private volatile PlaybackTimebase course;
    private volatile boolean stopping;

    /**
     * @param countIn bars that are clicked before the course begins, 0 to 4
     * @param goesOn whether its beats are clicked then
     * @param out takes the clicks, on the click's thread
     */
    public Click(Clock clock, PlaybackTimebase course, int countIn, boolean goesOn, IntConsumer out) {
        this.clock = clock;
        this.course = course;
        this.countIn = countIn;
        this.goesOn = goesOn;
        this.out = out;
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
    }

    /** Returns the length of some bars at a tick, in nanoseconds. */
    public static long countIn(TempoMap tempo, long tick, int bars) {
        return bars * (tempo.nanos(tick + tempo.meter(tick).ticksPerBar()) - tempo.nanos(tick));
    }

    /** Half a beat at a tick, in nanoseconds. */
    public static long halfBeat(TempoMap tempo, long tick) {
        return tempo.nanos(tick + tempo.meter(tick).ticksPerBeat() / 2) - tempo.nanos(tick);
    }

    /** Begins. */
    public void start() {
        thread.start();
    }

    /** Goes on along another course. */
    public void change(PlaybackTimebase next) {
        course = next;
        LockSupport.unpark(thread);
    }

    private void run() {
        PlaybackTimebase now = course;
        countIn(now);
        GridIterator beats = new GridIterator(now, now.tempo()::beatAt, now.at());
        while (goesOn && !stopping) {
            if (PreciseTimer.isMissed(beats.due(), clock.nanos())) {
                beats = new GridIterator(now, now.tempo()::beatAt, clock.nanos());
            }
            PlaybackTimebase next = course;
            if (next != now) {
                beats = follow(next, now, beats);
                now = next;
            }
            PlaybackTimebase along = now;
            if (PreciseTimer.until(clock, beats.due(), () -> stopping || course != along)
                    && !PreciseTimer.isMissed(beats.due(), clock.nanos())) {
                click(now.tempo().place(beats.tick()).beat() == 1);
                beats.next();
            }
        }
    }

    /** Clicks the beats that were due before the other course began, and follows that course. */
    private GridIterator follow(PlaybackTimebase next, PlaybackTimebase before, GridIterator beats) {
        if (!before.leadsOn(next)) {
            return new GridIterator(next, next.tempo()::beatAt, clock.nanos());
        }
        long until = Math.min(clock.nanos(), next.at());
        while (beats.due() <= until) {
            click(before.tempo().place(beats.tick()).beat() == 1);
            beats.next();
        }
        // Beats may be elsewhere, since the meter is the other's.
        return new GridIterator(next, next.tempo()::beatAt, Math.max(next.at(), Math.min(beats.due(), until + 1)));
    }

    private void countIn(PlaybackTimebase course) {
        TempoMap tempo = course.tempo();
        long tick = tempo.ticks(course.place());
        TempoMap.Meter meter = tempo.meter(tick);
        long beat = tempo.nanos(tick + meter.ticksPerBeat()) - tempo.nanos(tick);
        long begins = course.at() - countIn(tempo, tick, countIn);
        for (int i = 0; i < countIn * meter.beats(); i++) {
            long due = begins + i * beat;
            if (!PreciseTimer.until(clock, due, () -> stopping)) {
                return;
            }
            if (!PreciseTimer.isMissed(due, clock.nanos())) {
                click(i % meter.beats() == 0);
            }
        }
    }

    private void click(boolean first) {
        out.accept(ShortMessage.noteOn(CHANNEL, first ? FIRST_BEAT : BEAT, first ? 110 : 80));
    }

    /** Falls silent. */
    @Override
    public void close() {
        stopping = true;
        PreciseTimer.end(thread);
    }
}
