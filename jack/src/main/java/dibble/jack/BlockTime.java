package dibble.jack;

import java.util.concurrent.TimeUnit;

/**
 * The time of the present block of sound. Events received in the previous block are stamped with the time at which they
 * were played, and an event with a stamp is sent a block after it, on the same frame: the latency is exactly one block,
 * whatever the cause. Confined to the callback.
 */
final class BlockTime {
    private static final long SECOND = TimeUnit.SECONDS.toNanos(1);

    /** Longer than the longest block of the slowest server. */
    private static final long MAX = 2 * SECOND;

    private long start;
    private int frames;
    private int rate;

    /**
     * @param startNanos when the block begins, on the system's clock
     * @param length of the block, in frames
     */
    void begin(long startNanos, int length, int framesPerSecond) {
        start = startNanos;
        frames = length;
        rate = framesPerSecond;
    }

    int frames() {
        return frames;
    }

    /** When something was played that comes in on a frame of this block. */
    long stamp(int frame) {
        return start + Math.floorDiv((frame - frames) * SECOND, rate);
    }

    /** The frame on which something goes out; from {@link #frames} on it is for a later block, and late is at once. */
    int frame(long stamp) {
        long away = stamp - start;
        if (away < -MAX) {
            return 0;
        }
        if (away > MAX) {
            return Integer.MAX_VALUE;
        }
        // Rounded up: a stamp is the beginning of its frame, cut to whole nanoseconds.
        return (int) Math.max(0, frames - Math.floorDiv(-away * rate, SECOND));
    }
}
