package dibble.transport;

import dibble.midi.ShortMessage;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;

/** The beats of a tempo map as clicks: the first beat of a bar is higher and louder. */
public final class Click {
    /** Where it sounds: a port of its own, which no part uses. */
    public static final String PORT = "stand-in:click";

    /** The percussion channel, 0-15. */
    private static final int CHANNEL = 9;

    /** General MIDI's high and low wood block. */
    private static final int FIRST_BEAT = 76;

    private static final int BEAT = 77;
    private static final long MOST_BEATS = 100_000;

    private Click() {}

    /** How long some bars of the meter and tempo at a tick last, in nanoseconds. */
    public static long countIn(TempoMap tempo, long tick, int bars) {
        return bars * (tempo.nanos(tick + tempo.meter(tick).ticksPerBar()) - tempo.nanos(tick));
    }

    /** Half a beat at a tick, in nanoseconds. */
    public static long halfBeat(TempoMap tempo, long tick) {
        return tempo.nanos(tick + tempo.meter(tick).ticksPerBeat() / 2) - tempo.nanos(tick);
    }

    /**
     * Clicks from a count-in on.
     *
     * @param from the tick at which the count-in ends
     * @param bars of count-in, 0 to 4
     * @param until the tick at which they end; {@code from} for a count-in alone
     * @return times since the beginning of the count-in
     */
    public static Timeline timeline(TempoMap tempo, long from, int bars, long until) {
        List<Long> times = new ArrayList<>();
        List<Integer> messages = new ArrayList<>();
        long lead = countIn(tempo, from, bars);
        TempoMap.Meter at = tempo.meter(from);
        long beat = tempo.nanos(from + at.ticksPerBeat()) - tempo.nanos(from);
        for (int i = 0; i < bars * at.beats(); i++) {
            add(times, messages, i * beat, i % at.beats() == 0);
        }
        long tick = from;
        while (tick < until && times.size() < MOST_BEATS) {
            TempoMap.Place place = tempo.place(tick);
            if (place.tick() == 0) {
                add(times, messages, lead + tempo.nanos(tick) - tempo.nanos(from), place.beat() == 1);
            }
            tick += tempo.meter(tick).ticksPerBeat() - place.tick();
        }
        long length = lead + tempo.nanos(Math.max(from, until)) - tempo.nanos(from);
        return Timeline.of(
                times.stream().mapToLong(Long::longValue).toArray(),
                messages.stream().mapToInt(Integer::intValue).toArray(),
                length);
    }

    private static void add(List<Long> times, List<Integer> messages, long time, boolean first) {
        times.add(time);
        messages.add(ShortMessage.noteOn(CHANNEL, first ? FIRST_BEAT : BEAT, first ? 110 : 80));
    }
}
