package dibble.presentation;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;

/**
 * A value that can be followed. Listeners run on the thread that sets it, when it differs from the value before. May hold
 * null. Not thread-safe.
 */
public final class Observable<T> {
    private final List<Consumer<? super T>> listeners = new ArrayList<>();
    private T value;

    /** Holds null. */
    public Observable() {}

    /** Holds a first value. */
    public Observable(T first) {
        value = first;
    }

    /** Returns the value now. */
    public T get() {
        return value;
    }

    /** Sets the value, and runs the listeners where it differs. */
    public void set(T next) {
        if (Objects.equals(value, next)) {
            return;
        }
        value = next;
        for (Consumer<? super T> listener : List.copyOf(listeners)) {
            listener.accept(next);
        }
    }

    /** Runs a listener with each value from now on. */
    public Subscription listen(Consumer<? super T> listener) {
        listeners.add(listener);
        return () -> listeners.remove(listener);
    }

    /** Runs a listener with the value now, and with each one from now on. */
    public Subscription follow(Consumer<? super T> listener) {
        listener.accept(value);
        return listen(listener);
    }
}
