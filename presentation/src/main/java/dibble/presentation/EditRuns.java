package dibble.presentation;

import dibble.time.Clock;
import java.util.Objects;
import java.util.concurrent.TimeUnit;

/**
 * Groups small edits, such as turns of a wheel or a held arrow key, into runs: edits of one subject belong to a run as long
 * as none comes later than a pause after the one before. Belongs to the thread that edits.
 */
public final class EditRuns {
    /** The pause that ends a run, in nanoseconds. */
    static final long PAUSE = TimeUnit.MILLISECONDS.toNanos(700);

    private final Clock clock;
    private Object subject;
    private Object run = new Object();
    private long last;

    /** Measures pauses by a clock. */
    public EditRuns(Clock clock) {
        this.clock = clock;
    }

    /** Returns the run that an edit of a subject belongs to, to be passed on with the edit. */
    public Object of(Object edited) {
        long now = clock.nanos();
        if (!Objects.equals(edited, subject) || now - last > PAUSE) {
            run = new Object();
        }
        subject = edited;
        last = now;
        return run;
    }

    /** Continues the run with another description of its subject, where an edit changes how the subject is identified. */
    public void renameSubject(Object renamed) {
        subject = renamed;
    }
}
