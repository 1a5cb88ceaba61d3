package dibble.desktop.app;

import java.util.Arrays;

/**
 * A Theil–Sen trend: the median slope over all pairs of samples. Outliers hardly affect it.
 *
 * @param slope the median slope, from one sample to the next
 * @param least the lower end of the slope's 95 % confidence interval
 * @param middle the median of the values
 * @param samples how many there were
 */
record Trend(double slope, double least, double middle, int samples) {
    private static final int FEWEST = 8;

    /** The half-width of a 95 % confidence interval, in standard deviations. */
    private static final double SIGMAS = 1.96;

    /** Returns the trend of the second half of some samples; the first half is for warming up. */
    static Trend ofSecondHalf(double... all) {
        double[] values = Arrays.copyOfRange(all, all.length / 2, all.length);
        int n = values.length;
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        double middle = n == 0 ? 0 : sorted[n / 2];
        if (n < 2) {
            return new Trend(0, 0, middle, n);
        }
        double[] slopes = new double[n * (n - 1) / 2];
        int count = 0;
        for (int i = 0; i < n; i++) {
            for (int j = i + 1; j < n; j++) {
                slopes[count++] = (values[j] - values[i]) / (j - i);
            }
        }
        Arrays.sort(slopes);
        double spread = SIGMAS * Math.sqrt(n * (n - 1.0) * (2 * n + 5) / 18);
        int lower = (int) Math.floor((count - spread) / 2);
        return new Trend(slopes[count / 2], slopes[Math.max(0, lower)], middle, n);
    }

    /**
     * Returns whether the value rises: surely, and by more than a share of its median from the first sample to the last. Few
     * samples prove nothing.
     */
    boolean rises(double share) {
        return samples >= FEWEST && least > 0 && slope * (samples - 1) > share * Math.abs(middle);
    }
}
