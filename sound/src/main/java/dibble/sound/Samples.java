package dibble.sound;

/** Samples as little-endian integers; halves are rounded up, samples beyond full scale are limited. */
final class Samples {
    private Samples() {}

    /** Writes a sample of 16 or 24 bits, and returns the place behind it. */
    static int put(float sample, int bits, byte[] to, int at) {
        double full = 1L << bits - 1;
        int whole = (int) Math.max(-full, Math.min(full - 1, Math.floor(sample * full + 0.5)));
        for (int shift = 0; shift < bits; shift += 8) {
            to[at++] = (byte) (whole >> shift);
        }
        return at;
    }

    /** Writes a sample as a 32-bit float, and returns the place behind it. */
    static int putFloat(float sample, byte[] to, int at) {
        int bits = Float.floatToIntBits(sample);
        for (int shift = 0; shift < 32; shift += 8) {
            to[at++] = (byte) (bits >> shift);
        }
        return at;
    }
}
