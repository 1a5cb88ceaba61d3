package dibble.time;

import java.util.concurrent.locks.LockSupport;

/** The source of all time stamps: monotonic nanoseconds with an arbitrary origin. */
@FunctionalInterface
public interface Clock {
    /** The clock of this machine. */
    Clock SYSTEM = System::nanoTime;

    /** Nanoseconds now. */
    long nanos();

    /** Parks the calling thread for at most some nanoseconds of this clock; it may wake up earlier. */
    default void rest(long nanos) {
        LockSupport.parkNanos(this, nanos);
    }
}
