package dibble.time;

/**
 * A stretch of music that is put somewhere; a list of them, one after the other, is another order of the music.
 *
 * @param from its first tick
 * @param to the tick behind it; {@link Long#MAX_VALUE} for all that follows
 * @param at the tick where it begins then
 */
public record Slice(long from, long to, long at) {
    /** By how many ticks it is put later, or earlier. */
    public long shift() {
        return at - from;
    }

    /** The tick behind it, where it is then. */
    public long end() {
        return to == Long.MAX_VALUE ? to : at + to - from;
    }
}
