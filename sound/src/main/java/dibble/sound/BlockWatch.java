package dibble.sound;

/**
 * Notices a synthesizer that does not return from a block. The thread that renders tells which strip it works on; another
 * thread looks from time to time. Counts looks and no time: a machine that slept, or has too much to do, is no reason.
 */
final class BlockWatch {
    /** The number of looks at the same block of a strip before it counts as stuck. */
    private static final int MAX_LOOKS = 10;

    private volatile ChannelStrip at;
    private volatile long entries;
    private long seen;
    private int looks;

    /** Says that a strip's synthesizer is called. Rendering thread. */
    void enter(ChannelStrip strip) {
        at = strip;
        entries = entries + 1;
    }

    /** Says that it has returned. Rendering thread. */
    void leave() {
        at = null;
    }

    /** Returns the strip whose synthesizer has not returned for many looks; null for none. Always the same other thread. */
    ChannelStrip look() {
        ChannelStrip strip = at;
        long now = entries;
        looks = strip != null && now == seen ? looks + 1 : 0;
        seen = now;
        return looks >= MAX_LOOKS ? strip : null;
    }
}
