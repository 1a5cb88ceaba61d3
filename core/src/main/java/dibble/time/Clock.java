package dibble.time;

import java.util.concurrent.locks.LockSupport;

/** The one source of time stamps: monotonic nanoseconds with an origin of its own. */
@FunctionalInterface
public interface Clock {
    /** The clock of this machine. */
    Clock SYSTEM = System::nanoTime;

    /** Nanoseconds now. */
    long nanos();

    /** Has the calling thread rest for some nanoseconds of this clock at most; it may be woken before. */
    default void rest(long nanos) {
        LockSupport.parkNanos(this, nanos);
    }
}
