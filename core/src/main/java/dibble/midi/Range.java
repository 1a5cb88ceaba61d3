package dibble.midi;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/**
 * A range of keys, velocities or values 0-127, both ends included.
 *
 * @param low the lowest, 0-127
 * @param high the highest, {@code low} to 127
 */
public record Range(int low, int high) {
    /** All keys. */
    public static final Range ALL = new Range(0, 127);

    /** All velocities of a note-on. */
    public static final Range VELOCITIES = new Range(1, 127);

    public Range {
        if (low < 0 || high > 127 || low > high) {
            throw new UserException(say("range.range-to-expected-0-to", low, high));
        }
    }

    /** Returns true if a value is in it. */
    public boolean holds(int value) {
        return value >= low && value <= high;
    }

    /** Returns true if both have a value in common. */
    public boolean overlaps(Range other) {
        return low <= other.high && other.low <= high;
    }

    /** Returns the number of values, 1-128. */
    public int size() {
        return high - low + 1;
    }
}
