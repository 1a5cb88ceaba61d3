package dibble.routing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Numbers for sources, ports and instruments that stay the same from one table to the next, so that what is held can
 * outlive a table. Belongs to the thread that compiles.
 */
public final class Slots {
    /** Ports that can be told apart: their number shares an int with a message. */
    public static final int MOST_PORTS = 256;

    private final Names sources = new Names();
    private final Names ports = new Names();
    private final Names instruments = new Names();

    private static final class Names {
        private final Map<String, Integer> numbers = new HashMap<>();
        private final List<String> names = new ArrayList<>();

        int of(String name) {
            return numbers.computeIfAbsent(name, key -> {
                names.add(key);
                return names.size() - 1;
            });
        }
    }

    public int source(String id) {
        return sources.of(id);
    }

    /** @throws IllegalArgumentException where there are more than {@link #MOST_PORTS} ports */
    public int port(String name) {
        int slot = ports.of(name);
        if (slot >= MOST_PORTS) {
            throw new IllegalArgumentException("more than " + MOST_PORTS + " ports");
        }
        return slot;
    }

    public int instrument(String id) {
        return instruments.of(id);
    }

    public int sourceCount() {
        return sources.names.size();
    }

    public int portCount() {
        return ports.names.size();
    }

    public String sourceId(int slot) {
        return sources.names.get(slot);
    }

    public String portName(int slot) {
        return ports.names.get(slot);
    }

    public String instrumentId(int slot) {
        return instruments.names.get(slot);
    }
}
