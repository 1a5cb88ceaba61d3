package dibble.gear;

/** Refuses values that are out of their range, in the same words everywhere. */
public final class Checked {
    private Checked() {}

    /**
     * The value itself; null passes.
     *
     * @throws IllegalArgumentException saying what was expected
     */
    public static Integer range(String what, Integer value, int low, int high) {
        if (value != null && (value < low || value > high)) {
            throw new IllegalArgumentException(what + " " + value + " (expected " + low + " to " + high + ")");
        }
        return value;
    }
}
