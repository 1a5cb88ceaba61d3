package dibble.time;

import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;

/**
 * A clock that stands until a test moves it on: what is said of times holds on the busiest machine. Threads that wait by
 * it look every now and then whether it has moved.
 */
public final class HandClock implements Clock {
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(1);

    private final AtomicLong now = new AtomicLong(TimeUnit.SECONDS.toNanos(1));

    /** Moves it on. */
    public void advance(long nanos) {
        now.addAndGet(nanos);
    }

    @Override
    public long nanos() {
        return now.get();
    }

    @Override
    public void rest(long nanos) {
        LockSupport.parkNanos(this, LOOK_NANOS);
    }
}
