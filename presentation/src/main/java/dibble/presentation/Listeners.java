package dibble.presentation;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;

/**
 * Listeners that run in order and in isolation. A listener that fails is reported once until it succeeds again; the others
 * still run. Not thread-safe.
 */
public final class Listeners {
    private final List<Runnable> listeners = new ArrayList<>();
    private final Set<Runnable> failing = Collections.newSetFromMap(new IdentityHashMap<>());

    /** Adds a listener; it runs after those that are there. */
    public void add(Runnable listener) {
        listeners.add(listener);
    }

    /** Removes a listener. */
    public void remove(Runnable listener) {
        listeners.remove(listener);
        failing.remove(listener);
    }

    /** Runs all of them, in the order in which they were added. */
    public void run() {
        for (Runnable listener : List.copyOf(listeners)) {
            try {
                listener.run();
                failing.remove(listener);
            } catch (RuntimeException | Error e) {
                if (failing.add(listener)) {
                    Thread thread = Thread.currentThread();
                    thread.getUncaughtExceptionHandler().uncaughtException(thread, e);
                }
            }
        }
    }
}
