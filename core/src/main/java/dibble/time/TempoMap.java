package dibble.time;

import java.util.List;

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
                throw new IllegalArgumentException("tempo at tick " + at + " (expected 0 or more)");
            }
            if (!(bpm >= 5 && bpm <= 999)) {
                throw new IllegalArgumentException("tempo of " + bpm + " (expected 5 to 999)");
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
     * @param beats beats a bar, 1 to 64
     * @param unit what a beat is: 1, 2, 4, 8, 16, 32 or 64
     */
    public record Meter(long at, int beats, int unit) {
        public Meter {
            if (at < 0) {
                throw new IllegalArgumentException("meter at tick " + at + " (expected 0 or more)");
            }
            if (beats < 1 || beats > 64) {
                throw new IllegalArgumentException(beats + " beats a bar (expected 1 to 64)");
            }
            if (unit < 1 || unit > 64 || Integer.bitCount(unit) != 1) {
                throw new IllegalArgumentException("beat unit " + unit + " (expected 1, 2, 4, 8, 16, 32 or 64)");
            }
        }

        /** How many ticks a beat has. */
        public long ticksPerBeat() {
            return PPQ * 4L / unit;
        }

        /** How many ticks a bar has. */
        public long ticksPerBar() {
            return ticksPerBeat() * beats;
        }
    }

    /** A place in the music: bar and beat count from 1, the tick within the beat from 0. */
    public record Place(long bar, int beat, int tick) {}

    private final List<Tempo> tempos;
    private final List<Meter> meters;
    private final double[] tempoStarts;

    /** Both lists begin at tick 0 and rise. */
    public TempoMap(List<Tempo> tempos, List<Meter> meters) {
        if (tempos.isEmpty() || tempos.get(0).at() != 0) {
            throw new IllegalArgumentException("no tempo at tick 0");
        }
        if (meters.isEmpty() || meters.get(0).at() != 0) {
            throw new IllegalArgumentException("no meter at tick 0");
        }
        this.tempos = List.copyOf(tempos);
        this.meters = List.copyOf(meters);
        tempoStarts = new double[tempos.size()];
        for (int i = 1; i < tempoStarts.length; i++) {
            Tempo before = tempos.get(i - 1);
            long length = tempos.get(i).at() - before.at();
            if (length <= 0) {
                throw new IllegalArgumentException(
                        "tempo at tick " + tempos.get(i).at() + " (expected later ticks)");
            }
            tempoStarts[i] = tempoStarts[i - 1] + length * before.nanosPerTick();
        }
        for (int i = 1; i < meters.size(); i++) {
            if (meters.get(i).at() <= meters.get(i - 1).at()) {
                throw new IllegalArgumentException(
                        "meter at tick " + meters.get(i).at() + " (expected later ticks)");
            }
        }
    }

    /** One tempo in 4/4. */
    public static TempoMap of(double bpm) {
        return new TempoMap(List.of(new Tempo(0, bpm)), List.of(new Meter(0, 4, 4)));
    }

    public List<Tempo> tempos() {
        return tempos;
    }

    public List<Meter> meters() {
        return meters;
    }

    /** Nanoseconds from the start to a tick. */
    public long nanos(long tick) {
        int i = tempos.size() - 1;
        while (i > 0 && tempos.get(i).at() > tick) {
            i--;
        }
        Tempo tempo = tempos.get(i);
        return Math.round(tempoStarts[i] + (tick - tempo.at()) * tempo.nanosPerTick());
    }

    /** The nearest tick to a time since the start. */
    public long ticks(long nanos) {
        int i = tempos.size() - 1;
        while (i > 0 && tempoStarts[i] > nanos) {
            i--;
        }
        Tempo tempo = tempos.get(i);
        return Math.round(tempo.at() + (nanos - tempoStarts[i]) / tempo.nanosPerTick());
    }

    /** Quarter notes a minute at a tick. */
    public double bpm(long tick) {
        int i = tempos.size() - 1;
        while (i > 0 && tempos.get(i).at() > tick) {
            i--;
        }
        return tempos.get(i).bpm();
    }

    /** The meter at a tick. */
    public Meter meter(long tick) {
        int i = meters.size() - 1;
        while (i > 0 && meters.get(i).at() > tick) {
            i--;
        }
        return meters.get(i);
    }

    /** Bar, beat and tick of an absolute tick. A new meter begins a new bar. */
    public Place place(long tick) {
        long bar = 1;
        for (int i = 0; ; i++) {
            Meter meter = meters.get(i);
            boolean last = i == meters.size() - 1 || meters.get(i + 1).at() > tick;
            if (last) {
                long in = tick - meter.at();
                bar += in / meter.ticksPerBar();
                long inBar = in % meter.ticksPerBar();
                return new Place(bar, (int) (inBar / meter.ticksPerBeat()) + 1, (int) (inBar % meter.ticksPerBeat()));
            }
            long length = meters.get(i + 1).at() - meter.at();
            bar += (length + meter.ticksPerBar() - 1) / meter.ticksPerBar();
        }
    }

    /** The tick at which a bar (from 1) begins. */
    public long barStart(long bar) {
        long first = 1;
        for (int i = 0; ; i++) {
            Meter meter = meters.get(i);
            if (i == meters.size() - 1) {
                return meter.at() + (bar - first) * meter.ticksPerBar();
            }
            long length = meters.get(i + 1).at() - meter.at();
            long bars = (length + meter.ticksPerBar() - 1) / meter.ticksPerBar();
            if (bar < first + bars) {
                return meter.at() + (bar - first) * meter.ticksPerBar();
            }
            first += bars;
        }
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
