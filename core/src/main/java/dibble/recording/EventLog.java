package dibble.recording;

import java.util.Arrays;

/**
 * A growing list of events in flat arrays: one thread appends, any thread reads. A reader asks for {@link #size} first;
 * what lies below it never changes.
 */
public final class EventLog {
    /** Beside the 24 bits of a message. */
    private static final int ECHO = 1 << 24;

    private volatile long[] stamps = new long[256];
    private volatile int[] messages = new int[256];
    private volatile int[] sources = new int[256];
    private volatile int size;

    /** Appends an event. The appending thread only. */
    public void add(long stamp, int source, int message) {
        add(stamp, source, message, false);
    }

    /**
     * Appends an event.
     *
     * @param echo whether it came back from a looping device, so that it is kept but not printed
     */
    public void add(long stamp, int source, int message, boolean echo) {
        int at = size;
        if (at == stamps.length) {
            stamps = Arrays.copyOf(stamps, at * 2);
            messages = Arrays.copyOf(messages, at * 2);
            sources = Arrays.copyOf(sources, at * 2);
        }
        stamps[at] = stamp;
        messages[at] = echo ? message | ECHO : message;
        sources[at] = source;
        size = at + 1;
    }

    public int size() {
        return size;
    }

    /** Nanoseconds since the beginning of the recording. */
    public long stamp(int i) {
        return stamps[i];
    }

    /** The packed message. */
    public int message(int i) {
        return messages[i] & ~ECHO;
    }

    /** Whether the event came back from a looping device. */
    public boolean isEcho(int i) {
        return (messages[i] & ECHO) != 0;
    }

    /** The number of the source, or whatever number the list's owner gave. */
    public int source(int i) {
        return sources[i];
    }
}
