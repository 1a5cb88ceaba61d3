package dibble.ports;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;

/**
 * A bounded queue of events (a time stamp and 64 bits each) for many producers and one consumer at a time, with no
 * lock and no allocation. Each cell bears a sequence number that says whose turn it is: {@code p} free for the
 * producer of place p, {@code p + 1} filled for the consumer. Together with {@link OutputQueue} and the engine's turn, the
 * only place where memory order matters.
 */
public final class EventRing {
    private static final VarHandle TURNS = MethodHandles.arrayElementVarHandle(long[].class);
    private static final VarHandle TAIL;

    static {
        try {
            TAIL = MethodHandles.lookup().findVarHandle(EventRing.class, "tail", long.class);
        } catch (ReflectiveOperationException e) {
            throw new ExceptionInInitializerError(e);
        }
    }

    private final long[] turns;
    private final long[] cells;
    private final int mask;
    private volatile long tail;
    private volatile long head;
    private long stamp;
    private long payload;

    /** @param capacity a power of two */
    public EventRing(int capacity) {
        if (Integer.bitCount(capacity) != 1) {
            throw new IllegalArgumentException("capacity " + capacity + " (expected a power of two)");
        }
        turns = new long[capacity];
        cells = new long[capacity * 2];
        mask = capacity - 1;
        for (int i = 0; i < capacity; i++) {
            turns[i] = i;
        }
    }

    /** Puts an event in; false where the ring is full. Any thread. */
    public boolean offer(long eventStamp, long eventPayload) {
        while (true) {
            long place = tail;
            int at = (int) place & mask;
            // Pairs with the consumer's setRelease, after which the cell may be filled again.
            long turn = (long) TURNS.getAcquire(turns, at);
            if (turn == place) {
                if (TAIL.compareAndSet(this, place, place + 1)) {
                    cells[at * 2] = eventStamp;
                    cells[at * 2 + 1] = eventPayload;
                    // Pairs with the consumer's getAcquire, which publishes the writes above.
                    TURNS.setRelease(turns, at, place + 1);
                    return true;
                }
            } else if (turn < place) {
                return false;
            }
        }
    }

    /** Takes the next event; afterwards {@link #stamp} and {@link #payload} tell it. The consumer only. */
    public boolean poll() {
        long place = head;
        int at = (int) place & mask;
        if ((long) TURNS.getAcquire(turns, at) != place + 1) {
            return false;
        }
        stamp = cells[at * 2];
        payload = cells[at * 2 + 1];
        TURNS.setRelease(turns, at, place + mask + 1);
        head = place + 1;
        return true;
    }

    /** The time stamp of the event that {@link #poll} would take; only where {@link #hasEvents}. The consumer only. */
    public long nextStamp() {
        return cells[((int) head & mask) * 2];
    }

    /** The 64 bits of the event that {@link #poll} would take; only where {@link #hasEvents}. The consumer only. */
    public long nextPayload() {
        return cells[((int) head & mask) * 2 + 1];
    }

    /** The time stamp of the event that {@link #poll} took last. */
    public long stamp() {
        return stamp;
    }

    /** The 64 bits of the event that {@link #poll} took last. */
    public long payload() {
        return payload;
    }

    /** Returns true if an event waits. Any thread. */
    public boolean hasEvents() {
        long place = head;
        return (long) TURNS.getAcquire(turns, (int) place & mask) == place + 1;
    }

    /** About how many events wait. Any thread. */
    public int size() {
        return (int) Math.max(0, tail - head);
    }

    /** Returns the number of events that can wait. */
    public int capacity() {
        return mask + 1;
    }
}
