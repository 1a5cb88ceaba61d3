package dibble.session;

import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;

/** Entries of a session's container that this version does not know, kept so that they can be written back. Immutable. */
public final class UnknownEntries {
    /** No unknown entries. */
    public static final UnknownEntries NONE = new UnknownEntries(Map.of());

    private final Map<String, byte[]> entries;

    /** @param entries by their names; the bytes must not be changed any more */
    public UnknownEntries(Map<String, byte[]> entries) {
        this.entries = Collections.unmodifiableMap(new LinkedHashMap<>(entries));
    }

    /** The names of the entries. */
    public Set<String> names() {
        return entries.keySet();
    }

    /** The bytes of an entry; a copy. */
    public byte[] bytes(String name) {
        return entries.get(name).clone();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof UnknownEntries that
                && entries.keySet().equals(that.entries.keySet())
                && entries.keySet().stream().allMatch(name -> Arrays.equals(entries.get(name), that.entries.get(name)));
    }

    @Override
    public int hashCode() {
        return entries.keySet().hashCode();
    }
}
