package dibble.presentation;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** A set of ids that can be followed, in the order in which they were added. Not thread-safe. */
public final class ObservableIds {
    private final Set<String> ids = new LinkedHashSet<>();
    private final List<Runnable> listeners = new ArrayList<>();

    /** Returns true if an id is among them. */
    public boolean contains(String id) {
        return ids.contains(id);
    }

    /** Returns how many there are. */
    public int size() {
        return ids.size();
    }

    /** Returns the one that was added first. */
    public Optional<String> first() {
        return ids.stream().findFirst();
    }

    /** Returns a copy of them. */
    public Set<String> get() {
        return new LinkedHashSet<>(ids);
    }

    /** Adds an id; one that is there stays. */
    public void add(String id) {
        if (ids.add(id)) {
            changed();
        }
    }

    /** Removes an id, and returns whether it was there. */
    public boolean remove(String id) {
        boolean had = ids.remove(id);
        if (had) {
            changed();
        }
        return had;
    }

    /** Removes all. */
    public void clear() {
        if (!ids.isEmpty()) {
            ids.clear();
            changed();
        }
    }

    /** Runs a listener after each change. */
    public Subscription listen(Runnable listener) {
        listeners.add(listener);
        return () -> listeners.remove(listener);
    }

    private void changed() {
        List.copyOf(listeners).forEach(Runnable::run);
    }
}
