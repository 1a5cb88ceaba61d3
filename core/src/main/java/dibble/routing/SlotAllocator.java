package dibble.routing;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.stream.IntStream;

/**
 * Stable numbers for sources, ports, instruments, scenes and sends, so that held notes outlive a table. Confined to the
 * thread that compiles.
 */
public final class SlotAllocator {
    /** Ports that can be told apart: their number shares an int with a message. */
    public static final int MAX_PORTS = 256;

    private final Names sources = new Names();
    private final Names ports = new Names();
    private final Names instruments = new Names();
    private final Names scenes = new Names();
    private final Names sends = new Names();
    private int[] portOrder = {};

    private static final class Names {
        private final Map<String, Integer> numbers = new HashMap<>();
        private final List<String> names = new ArrayList<>();

        void addAll(Names others) {
            others.names.forEach(this::of);
        }

        int of(String name) {
            return numbers.computeIfAbsent(name, key -> {
                names.add(key);
                return names.size() - 1;
            });
        }
    }

    /** Returns a copy, to find the needs of a routing. */
    public SlotAllocator copy() {
        SlotAllocator copy = new SlotAllocator();
        copy.sources.addAll(sources);
        copy.ports.addAll(ports);
        copy.instruments.addAll(instruments);
        copy.scenes.addAll(scenes);
        copy.sends.addAll(sends);
        return copy;
    }

    /** The slot of a source; a new one where it has none. */
    public int source(String id) {
        return sources.of(id);
    }

    /** @throws UserException where there are more than {@link #MAX_PORTS} ports */
    public int port(String name) {
        int slot = ports.of(name);
        if (slot >= MAX_PORTS) {
            throw new UserException(say("slots.more-instrument-ports-than-dibble", MAX_PORTS));
        }
        return slot;
    }

    /** The slot of an instrument; a new one where it has none. */
    public int instrument(String id) {
        return instruments.of(id);
    }

    /** The slot of a scene; a new one where it has none. */
    public int scene(String id) {
        return scenes.of(id);
    }

    /** A send of a control map, by a name that is its own in the session. */
    int send(String name) {
        return sends.of(name);
    }

    int sendCount() {
        return sends.names.size();
    }

    /** The id of the scene that has a slot. */
    public String sceneId(int slot) {
        return scenes.names.get(slot);
    }

    /** The destination of a target, {@code port*16 + channel}, or {@link RoutingTable#NOWHERE}. */
    int destination(ZoneTarget to, Routing routing) {
        Instrument instrument = routing.instrument(to.instrument()).orElse(null);
        if (instrument == null) {
            return RoutingTable.NOWHERE;
        }
        int port = port(instrument.port()) * 16;
        if (to instanceof ZoneTarget.ToPart part) {
            OptionalInt channel = routing.channels().channel(part.part());
            return channel.isPresent() ? port + channel.getAsInt() - 1 : RoutingTable.NOWHERE;
        }
        return to instanceof ZoneTarget.ToChannel bare ? port + bare.channel() - 1 : port | RoutingTable.SAME_CHANNEL;
    }

    /** Returns the number of slots for sources. */
    public int sourceCount() {
        return sources.names.size();
    }

    /** Returns the number of slots for ports. */
    public int portCount() {
        return ports.names.size();
    }

    /** The id of the source that has a slot. */
    public String sourceId(int slot) {
        return sources.names.get(slot);
    }

    /** The ids of all sources so far, by slot. */
    public List<String> sourceIds() {
        return List.copyOf(sources.names);
    }

    /** The ids of all scenes so far, by slot. */
    public List<String> sceneIds() {
        return List.copyOf(scenes.names);
    }

    /** The slots of the ports, in the order of their names. */
    int[] portOrder() {
        if (portOrder.length != portCount()) {
            portOrder = IntStream.range(0, portCount())
                    .boxed()
                    .sorted(Comparator.comparing(this::portName))
                    .mapToInt(Integer::intValue)
                    .toArray();
        }
        return portOrder;
    }

    /** The name of the port that has a slot. */
    public String portName(int slot) {
        return ports.names.get(slot);
    }

    /** The id of the instrument that has a slot. */
    public String instrumentId(int slot) {
        return instruments.names.get(slot);
    }
}
