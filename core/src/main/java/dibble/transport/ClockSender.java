package dibble.transport;

import dibble.midi.RealTime;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;

/**
 * Sends MIDI clock, 24 a quarter note, with start, song position, continue and stop, on a thread of its own. Clocks come
 * from the beginning of a count-in on, so that who follows has the tempo when it starts; the start comes a moment before
 * the clock that is the first beat, as the standard asks.
 */
public final class ClockSender implements AutoCloseable {
    /** Ticks from one clock to the next. */
    public static final long TICKS = TempoMap.PPQ / RealTime.CLOCKS_A_QUARTER;

    private static final long TICKS_A_SIXTEENTH = TempoMap.PPQ / 4;
    private static final long AHEAD = TimeUnit.MILLISECONDS.toNanos(2);

    /** Where the clock goes. Called on the sender's thread. */
    public interface Out {
        void realTime(int status);

        /** @param sixteenths since the beginning of the song, 0-16383 */
        void songPosition(int sixteenths);
    }

    private final Clock clock;
    private final TempoMap tempo;
    private final List<Out> outs;
    private final Thread thread = new Thread(this::run, "dibble-clock");
    private volatile boolean stopping;
    private long firstTick;
    private long begins;
    private long leads;

    public ClockSender(Clock clock, TempoMap tempo, List<? extends Out> outs) {
        this.clock = clock;
        this.tempo = tempo;
        this.outs = List.copyOf(outs);
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
    }

    /**
     * Begins.
     *
     * @param place where the music begins, in nanoseconds of the session
     * @param at when that is, on the clock
     * @param lead how long before that clocks begin, in nanoseconds
     */
    public void start(long place, long at, long lead) {
        firstTick = tempo.ticks(place);
        begins = at;
        leads = lead;
        thread.start();
    }

    /** When clock {@code number} is due; before the first beat they are negative, in the tempo of the first. */
    private long due(long number) {
        long first = tempo.nanos(firstTick);
        return number < 0
                ? begins + number * (tempo.nanos(firstTick + TICKS) - first)
                : begins + tempo.nanos(firstTick + number * TICKS) - first;
    }

    private void run() {
        BooleanSupplier stops = () -> stopping;
        long number = 0;
        while (due(number - 1) >= begins - leads && leads > 0) {
            number--;
        }
        for (; number < 0; number++) {
            // The last one before the start leaves room for it.
            if (due(number) > begins - AHEAD || !Waiting.until(clock, due(number), stops)) {
                break;
            }
            send(RealTime.CLOCK);
        }
        if (!Waiting.until(clock, begins - AHEAD, stops)) {
            return;
        }
        if (firstTick == 0) {
            send(RealTime.START);
        } else {
            int sixteenths = (int) Math.min(16383, firstTick / TICKS_A_SIXTEENTH);
            outs.forEach(out -> out.songPosition(sixteenths));
            send(RealTime.CONTINUE);
        }
        for (long n = 0; Waiting.until(clock, due(n), stops); n++) {
            send(RealTime.CLOCK);
        }
        send(RealTime.STOP);
    }

    private void send(int status) {
        for (Out out : outs) {
            out.realTime(status);
        }
    }

    /** Stops, and returns when that is said. */
    @Override
    public void close() {
        stopping = true;
        Waiting.end(thread);
    }
}
