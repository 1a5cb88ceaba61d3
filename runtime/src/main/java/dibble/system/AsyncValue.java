package dibble.system;

import java.util.Optional;
import java.util.concurrent.Executor;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A value that is computed in the background: pending, present or failed. A failure is reported once, where it happens, and
 * never thrown at those who ask for the value. Any thread.
 *
 * @param <T> the type of the value
 */
public final class AsyncValue<T> {
    private static final Logger LOG = LoggerFactory.getLogger(AsyncValue.class);

    private volatile T value;
    private volatile Throwable failure;

    private AsyncValue() {}

    /** Returns a value that is there already. */
    public static <T> AsyncValue<T> present(T value) {
        AsyncValue<T> present = new AsyncValue<>();
        present.value = value;
        return present;
    }

    /**
     * Begins to compute a value.
     *
     * @param compute must not return null
     */
    public static <T> AsyncValue<T> compute(Executor executor, Supplier<T> compute) {
        AsyncValue<T> pending = new AsyncValue<>();
        executor.execute(() -> pending.complete(compute));
        return pending;
    }

    private void complete(Supplier<T> compute) {
        try {
            T computed = compute.get();
            if (computed == null) {
                throw new IllegalStateException("null (expected a value)");
            }
            value = computed;
        } catch (Throwable e) {
            failure = e;
            report(e);
        }
    }

    private static void report(Throwable failure) {
        Thread.UncaughtExceptionHandler handler = Thread.getDefaultUncaughtExceptionHandler();
        if (handler == null) {
            LOG.error("work in the background failed", failure);
        } else {
            handler.uncaughtException(Thread.currentThread(), failure);
        }
    }

    /** Returns true once the value is present or failed. */
    public boolean isDone() {
        return value != null || failure != null;
    }

    /** Returns the value; empty while it is pending, and after a failure. */
    public Optional<T> value() {
        return Optional.ofNullable(value);
    }

    /** Returns the failure, if there was one. */
    public Optional<Throwable> failure() {
        return Optional.ofNullable(failure);
    }
}
