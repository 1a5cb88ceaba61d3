package dibble.presentation.live;

import java.util.ArrayList;
import java.util.List;

/**
 * The wall-clock time of events with stamps of the system's nanosecond clock. The offset is measured repeatedly, since
 * the clocks diverge when the machine sleeps or a user sets the clock; past events keep their time. Not thread-safe.
 */
final class WallTime {
    private static final long NANOS_A_MILLI = 1_000_000;

    /** Clocks that are corrected a little at a time are not told apart from each other. */
    private static final long APART_MILLIS = 100;

    /**
     * The offset from a time on.
     *
     * @param since in nanoseconds
     * @param offset the wall clock's milliseconds at nanosecond 0
     */
    private record Span(long since, long offset) {}

    private final List<Span> spans = new ArrayList<>();
    private long looked;

    /** Takes the time of both clocks at once, from time to time. */
    void look(long wallMillis, long nanos) {
        long offset = wallMillis - Math.floorDiv(nanos, NANOS_A_MILLI);
        if (spans.isEmpty()) {
            spans.add(new Span(nanos, offset));
        } else if (Math.abs(offset - spans.get(spans.size() - 1).offset) > APART_MILLIS) {
            spans.add(new Span(looked + 1, offset));
        }
        looked = nanos;
    }

    /** Returns the wall clock's milliseconds at a nanosecond; the clocks have been looked at before. */
    long millis(long nanos) {
        int last = spans.size() - 1;
        while (last > 0 && spans.get(last).since > nanos) {
            last--;
        }
        return spans.get(last).offset + Math.floorDiv(nanos, NANOS_A_MILLI);
    }
}
