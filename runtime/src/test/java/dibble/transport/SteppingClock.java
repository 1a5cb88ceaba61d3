package dibble.transport;

import dibble.time.Clock;
import java.util.concurrent.atomic.AtomicLong;

/** A clock that goes as fast as the one thread that waits by it: rest takes its time, and a look a microsecond. */
final class SteppingClock implements Clock {
    private final AtomicLong now;

    SteppingClock(long start) {
        now = new AtomicLong(start);
    }

    @Override
    public long nanos() {
        return now.addAndGet(1_000);
    }

    @Override
    public void rest(long nanos) {
        now.addAndGet(nanos);
    }
}
