package dibble.transport;

import dibble.time.Clock;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;

/** Waits for a time: asleep most of the way, then in short naps, the last bit awake, since sleep is late. */
final class PreciseTimer {
    /** Sleep is late by about this much. */
    private static final long AWAKE_NANOS = 80_000;

    /** Long sleep can be later by far: one that is so much too early has naps to be in time after it. */
    private static final long NAPS_NANOS = 3_000_000;

    private static final long NAP_NANOS = 500_000;

    /** Events that are later than this are skipped: the machine slept or was stopped. */
    private static final long STANDSTILL = TimeUnit.SECONDS.toNanos(1);

    private PreciseTimer() {}

    /** Returns true if something was due so long ago that it is not made up for. */
    static boolean isMissed(long due, long now) {
        return now - due > STANDSTILL;
    }

    /** Waits for a time of a clock; false where it was told to stop before. */
    static boolean until(Clock clock, long time, BooleanSupplier stopping) {
        for (long left = time - clock.nanos(); left > 0; left = time - clock.nanos()) {
            if (stopping.getAsBoolean()) {
                return false;
            }
            if (left > NAPS_NANOS) {
                clock.rest(left - NAPS_NANOS);
            } else if (left > AWAKE_NANOS) {
                clock.rest(Math.min(NAP_NANOS, left - AWAKE_NANOS));
            } else {
                Thread.onSpinWait();
            }
        }
        return !stopping.getAsBoolean();
    }

    /** Wakes a thread that was told to stop, and returns when it has. */
    static void end(Thread thread) {
        LockSupport.unpark(thread);
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
