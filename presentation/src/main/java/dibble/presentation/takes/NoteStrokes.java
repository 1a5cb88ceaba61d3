package dibble.presentation.takes;

import dibble.presentation.TimeScale;
import dibble.recording.NoteSpans;
import java.util.Arrays;
import java.util.function.LongPredicate;

/**
 * The notes of a track as strokes on a lane, in pixels. Of notes that would cover the same pixels only one is kept, so
 * that a lane of a million notes never has more strokes than pixels.
 */
public final class NoteStrokes {
    private static final int MIN_KEYS = 12;
    private static final double MIN_WIDTH = 2;

    private double[] left = new double[64];
    private double[] right = new double[64];
    private double[] middle = new double[64];
    private int size;

    private NoteStrokes() {}

    /**
     * The strokes of some notes.
     *
     * @param shown which notes count, by where they begin, in nanoseconds
     * @param keys the lowest and the highest key that the lane has room for
     * @param now where notes that have not ended reach, in nanoseconds
     * @param height of the lane
     * @param inset what stays free above and below
     */
    public static NoteStrokes of(
            NoteSpans spans, LongPredicate shown, int[] keys, TimeScale scale, long now, double height, double inset) {
        NoteStrokes strokes = new NoteStrokes();
        int columns = (int) Math.ceil(scale.width()) + 1;
        // For each row of pixels how far it is covered: notes come in the order of time.
        double[] covered = new double[(int) Math.ceil(height) + 1];
        Arrays.fill(covered, -1);
        int range = Math.max(MIN_KEYS, keys[1] - keys[0]);
        double room = height - 2 * inset;
        // Times are compared before any is turned into a place, which takes longer.
        long first = scale.tempo().nanos(Math.max(0, scale.from()));
        long last = scale.tempo().nanos(scale.to());
        for (int i = 0; i < spans.size() && spans.start(i) <= last; i++) {
            long start = spans.start(i);
            if (spans.end(i) >= first && shown.test(start)) {
                double x = scale.xOfNanos(start);
                long over = spans.end(i) == NoteSpans.OPEN ? now : spans.end(i);
                double end = Math.max(x + MIN_WIDTH, scale.xOfNanos(Math.max(start, over)) - 1);
                double y = inset + room * (1 - (spans.note(i) - keys[0] + (range - (keys[1] - keys[0])) / 2.0) / range);
                int row = (int) Math.max(0, Math.min(covered.length - 1, Math.round(y)));
                if (end >= covered[row] + 1 && x <= columns) {
                    covered[row] = end;
                    strokes.add(x, end, y);
                }
            }
        }
        return strokes;
    }

    /** The lowest and the highest key of some notes; 127 and 0 of none. */
    public static int[] keys(NoteSpans spans, int[] before) {
        int low = before[0];
        int high = before[1];
        for (int i = 0; i < spans.size(); i++) {
            low = Math.min(low, spans.note(i));
            high = Math.max(high, spans.note(i));
        }
        return new int[] {low, high};
    }

    private void add(double from, double to, double y) {
        if (size == left.length) {
            left = Arrays.copyOf(left, size * 2);
            right = Arrays.copyOf(right, size * 2);
            middle = Arrays.copyOf(middle, size * 2);
        }
        left[size] = from;
        right[size] = to;
        middle[size++] = y;
    }

    /** Returns the number of strokes. */
    public int size() {
        return size;
    }

    /** Returns the left end of a stroke. */
    public double left(int i) {
        return left[i];
    }

    /** Returns the right end of a stroke. */
    public double right(int i) {
        return right[i];
    }

    /** Returns the middle of a stroke, from the top. */
    public double middle(int i) {
        return middle[i];
    }
}
