package dibble.desktop.ui;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/**
 * What takes too long for a frame and is only looked at: computed on another thread, once for each key, and there in a
 * later frame. Everything here is called on the interface's thread.
 *
 * @param <K> what it is of
 */
public final class Aside<K, V> {
    private final Map<K, CompletableFuture<V>> values = new ConcurrentHashMap<>();
    private int waiting;

    /** The value, where it is there; otherwise it is begun. */
    public Optional<V> get(K key, Supplier<V> compute) {
        CompletableFuture<V> value = values.computeIfAbsent(key, it -> CompletableFuture.supplyAsync(compute));
        return value.isDone() ? Optional.of(value.join()) : Optional.empty();
    }

    /** Forgets what is of none of these. */
    public void retain(Collection<K> keys) {
        values.keySet().retainAll(keys);
    }

    /** Whether something is still computed. */
    public boolean isWorking() {
        return values.values().stream().anyMatch(value -> !value.isDone());
    }

    /** Whether something has come to be there since this was asked last. */
    public boolean hasNews() {
        int before = waiting;
        waiting =
                (int) values.values().stream().filter(value -> !value.isDone()).count();
        return waiting < before;
    }
}
