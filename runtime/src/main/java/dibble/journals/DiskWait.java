package dibble.journals;

import dibble.time.Clock;
import java.util.concurrent.TimeUnit;

/** Detects that a thread has waited for a disk for so long that the user should know. */
final class DiskWait {
    private static final long LONG = TimeUnit.SECONDS.toNanos(3);
    private static final long NOT_WAITING = Long.MIN_VALUE;

    private final Clock clock;
    private volatile long since = NOT_WAITING;

    DiskWait(Clock clock) {
        this.clock = clock;
    }

    /** The thread begins to use the disk. */
    void begin() {
        since = clock.nanos();
    }

    void end() {
        since = NOT_WAITING;
    }

    /** Returns true if the disk has not answered for long. Any thread. */
    boolean isLong() {
        long begun = since;
        return begun != NOT_WAITING && clock.nanos() - begun > LONG;
    }
}
