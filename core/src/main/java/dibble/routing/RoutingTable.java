package dibble.routing;

/**
 * What a routing is compiled into: flat arrays, indexed by source, channel and key, so that an event meets only the
 * zones that match it. Immutable once built; handed to a {@link Router} by one reference.
 *
 * <pre>
 * noteLists[(source*16 + channel)*128 + key]  -> place of a list in cells, 0 for none
 * channelLists[source*16 + channel]           -> place of a list in cells, 0 for none
 * cells[place]                                -> n, then n zone numbers in their order
 *                                             or -1, then for each velocity 0-127 the place of a list
 * </pre>
 *
 * A list is split by velocity where many zones with windows share a key. Slots of sources, ports and instruments are
 * those of {@link Slots}; a destination is {@code port*16 + channel}.
 */
public final class RoutingTable {
    /** A zone that leads nowhere: no such part, or no channel left for it. */
    static final int NOWHERE = -1;

    /** Set in a zone's destination where the event's own channel is to be added. */
    static final int SAME_CHANNEL = 1 << 16;

    final int sourceCount;
    final int portCount;
    /** Whether a slot is a source of the session at all; others are voices of tracks, or sources that went. */
    final boolean[] isSource;

    final boolean[] live;
    final int[] listen;
    final int[] accept;
    final int[] transpose;
    final int[] noteLists;
    final int[] channelLists;
    final int[] cells;
    final ZoneColumns zones;
    final int[] portOrder;
    final int mostOutputs;

    RoutingTable(
            int sourceCount,
            int portCount,
            boolean[] isSource,
            boolean[] live,
            int[] listen,
            int[] accept,
            int[] transpose,
            int[] noteLists,
            int[] channelLists,
            int[] cells,
            ZoneColumns zones,
            int[] portOrder,
            int mostOutputs) {
        this.sourceCount = sourceCount;
        this.portCount = portCount;
        this.isSource = isSource;
        this.live = live;
        this.listen = listen;
        this.accept = accept;
        this.transpose = transpose;
        this.noteLists = noteLists;
        this.channelLists = channelLists;
        this.cells = cells;
        this.zones = zones;
        this.portOrder = portOrder;
        this.mostOutputs = mostOutputs;
    }

    /** A table with no source: nothing plays. */
    static RoutingTable empty() {
        int[] none = {};
        return new RoutingTable(
                0, 0, new boolean[0], new boolean[0], none, none, none, none, none, none, new ZoneColumns(0), none, 0);
    }

    /** The properties of zones, a column each. Filled by the compiler, then only read. */
    static final class ZoneColumns {
        static final int DROP_UNMAPPED = 1;
        static final int FOLD = 2;
        static final int MAP_VELOCITY = 4;

        final int[] destination;
        final int[] instrument;
        final int[] transpose;
        final int[] velocityLow;
        final int[] velocityHigh;
        final int[] velocityFirst;
        final int[] velocityLast;
        final int[] flags;
        final int[] pass;
        final long[] blockLow;
        final long[] blockHigh;
        /** For a zone with a note map: for each key null or its notes; null for a zone with none. */
        final byte[][][] noteMap;

        ZoneColumns(int count) {
            destination = new int[count];
            instrument = new int[count];
            transpose = new int[count];
            velocityLow = new int[count];
            velocityHigh = new int[count];
            velocityFirst = new int[count];
            velocityLast = new int[count];
            flags = new int[count];
            pass = new int[count];
            blockLow = new long[count];
            blockHigh = new long[count];
            noteMap = new byte[count][][];
        }

        boolean blocks(int zone, int controller) {
            long bits = controller < 64 ? blockLow[zone] : blockHigh[zone];
            return (bits >>> controller & 1) != 0;
        }

        boolean takesVelocity(int zone, int velocity) {
            return velocity >= velocityLow[zone] && velocity <= velocityHigh[zone];
        }
    }
}
