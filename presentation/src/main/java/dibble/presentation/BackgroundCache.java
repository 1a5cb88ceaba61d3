package dibble.presentation;

import dibble.system.AsyncValue;
import dibble.system.Workers;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;

/**
 * What takes too long for a frame and is only looked at: computed on another thread, once for each key, and there in a
 * later frame. Everything here is called on the interface's thread.
 *
 * @param <K> what it is of
 */
public final class BackgroundCache<K, V> {
    private final Map<K, AsyncValue<V>> values = new HashMap<>();

    /** What was asked for and was not there yet. */
    private final Set<K> missed = new HashSet<>();

    /**
     * Returns the value where it is there; otherwise it is begun. One that failed stays empty until it is forgotten.
     *
     * @param soon whether it takes no longer than a frame may: then it is computed at once
     */
    public Optional<V> get(K key, boolean soon, Supplier<V> compute) {
        AsyncValue<V> value = values.computeIfAbsent(
                key,
                it -> soon
                        ? AsyncValue.present(compute.get())
                        : AsyncValue.compute(Workers.shared().computing(), compute));
        if (!value.isDone()) {
            missed.add(key);
        }
        return value.value();
    }

    /** Forgets what is of none of these. */
    public void retain(Collection<K> keys) {
        values.keySet().retainAll(keys);
        missed.retainAll(keys);
    }

    /** Returns true if something is still computed. */
    public boolean isWorking() {
        return !missed.isEmpty();
    }

    /** Returns true if something has come to be there that was asked for in vain, since this was asked last. */
    public boolean hasNews() {
        return missed.removeIf(key -> values.get(key).isDone());
    }
}
