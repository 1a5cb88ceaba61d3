package dibble.notes;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.LongStream;

/**
 * Evenly spaced positions, restarted at each change of meter. With swing, every second position is later. Immutable.
 */
public final class Grid {
    /** The value of swing at which every second place is where a triplet has it. */
    public static final int TRIPLET_SWING = 100;

    private static final Pattern STEP = Pattern.compile("1/(1|2|4|8|16|32|64)([td]?)");

    /** The division of a step's notes. */
    public enum Kind {
        STRAIGHT("", 1, 1),
        TRIPLET("t", 2, 3),
        DOTTED("d", 3, 2);

        private final String sign;
        private final int times;
        private final int parts;

        Kind(String sign, int times, int parts) {
            this.sign = sign;
            this.times = times;
            this.parts = parts;
        }
    }

    /**
     * The distance of two positions of a grid.
     *
     * @param unit the fraction of a whole note: 1, 2, 4, 8, 16, 32 or 64
     */
    public record Step(int unit, Kind kind) {
        public Step {
            if (unit < 1 || unit > 64 || Integer.bitCount(unit) != 1) {
                throw new UserException(say("grid.unit-expected", unit));
            }
        }

        /** Reads {@code 1/16}, {@code 1/16t} (a triplet's) or {@code 1/16d} (dotted). */
        public static Step parse(String text) {
            Matcher matcher = STEP.matcher(text.strip().toLowerCase(Locale.ROOT));
            if (!matcher.matches()) {
                throw new UserException(say("grid.step-expected", text));
            }
            Kind kind = Arrays.stream(Kind.values())
                    .filter(it -> it.sign.equals(matcher.group(2)))
                    .findFirst()
                    .orElseThrow();
            return new Step(Integer.parseInt(matcher.group(1)), kind);
        }

        @Override
        public String toString() {
            return "1/" + unit + kind.sign;
        }

        /**
         * Returns the length to the nearest tick.
         *
         * @param quarter the ticks of a quarter note
         */
        public long ticks(long quarter) {
            return Math.max(1, Math.round((double) quarter * 4 * kind.times / unit / kind.parts));
        }
    }

    private final long[] origins;

    /** A step in ticks, as a fraction: a step of a triplet need not be whole in every file. */
    private final long length;

    private final long parts;
    private final int swing;

    private Grid(long[] origins, long length, long parts, int swing) {
        this.origins = origins;
        this.length = length;
        this.parts = parts;
        this.swing = swing;
    }

    /**
     * A grid over a piece.
     *
     * @param quarter how many ticks a quarter note has
     * @param meters ticks at which a bar begins with another meter; 0 is one without being said
     * @param swing 0 for none to {@link #TRIPLET_SWING}
     */
    public static Grid of(Step step, long quarter, List<Long> meters, int swing) {
        if (swing < 0 || swing > TRIPLET_SWING) {
            throw new UserException(say("grid.swing-expected", swing, TRIPLET_SWING));
        }
        long[] origins = LongStream.concat(LongStream.of(0), meters.stream().mapToLong(Long::longValue))
                .sorted()
                .distinct()
                .toArray();
        return new Grid(origins, quarter * 4 * step.kind.times, (long) step.unit * step.kind.parts, swing);
    }

    /** A grid over a session. */
    public static Grid of(Step step, TempoMap tempo, int swing) {
        return of(
                step,
                TempoMap.PPQ,
                tempo.meters().stream().map(TempoMap.Meter::at).toList(),
                swing);
    }

    /** The place that is nearest to a tick; of two the later. */
    public long nearest(long tick) {
        long before = before(tick);
        long after = after(tick);
        return tick - before < after - tick ? before : after;
    }

    /** The last place at or before a tick. */
    public long before(long tick) {
        int section = section(tick);
        // A place is a rounded number of ticks: the next one may be rounded down to the tick, too.
        long number = (tick - origins[section]) * parts / length + 1;
        while (number > 0 && place(section, number) > tick) {
            number--;
        }
        return place(section, number);
    }

    /** The first place after a tick. */
    public long after(long tick) {
        int section = section(tick);
        long number = (tick - origins[section]) * parts / length;
        long place = place(section, number);
        while (place <= tick) {
            place = place(section, ++number);
        }
        return section + 1 < origins.length ? Math.min(place, origins[section + 1]) : place;
    }

    /** Returns the length of a step, to the nearest tick. */
    public long step() {
        return Math.max(1, Math.round((double) length / parts));
    }

    private int section(long tick) {
        int found = Arrays.binarySearch(origins, Math.max(0, tick));
        return found >= 0 ? found : -found - 2;
    }

    private long place(int section, long number) {
        // A triplet has its second note a third of a step behind the straight one.
        double late = (number & 1) == 0 ? 0 : swing / 3.0 / TRIPLET_SWING;
        return origins[section] + Math.round((number + late) * length / parts);
    }
}
