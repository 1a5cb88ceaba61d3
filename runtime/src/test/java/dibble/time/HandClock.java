package dibble.time;

import dibble.testing.PatientAwaiting;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;

/**
 * A clock that only a test moves. After each step the test waits until every thread that waits by this clock has seen the
 * new time, so that no machine is too slow for the test.
 */
public final class HandClock implements Clock {
    private static final long STEP_NANOS = TimeUnit.MILLISECONDS.toNanos(1);
    private static final long PARK_NANOS = TimeUnit.MILLISECONDS.toNanos(1);

    /** A thread reads the clock before and after it decides. After three reads it has decided once at the new time. */
    private static final int LOOKS = 3;

    private final AtomicLong now = new AtomicLong(TimeUnit.SECONDS.toNanos(1));
    private final Map<Thread, AtomicLong> looks = new ConcurrentHashMap<>();

    /** Moves it on in one step. */
    public void advance(long nanos) {
        now.addAndGet(nanos);
    }

    /** Moves it on step by step; every thread that waits by it follows. */
    public void pass(long nanos) {
        long end = now.get() + nanos;
        while (now.get() < end) {
            advance(Math.min(STEP_NANOS, end - now.get()));
            awaitLooks();
        }
    }

    /** Moves it on step by step until a condition holds. */
    public void passUntil(BooleanSupplier condition) {
        long deadline = System.nanoTime() + PatientAwaiting.TIMEOUT.toNanos();
        while (!condition.getAsBoolean()) {
            if (System.nanoTime() > deadline) {
                throw new AssertionError(new TimeoutException("the condition does not hold"));
            }
            pass(STEP_NANOS);
        }
    }

    /** Returns the number of threads that have read the clock: one that was just started is not among them yet. */
    public int watchers() {
        looks.keySet().removeIf(thread -> !thread.isAlive());
        return looks.size();
    }

    private void awaitLooks() {
        looks.keySet().removeIf(thread -> !thread.isAlive());
        looks.forEach((thread, count) -> {
            long seen = count.get();
            while (thread != Thread.currentThread() && count.get() < seen + LOOKS && !waitsElsewhere(thread)) {
                LockSupport.unpark(thread);
                Thread.onSpinWait();
            }
        });
    }

    private boolean waitsElsewhere(Thread thread) {
        return switch (thread.getState()) {
            case BLOCKED, TERMINATED -> true;
            case WAITING, TIMED_WAITING -> LockSupport.getBlocker(thread) != this;
            default -> false;
        };
    }

    @Override
    public long nanos() {
        looks.computeIfAbsent(Thread.currentThread(), thread -> new AtomicLong())
                .incrementAndGet();
        return now.get();
    }

    @Override
    public void rest(long nanos) {
        LockSupport.parkNanos(this, PARK_NANOS);
    }
}
