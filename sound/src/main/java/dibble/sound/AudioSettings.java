package dibble.sound;

/**
 * The settings of the sound output.
 *
 * @param device the name of the audio device; empty for the system's choice
 * @param millis the buffer of the device, in ms
 * @param rate samples a second
 * @param block the frames of a block
 * @param pairs the number of stereo outputs to request, 1 or more
 */
public record AudioSettings(String device, int millis, int rate, int block, int pairs) {
    private static final long NANOS = 1_000_000_000;
    private static final long ROUNDING_NANOS = 618_033_989;

    /** The defaults. */
    public static final AudioSettings USUAL = new AudioSettings("", 25, 44_100, 128, 1);

    /** The same for a file: no device. */
    static AudioSettings offline(int rate) {
        return new AudioSettings("", 0, rate, USUAL.block, 1);
    }

    /** The same at another rate; 0 for any. */
    AudioSettings at(int other) {
        return other == 0 ? this : new AudioSettings(device, millis, other, block, pairs);
    }

    /** Returns the duration of a number of frames, in nanoseconds. */
    long nanos(long frames) {
        // Whole seconds apart, so that hours of frames do not overflow.
        return frames / rate * 1_000_000_000L + frames % rate * 1_000_000_000L / rate;
    }

    /**
     * Returns the frames of a duration, approximately rounded: an error of a nanosecond must not turn half a frame into
     * another frame, and music has many times of half a frame.
     */
    long frames(long nanos) {
        return nanos / NANOS * rate + Math.floorDiv(nanos % NANOS * rate + ROUNDING_NANOS, NANOS);
    }

    /** Returns true if synthesizers that were made for other settings can go on with these. */
    boolean rendersLike(AudioSettings other) {
        return rate == other.rate && block == other.block;
    }

    /** Returns the frames in the device's buffer: two blocks at least. */
    int bufferFrames() {
        return block * Math.max(2, Math.round(millis * (rate / 1000f) / block));
    }
}
