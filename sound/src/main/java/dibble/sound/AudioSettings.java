package dibble.sound;

/**
 * How sound leaves Dibble.
 *
 * @param device the name of the audio device; empty for the system's own choice
 * @param millis how much sound waits in the device, in ms
 * @param rate samples a second
 * @param block how many frames are mixed at a time
 * @param pairs how many stereo outputs the device is asked for, 1 or more
 */
public record AudioSettings(String device, int millis, int rate, int block, int pairs) {
    private static final long NANOS = 1_000_000_000;
    private static final long ROUNDING_NANOS = 618_033_989;

    /** What holds until something else is chosen. */
    public static final AudioSettings USUAL = new AudioSettings("", 25, 44_100, 128, 1);

    /** The same for a file: no device. */
    static AudioSettings offline(int rate) {
        return new AudioSettings("", 0, rate, USUAL.block, 1);
    }

    /** The same at another rate; 0 for any. */
    AudioSettings at(int other) {
        return other == 0 ? this : new AudioSettings(device, millis, other, block, pairs);
    }

    /** How long a number of frames lasts, in nanoseconds. */
    long nanos(long frames) {
        // Whole seconds apart, so that hours of frames do not overflow.
        return frames / rate * 1_000_000_000L + frames % rate * 1_000_000_000L / rate;
    }

    /**
     * How many frames a number of nanoseconds is, to about the nearest: where a time is a nanosecond off, half a frame must
     * not become another frame, and music has many times of half a frame.
     */
    long frames(long nanos) {
        return nanos / NANOS * rate + Math.floorDiv(nanos % NANOS * rate + ROUNDING_NANOS, NANOS);
    }

    /** Returns true if synthesizers that were made for other settings can go on with these. */
    boolean rendersLike(AudioSettings other) {
        return rate == other.rate && block == other.block;
    }

    /** How many frames wait in the device: two blocks at least. */
    int bufferFrames() {
        return block * Math.max(2, Math.round(millis * (rate / 1000f) / block));
    }
}
