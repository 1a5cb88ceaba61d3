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
 * A cache of values for display that take too long for a frame: each is computed once on another thread, and available
 * in a later frame. Confined to the interface thread.
 *
 * @param <K> the key of a value
 */
public final class BackgroundCache<K, V> {
    private final Map<K, AsyncValue<V>> values = new HashMap<>();

    /** Keys that were requested before their values were available. */
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

    /** Drops all values except those of some keys. */
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
