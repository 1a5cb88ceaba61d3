package dibble.time;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;

/**
 * Tempo and meter of a session: between nanoseconds since the start, ticks, and bars and beats. Immutable. Ticks are
 * {@link #PPQ} a quarter note.
 */
public final class TempoMap {
    /** Ticks a quarter note in all that Dibble records and writes. */
    public static final int PPQ = 960;

    /**
     * A tempo from a tick on.
     *
     * @param at tick, 0 or more
     * @param bpm quarter notes a minute, 5 to 999
     */
    public record Tempo(long at, double bpm) {
        public Tempo {
            if (at < 0) {
                throw new UserException(say("tempo-map.tempo-at-tick-expected-0", at));
            }
            if (!(bpm >= 5 && bpm <= 999)) {
                throw new UserException(say("tempo-map.tempo-of-expected-5-to", bpm));
            }
        }

        double nanosPerTick() {
            return 60e9 / bpm / PPQ;
        }
    }

    /**
     * A meter from a tick on.
     *
     * @param at tick, 0 or more
     * @param beats beats of a bar, 1 to 64
     * @param unit the note value of a beat: 1, 2, 4, 8, 16, 32 or 64
     */
    public record Meter(long at, int beats, int unit) {
        public Meter {
            if (at < 0) {
                throw new UserException(say("tempo-map.meter-at-tick-expected-0", at));
            }
            if (beats < 1 || beats > 64) {
                throw new UserException(say("tempo-map.beats-per-bar-expected-1", beats));
            }
            if (unit < 1 || unit > 64 || Integer.bitCount(unit) != 1) {
                throw new UserException(say("tempo-map.beat-unit-expected-1-2", unit));
            }
        }

        /** Returns the ticks of a beat. */
        public long ticksPerBeat() {
            return PPQ * 4L / unit;
        }

        /** Returns the ticks of a bar. */
        public long ticksPerBar() {
            return ticksPerBeat() * beats;
        }
    }

    /** A place in the music: bar and beat count from 1, the tick within the beat from 0. */
    public record Place(long bar, int beat, int tick) {}

    private final List<Tempo> tempos;
    private final List<Meter> meters;

    /** The same in columns, for looking up: where each tempo and meter begins. */
    private final long[] tempoTicks;

    private final double[] tempoStarts;
    private final long[] meterTicks;
    private final long[] meterBars;

    /** Both lists begin at tick 0 and rise. */
    public TempoMap(List<Tempo> tempos, List<Meter> meters) {
        this.tempos = List.copyOf(tempos);
        this.meters = List.copyOf(meters);
        tempoTicks = rising("number.tempo", tempos.stream().mapToLong(Tempo::at).toArray());
        meterTicks = rising("number.meter", meters.stream().mapToLong(Meter::at).toArray());
        tempoStarts = new double[tempoTicks.length];
        for (int i = 1; i < tempoStarts.length; i++) {
            long length = tempoTicks[i] - tempoTicks[i - 1];
            tempoStarts[i] = tempoStarts[i - 1] + length * tempos.get(i - 1).nanosPerTick();
        }
        meterBars = new long[meterTicks.length];
        meterBars[0] = 1;
        for (int i = 1; i < meterBars.length; i++) {
            long bar = meters.get(i - 1).ticksPerBar();
            meterBars[i] = meterBars[i - 1] + (meterTicks[i] - meterTicks[i - 1] + bar - 1) / bar;
        }
    }

    private static long[] rising(String what, long[] ticks) {
        if (ticks.length == 0 || ticks[0] != 0) {
            throw new UserException(say("tempo-map.no-at-tick-0", say(what)));
        }
        for (int i = 1; i < ticks.length; i++) {
            if (ticks[i] <= ticks[i - 1]) {
                throw new UserException(say("tempo-map.at-tick-expected-later-ticks", say(what), ticks[i]));
            }
        }
        return ticks;
    }

    /** One tempo in 4/4. */
    public static TempoMap of(double bpm) {
        return new TempoMap(List.of(new Tempo(0, bpm)), List.of(new Meter(0, 4, 4)));
    }

    /**
     * A tick and when it comes.
     *
     * @param nanos since the start
     */
    public record Anchor(long tick, long nanos) {}

    /**
     * Returns the tempo through given points: each tick is at its time within half a tick. A point that would need an
     * impossible tempo is skipped.
     *
     * @param anchors ascending; the first is the start
     */
    public static TempoMap through(List<Anchor> anchors, List<Meter> meters) {
        List<Tempo> tempos = new ArrayList<>();
        Anchor from = new Anchor(0, 0);
        for (Anchor to : anchors) {
            double bpm = (to.tick - from.tick) * 60e9 / PPQ / Math.max(1, to.nanos - from.nanos);
            if (to.tick > from.tick && to.nanos > from.nanos && bpm >= 5 && bpm <= 999) {
                tempos.add(new Tempo(from.tick, bpm));
                from = to;
            }
        }
        return new TempoMap(tempos.isEmpty() ? List.of(new Tempo(0, 120)) : tempos, meters);
    }

    /** All tempos, in the order of their ticks; the first is at 0. */
    public List<Tempo> tempos() {
        return tempos;
    }

    /** All time signatures, in the order of their ticks. */
    public List<Meter> meters() {
        return meters;
    }

    /** The last of rising numbers that is not above a value; the first where all are. */
    private static int last(long[] rising, long value) {
        int found = Arrays.binarySearch(rising, value);
        return Math.max(0, found >= 0 ? found : -found - 2);
    }

    /** Nanoseconds from the start to a tick. */
    public long nanos(long tick) {
        int i = last(tempoTicks, tick);
        return Math.round(
                tempoStarts[i] + (tick - tempoTicks[i]) * tempos.get(i).nanosPerTick());
    }

    /** The nearest tick to a time since the start. */
    public long ticks(long nanos) {
        int found = Arrays.binarySearch(tempoStarts, nanos);
        int i = Math.max(0, found >= 0 ? found : -found - 2);
        return Math.round(
                tempoTicks[i] + (nanos - tempoStarts[i]) / tempos.get(i).nanosPerTick());
    }

    /** Returns the last tick at or before a time since the start. */
    public long tickAtOrBefore(long nanos) {
        long tick = ticks(nanos);
        return nanos(tick) > nanos ? tick - 1 : tick;
    }

    /** Quarter notes a minute at a tick. */
    public double bpm(long tick) {
        return tempos.get(last(tempoTicks, tick)).bpm();
    }

    /** The meter at a tick. */
    public Meter meter(long tick) {
        return meters.get(last(meterTicks, tick));
    }

    /** Bar, beat and tick of an absolute tick. A new meter begins a new bar. */
    public Place place(long tick) {
        int i = last(meterTicks, tick);
        Meter meter = meters.get(i);
        long in = tick - meter.at();
        long inBar = in % meter.ticksPerBar();
        return new Place(meterBars[i] + in / meter.ticksPerBar(), (int) (inBar / meter.ticksPerBeat()) + 1, (int)
                (inBar % meter.ticksPerBeat()));
    }

    /** The bar, from 1, that a tick is in. */
    public long barAt(long tick) {
        int i = last(meterTicks, tick);
        Meter meter = meters.get(i);
        return meterBars[i] + (tick - meter.at()) / meter.ticksPerBar();
    }

    /** The tick at which a bar (from 1) begins. */
    public long barStart(long bar) {
        int i = last(meterBars, bar);
        return meterTicks[i] + (bar - meterBars[i]) * meters.get(i).ticksPerBar();
    }

    /** The first beat at or after a tick. */
    public long beatAt(long tick) {
        int i = last(meterTicks, tick);
        long beat = meters.get(i).ticksPerBeat();
        long next = meterTicks[i] + (tick - meterTicks[i] + beat - 1) / beat * beat;
        return i + 1 < meterTicks.length ? Math.min(next, meterTicks[i + 1]) : next;
    }

    /** This tempo until a tick and another's from there on; the meter is the other's. */
    public TempoMap spliced(long tick, TempoMap other) {
        List<Tempo> spliced = new ArrayList<>();
        tempos.stream().filter(tempo -> tempo.at() < tick).forEach(spliced::add);
        spliced.add(new Tempo(tick, other.bpm(tick)));
        other.tempos.stream().filter(tempo -> tempo.at() > tick).forEach(spliced::add);
        return new TempoMap(spliced, other.meters);
    }

    /**
     * Returns the tempo and meter of rearranged music.
     *
     * @param slices in order; gaps between them continue the previous tempo
     */
    public TempoMap arranged(List<Slice> slices) {
        TreeMap<Long, Tempo> nextTempos = new TreeMap<>();
        TreeMap<Long, Meter> nextMeters = new TreeMap<>();
        // Before a first slice that begins later, there is a pause in its tempo and meter.
        slices.stream().findFirst().ifPresent(first -> {
            Meter meter = meter(first.from());
            nextTempos.put(0L, new Tempo(0, bpm(first.from())));
            nextMeters.put(0L, new Meter(0, meter.beats(), meter.unit()));
        });
        for (Slice slice : slices) {
            nextTempos.put(slice.at(), new Tempo(slice.at(), bpm(slice.from())));
            Meter meter = meter(slice.from());
            nextMeters.put(slice.at(), new Meter(slice.at(), meter.beats(), meter.unit()));
            for (Tempo tempo : tempos) {
                if (tempo.at() > slice.from() && tempo.at() < slice.to()) {
                    long at = tempo.at() + slice.shift();
                    nextTempos.put(at, new Tempo(at, tempo.bpm()));
                }
            }
            for (Meter change : meters) {
                if (change.at() > slice.from() && change.at() < slice.to()) {
                    long at = change.at() + slice.shift();
                    nextMeters.put(at, new Meter(at, change.beats(), change.unit()));
                }
            }
        }
        List<Tempo> differentTempos = new ArrayList<>();
        for (Tempo tempo : nextTempos.values()) {
            int last = differentTempos.size() - 1;
            if (last < 0 || differentTempos.get(last).bpm() != tempo.bpm()) {
                differentTempos.add(tempo);
            }
        }
        List<Meter> differentMeters = new ArrayList<>();
        for (Meter meter : nextMeters.values()) {
            int last = differentMeters.size() - 1;
            boolean same = last >= 0
                    && differentMeters.get(last).beats() == meter.beats()
                    && differentMeters.get(last).unit() == meter.unit();
            if (!same) {
                differentMeters.add(meter);
            }
        }
        return new TempoMap(differentTempos, differentMeters);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof TempoMap that && tempos.equals(that.tempos) && meters.equals(that.meters);
    }

    @Override
    public int hashCode() {
        return tempos.hashCode() * 31 + meters.hashCode();
    }
}
