package dibble.time;

/** The one source of time stamps: monotonic nanoseconds with an origin of its own. */
@FunctionalInterface
public interface Clock {
    /** The clock of this machine. */
    Clock SYSTEM = System::nanoTime;

    /** Nanoseconds now. */
    long nanos();
}
