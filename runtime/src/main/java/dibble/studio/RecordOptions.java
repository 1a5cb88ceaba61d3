package dibble.studio;

import static dibble.text.CoreText.say;

import dibble.notes.Grid;
import dibble.recording.PrintMode;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * The player's options for recording and playback. Positions are ticks of the session.
 *
 * @param countIn bars of clicks before a recording, 0 to 4
 * @param click whether the click sounds while recording
 * @param onto the print mode for the armed tracks
 * @param range a range of the session, or null
 * @param loops whether the range repeats
 * @param punches whether only the range is recorded, with playback around it
 * @param quantize the grid for the starts of recorded notes, on the tracks only; null for none
 */
@RecordBuilder
public record RecordOptions(
        int countIn, boolean click, PrintMode onto, Stretch range, boolean loops, boolean punches, Grid.Step quantize)
        implements RecordOptionsBuilder.With {
    /** The initial options: no count-in, no click, a new take. */
    public static final RecordOptions PLAIN =
            new RecordOptions(0, false, PrintMode.REPLACE_ALL, null, false, false, null);

    /**
     * A stretch of the session, in ticks.
     *
     * @param from its first tick
     * @param to the tick behind it
     */
    public record Stretch(long from, long to) {
        public Stretch {
            if (from < 0 || to <= from) {
                throw new UserException(say("record-options.from-tick-to-expected-a", from, to));
            }
        }
    }

    public RecordOptions {
        if (countIn < 0 || countIn > 4) {
            throw new UserException(say("record-options.count-in-of-bars-expected", countIn));
        }
    }

    @Override
    public RecordOptions withRange(Stretch other) {
        return with().range(other)
                .loops(loops && other != null)
                .punches(punches && other != null)
                .build();
    }

    @Override
    public RecordOptions withLoops(boolean on) {
        return with().loops(on).punches(punches && !on).build();
    }

    @Override
    public RecordOptions withPunches(boolean on) {
        return with().loops(loops && !on).punches(on).build();
    }

    /** Returns the mode in which a recording is printed: a recording of a range changes nothing outside the range. */
    public PrintMode printing() {
        return onto == PrintMode.REPLACE_ALL && (isLooping() || isPunching()) ? PrintMode.REPLACE_RANGE : onto;
    }

    /** Returns true if the range is looped. */
    boolean isLooping() {
        return loops && range != null;
    }

    /** Returns true if the range alone is recorded. */
    boolean isPunching() {
        return punches && range != null;
    }
}
