package dibble.sound;

/**
 * The loudness of a stereo signal: its sample peak, which falls by 24 dB a second, the highest peak since the last
 * reset, and momentary loudness by ITU-R BS.1770 (K-weighted, over 400 ms). Written by the mixer's thread, read by any.
 */
final class Meter {
    private static final double FALL = 24;
    private static final double WINDOW = 0.4;
    private static final double OFFSET = -0.691;
    private static final float NOTHING = 1e-5f;

    private final Biquad[] shelf = new Biquad[2];
    private final Biquad[] highPass = new Biquad[2];
    private final double[] squares;
    private final float fall;
    private final int block;
    private int at;
    private double sum;
    private volatile float peak;
    private volatile float highest;
    private volatile float meanSquare;

    Meter(int rate, int block) {
        this.block = block;
        squares = new double[Math.max(1, (int) Math.round(WINDOW * rate / block))];
        fall = (float) Math.pow(10, -FALL / 20 * block / rate);
        for (int side = 0; side < 2; side++) {
            shelf[side] = Biquad.shelf(rate);
            highPass[side] = Biquad.highPass(rate);
        }
    }

    /** Takes in the next block. */
    void take(float[] left, float[] right) {
        float most = 0;
        double square = 0;
        for (int i = 0; i < block; i++) {
            most = Math.max(most, Math.max(Math.abs(left[i]), Math.abs(right[i])));
        }
        if (most > 0 || sum > 0) {
            for (int i = 0; i < block; i++) {
                double l = highPass[0].next(shelf[0].next(left[i]));
                double r = highPass[1].next(shelf[1].next(right[i]));
                square += l * l + r * r;
            }
        }
        peak = Math.max(most, peak * fall < NOTHING ? 0 : peak * fall);
        highest = Math.max(highest, most);
        sum += square - squares[at];
        squares[at] = square;
        at = (at + 1) % squares.length;
        if (at == 0) {
            // Rounding does not add up over hours.
            sum = 0;
            for (double one : squares) {
                sum += one;
            }
        }
        meanSquare = (float) Math.max(0, sum / ((double) block * squares.length));
    }

    /** Counts a block of silence that was not rendered. */
    void rest() {
        if (peak > 0 || meanSquare > 0) {
            peak = 0;
            sum = 0;
            java.util.Arrays.fill(squares, 0);
            meanSquare = 0;
        }
    }

    /** The peak now, as a gain: 1 is full scale. */
    float peak() {
        return peak;
    }

    /** The highest peak since {@link #forget}. */
    float highest() {
        return highest;
    }

    /** Resets the highest peak. */
    void forget() {
        highest = 0;
    }

    /** Momentary loudness in LUFS; minus infinity for silence. */
    double loudness() {
        return OFFSET + 10 * Math.log10(meanSquare);
    }

    /** A filter of the second order; the two of BS.1770 for any rate. */
    private record Biquad(double b0, double b1, double b2, double a1, double a2, double[] z) {
        static Biquad shelf(double rate) {
            double f0 = 1681.974450955533;
            double q = 0.7071752369554196;
            double k = Math.tan(Math.PI * f0 / rate);
            double vh = Math.pow(10, 3.999843853973347 / 20);
            double vb = Math.pow(vh, 0.4996667741545416);
            double a0 = 1 + k / q + k * k;
            return new Biquad(
                    (vh + vb * k / q + k * k) / a0,
                    2 * (k * k - vh) / a0,
                    (vh - vb * k / q + k * k) / a0,
                    2 * (k * k - 1) / a0,
                    (1 - k / q + k * k) / a0,
                    new double[2]);
        }

        static Biquad highPass(double rate) {
            double f0 = 38.13547087602444;
            double q = 0.5003270373238773;
            double k = Math.tan(Math.PI * f0 / rate);
            double a0 = 1 + k / q + k * k;
            return new Biquad(1, -2, 1, 2 * (k * k - 1) / a0, (1 - k / q + k * k) / a0, new double[2]);
        }

        double next(double in) {
            double out = b0 * in + z[0];
            z[0] = b1 * in - a1 * out + z[1];
            z[1] = b2 * in - a2 * out;
            return out;
        }
    }
}
