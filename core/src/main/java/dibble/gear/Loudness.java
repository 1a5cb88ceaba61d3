package dibble.gear;

/**
 * Levels in decibels, as controllers say them: General MIDI 2 has channel volume (7) as 40 log10(v / 127) dB and pan (10)
 * as a quarter circle of which value 1 is the left end.
 */
public final class Loudness {
    /** The highest level of a strip, in dB. */
    public static final double MAX = 6;

    /** The lowest level that is not silence, in dB. */
    public static final double MIN = -90;

    /** No sound at all. */
    public static final double SILENCE = Double.NEGATIVE_INFINITY;

    /** The volume of a channel before its first volume message, by General MIDI. */
    public static final int USUAL_VOLUME = 100;

    /** Pan in the middle. */
    public static final int MIDDLE = 64;

    private static final int FULL = 127;

    private Loudness() {}

    /** The level of a volume 0-127: 0 dB for 127, {@link #SILENCE} for 0. */
    public static double ofVolume(int volume) {
        return volume == 0 ? SILENCE : 40 * Math.log10(volume / (double) FULL);
    }

    /** The volume 0-127 that is nearest to a level; levels above 0 dB have the highest. */
    public static int volume(double level) {
        return (int) Math.max(0, Math.min(FULL, Math.round(FULL * Math.pow(10, level / 40))));
    }

    /** Returns the factor of a level. */
    public static double gain(double level) {
        return Math.pow(10, level / 20);
    }

    /** The level of a gain of 0 or more. */
    public static double ofGain(double gain) {
        return gain <= 0 ? SILENCE : 20 * Math.log10(gain);
    }

    /** Limits a level to the range of a strip; below {@link #MIN} it is {@link #SILENCE}. */
    public static double held(double level) {
        return level < MIN ? SILENCE : Math.min(MAX, level);
    }

    /** A level as it is kept: in tenths of a dB. */
    public static double rounded(double level) {
        double held = held(level);
        return held == SILENCE ? held : Math.round(held * 10) / 10.0;
    }

    /**
     * Returns the factor of the left side at a pan 0-127: constant power (sine and cosine), 0 dB in the middle, 3 dB at
     * an end.
     */
    public static double left(int pan) {
        return Math.sqrt(2) * Math.cos(angle(pan));
    }

    /** The same for the right side. */
    public static double right(int pan) {
        return Math.sqrt(2) * Math.sin(angle(pan));
    }

    /** 64 is exactly the middle, 1 and below the left end, 127 the right one. */
    private static double angle(int pan) {
        return Math.PI / 2 * Math.max(0, pan - 1) / 126;
    }
}
