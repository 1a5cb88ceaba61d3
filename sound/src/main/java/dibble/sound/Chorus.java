package dibble.sound;

/**
 * A chorus: the delayed signal, with a varying delay of a different phase on each side. Changes of rate and depth
 * glide. (The JDK's chorus replaces its delay line at each change, which is audible.)
 */
final class Chorus {
    private static final double SLOWEST = 0.1;
    private static final double FASTEST = 5;
    private static final double BASE_SECONDS = 0.012;
    private static final double MAX_SECONDS = 0.010;

    private final float[] line;
    private final double rate;
    private int at;
    private double phase;
    private double step;
    private double depth;
    private double wantedDepth;

    Chorus(int rate) {
        this.rate = rate;
        line = new float[(int) (rate * (BASE_SECONDS + MAX_SECONDS) * 1.2) + 4];
        set(0, 0);
        depth = wantedDepth;
    }

    /** Sets how fast and how far it swings, each 0-127. */
    void set(int rateValue, int depthValue) {
        double hertz = SLOWEST * Math.pow(FASTEST / SLOWEST, rateValue / 127.0);
        step = 2 * Math.PI * hertz / rate;
        wantedDepth = MAX_SECONDS * rate * depthValue / 127.0;
    }

    /** Swings from where it began: nothing is heard of it. */
    void rest() {
        phase = 0;
        depth = wantedDepth;
    }

    /** Swings as another does. */
    void alongside(Chorus other) {
        phase = other.phase;
        depth = other.depth;
    }

    /** Adds its sound of a block to both sides. */
    void process(float[] in, float[] left, float[] right) {
        double base = BASE_SECONDS * rate;
        for (int i = 0; i < in.length; i++) {
            line[at] = in[i];
            depth += (wantedDepth - depth) * 0.0005;
            left[i] += tap(base + depth * Math.sin(phase));
            right[i] += tap(base + depth * Math.cos(phase));
            at = at + 1 == line.length ? 0 : at + 1;
            phase += step;
            if (phase > 2 * Math.PI) {
                phase -= 2 * Math.PI;
            }
        }
    }

    private float tap(double frames) {
        double place = at - frames;
        if (place < 0) {
            place += line.length;
        }
        int before = (int) place;
        int after = before + 1 == line.length ? 0 : before + 1;
        float share = (float) (place - before);
        return line[before] * (1 - share) + line[after] * share;
    }
}
