package dibble.gear;

/**
 * A reference to the strip of a part, or of one key of it that has a track.
 *
 * @param key 0-127, or {@link #ALL} for the part
 */
public record StripRef(PartRef part, int key) {
    /** The keys of a part that have no separate strip. */
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
