package dibble.routing;

import dibble.gear.Source;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Queries on the zones of a routing and their destinations, answered by the compiled table, for checks. Zones are
 * identified by their index in {@link Routing#zones}.
 */
public final class RoutingQueries {
    /** A note outside 0-127, which is not sent. */
    public static final int OUTSIDE = RoutingTable.NONE;

    private final Routing routing;
    private final SlotAllocator slots = new SlotAllocator();
    private final RoutingTable table;

    /** @param routing compiled here, once */
    public RoutingQueries(Routing routing) {
        this.routing = routing;
        table = RoutingCompiler.compile(routing, slots);
    }

    /** @throws UserException where a routing needs more than there can be */
    public static void check(Routing routing) {
        new RoutingQueries(routing);
    }

    /** The notes that a zone makes of a source's key, {@link #OUTSIDE} for each that is not sent. */
    public List<Integer> notes(int zone, Source source, int key) {
        List<Integer> notes = new ArrayList<>();
        int count = table.noteCount(zone, key);
        for (int i = 0; i < count; i++) {
            notes.add(table.note(zone, slots.source(source.id()), key, i));
        }
        return notes;
    }

    /** Returns the destination of a zone for a channel 0-15, or empty. */
    public Optional<Destination> destination(int zone, int channel) {
        return table.zones.destination(zone) == RoutingTable.NOWHERE
                ? Optional.empty()
                : Optional.of(named(table.destination(zone, channel)));
    }

    /** Returns the destination of a target for a channel 0-15, or empty. */
    public Optional<Destination> destination(ZoneTarget to, int channel) {
        int destination = slots.destination(to, routing);
        return destination == RoutingTable.NOWHERE
                ? Optional.empty()
                : Optional.of(named(RoutingTable.onChannel(destination, channel)));
    }

    private Destination named(int destination) {
        return new Destination(slots.portName(destination >>> 4), (destination & 0xF) + 1);
    }
}
