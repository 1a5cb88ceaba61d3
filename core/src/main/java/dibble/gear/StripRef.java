package dibble.gear;

/**
 * Whose strip it is: a part's, or that of one key of it that has a track of its own.
 *
 * @param key 0-127, or {@link #ALL} for the part's
 */
public record StripRef(PartRef part, int key) {
    /** All keys of a part that have no strip of their own. */
    public static final int ALL = -1;

    /** A part's strip. */
    public static StripRef of(PartRef part) {
        return new StripRef(part, ALL);
    }

    /** Returns true if it is the strip of a single key. */
    public boolean isKey() {
        return key != ALL;
    }
}
