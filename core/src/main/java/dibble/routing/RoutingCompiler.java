package dibble.routing;

import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.routing.RoutingTable.ZoneColumns;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Compiles a {@link Routing} into a {@link RoutingTable}. For each source the sixteen channels fall into classes that
 * the same zones take; in each class the keys fall into stretches between the ends of zones, and each stretch gets
 * one list, shared by all its keys and channels.
 */
public final class RoutingCompiler {
    /** A list of more zones than this is split by velocity where their windows differ. */
    private static final int LONG_LIST = 4;

    private final Routing routing;
    private final Slots slots;
    private final List<Zone> zones;
    private final ZoneColumns columns;
    private int[] cells = new int[1024];
    private int used = 1;
    private int mostOutputs;

    private RoutingCompiler(Routing routing, Slots slots) {
        this.routing = routing;
        this.slots = slots;
        this.zones = routing.zones();
        this.columns = new ZoneColumns(zones.size());
    }

    /** The table by which everything is sent: for printing and for work on files. */
    public static RoutingTable compile(Routing routing, Slots slots) {
        return new RoutingCompiler(routing, slots).table(null);
    }

    /**
     * The table for live playing, in which nothing is sent for sources that are not heard, nor from a keyboard to the
     * instrument that it sounds by itself.
     *
     * @param unheard the ids of sources that are not heard
     */
    public static RoutingTable compileLive(Routing routing, Slots slots, Set<String> unheard) {
        return new RoutingCompiler(routing, slots).table(unheard);
    }

    private RoutingTable table(Set<String> unheard) {
        boolean playing = unheard != null;
        routing.sources().forEach(source -> slots.source(source.id()));
        routing.instruments().forEach(instrument -> slots.port(instrument.port()));
        fillColumns();
        int sources = slots.sourceCount();
        boolean[] isSource = new boolean[sources];
        boolean[] live = new boolean[sources];
        int[] listen = new int[sources];
        int[] accept = new int[sources];
        int[] transpose = new int[sources];
        int[] noteLists = new int[sources * 16 * 128];
        int[] channelLists = new int[sources * 16];
        for (Source source : routing.sources()) {
            int slot = slots.source(source.id());
            isSource[slot] = true;
            live[slot] = !playing || !unheard.contains(source.id());
            listen[slot] = source.listen().mask();
            accept[slot] = EventKind.mask(source.accept());
            transpose[slot] = source.transpose();
            if (live[slot]) {
                compileSource(source, slot, playing, noteLists, channelLists);
            }
        }
        int[] portOrder = IntStream.range(0, slots.portCount())
                .boxed()
                .sorted(Comparator.comparing(slots::portName))
                .mapToInt(Integer::intValue)
                .toArray();
        return new RoutingTable(
                sources,
                slots.portCount(),
                isSource,
                live,
                listen,
                accept,
                transpose,
                noteLists,
                channelLists,
                Arrays.copyOf(cells, used),
                columns,
                portOrder,
                mostOutputs);
    }

    private void fillColumns() {
        Map<String, Instrument> instruments = new HashMap<>();
        routing.instruments().forEach(instrument -> instruments.put(instrument.id(), instrument));
        for (int z = 0; z < zones.size(); z++) {
            Zone zone = zones.get(z);
            columns.destination[z] =
                    destination(zone.to(), instruments.get(zone.to().instrument()));
            columns.instrument[z] = slots.instrument(zone.to().instrument());
            columns.transpose[z] = zone.transpose();
            columns.velocityLow[z] = zone.velocity().low();
            columns.velocityHigh[z] = zone.velocity().high();
            int flags = (zone.dropUnmapped() ? ZoneColumns.DROP_UNMAPPED : 0) | (zone.fold() ? ZoneColumns.FOLD : 0);
            if (zone.velocityTo() != null) {
                flags |= ZoneColumns.MAP_VELOCITY;
                columns.velocityFirst[z] = zone.velocityTo().first();
                columns.velocityLast[z] = zone.velocityTo().last();
            }
            columns.flags[z] = flags;
            columns.pass[z] = EventKind.mask(zone.pass());
            for (int controller : zone.blockControllers()) {
                if (controller < 64) {
                    columns.blockLow[z] |= 1L << controller;
                } else {
                    columns.blockHigh[z] |= 1L << controller;
                }
            }
            columns.noteMap[z] = noteMap(zone.noteMap());
        }
    }

    private int destination(Target to, Instrument instrument) {
        if (instrument == null) {
            return RoutingTable.NOWHERE;
        }
        int port = slots.port(instrument.port()) * 16;
        if (to instanceof Target.ToPart part) {
            OptionalInt channel = routing.channels().channel(part.part());
            return channel.isPresent() ? port + channel.getAsInt() - 1 : RoutingTable.NOWHERE;
        }
        return to instanceof Target.ToChannel bare ? port + bare.channel() - 1 : port | RoutingTable.SAME_CHANNEL;
    }

    private static byte[][] noteMap(Map<Integer, List<Integer>> map) {
        if (map.isEmpty()) {
            return null;
        }
        byte[][] notes = new byte[128][];
        map.forEach((key, out) -> {
            notes[key] = new byte[out.size()];
            for (int i = 0; i < out.size(); i++) {
                notes[key][i] = out.get(i).byteValue();
            }
        });
        return notes;
    }

    private void compileSource(Source source, int slot, boolean playing, int[] noteLists, int[] channelLists) {
        List<Integer> own = new ArrayList<>();
        for (int z = 0; z < zones.size(); z++) {
            Zone zone = zones.get(z);
            boolean soundsByItself =
                    playing && source.localControl() && zone.to().instrument().equals(source.ownInstrument());
            if (zone.enabled()
                    && zone.isPlayedBy(source.id())
                    && columns.destination[z] != RoutingTable.NOWHERE
                    && !soundsByItself) {
                own.add(z);
            }
        }
        int[][] byChannel = new int[16][];
        for (int channel = 0; channel < 16; channel++) {
            int c = channel;
            byChannel[channel] = own.stream()
                    .mapToInt(Integer::intValue)
                    .filter(z -> zones.get(z).channels().holds(c))
                    .toArray();
            int twin = twinOf(byChannel, channel);
            int from = (slot * 16 + twin) * 128;
            int to = (slot * 16 + channel) * 128;
            if (twin < channel) {
                System.arraycopy(noteLists, from, noteLists, to, 128);
            } else {
                compileKeys(byChannel[channel], noteLists, to);
            }
            channelLists[slot * 16 + channel] = channelList(byChannel[channel]);
        }
    }

    private static int twinOf(int[][] byChannel, int channel) {
        for (int earlier = 0; earlier < channel; earlier++) {
            if (Arrays.equals(byChannel[earlier], byChannel[channel])) {
                return earlier;
            }
        }
        return channel;
    }

    private void compileKeys(int[] taken, int[] noteLists, int base) {
        boolean[] begins = new boolean[129];
        begins[0] = true;
        for (int z : taken) {
            begins[zones.get(z).keys().low()] = true;
            begins[zones.get(z).keys().high() + 1] = true;
        }
        int[] matching = new int[taken.length];
        int list = 0;
        for (int key = 0; key < 128; key++) {
            if (begins[key]) {
                int n = 0;
                for (int z : taken) {
                    if (zones.get(z).keys().holds(key)) {
                        matching[n++] = z;
                    }
                }
                list = keyList(matching, n);
            }
            noteLists[base + key] = list;
        }
    }

    private int keyList(int[] matching, int n) {
        boolean windows = false;
        for (int i = 0; i < n && !windows; i++) {
            windows = !columns.takesVelocity(matching[i], 1) || !columns.takesVelocity(matching[i], 127);
        }
        if (n <= LONG_LIST || !windows) {
            return list(matching, n);
        }
        boolean[] begins = new boolean[129];
        begins[0] = true;
        for (int i = 0; i < n; i++) {
            begins[columns.velocityLow[matching[i]]] = true;
            begins[columns.velocityHigh[matching[i]] + 1] = true;
        }
        int[] byVelocity = new int[128];
        int[] inWindow = new int[n];
        for (int velocity = 0; velocity < 128; velocity++) {
            if (begins[velocity]) {
                int m = 0;
                for (int i = 0; i < n; i++) {
                    if (columns.takesVelocity(matching[i], velocity)) {
                        inWindow[m++] = matching[i];
                    }
                }
                byVelocity[velocity] = list(inWindow, m);
            } else {
                byVelocity[velocity] = byVelocity[velocity - 1];
            }
        }
        int place = reserve(129);
        cells[place] = -1;
        System.arraycopy(byVelocity, 0, cells, place + 1, 128);
        return place;
    }

    /** The zones by which messages without a key go on: those that add nothing to earlier ones are left out. */
    private int channelList(int[] taken) {
        int[] kept = new int[taken.length];
        int n = 0;
        for (int z : taken) {
            boolean adds = true;
            for (int i = 0; i < n && adds; i++) {
                adds = !coversMessagesOf(kept[i], z);
            }
            if (adds) {
                kept[n++] = z;
            }
        }
        return list(kept, n);
    }

    private boolean coversMessagesOf(int earlier, int later) {
        return columns.destination[earlier] == columns.destination[later]
                && (columns.pass[later] & ~columns.pass[earlier]) == 0
                && (columns.blockLow[earlier] & ~columns.blockLow[later]) == 0
                && (columns.blockHigh[earlier] & ~columns.blockHigh[later]) == 0;
    }

    private int list(int[] members, int n) {
        if (n == 0) {
            return 0;
        }
        int place = reserve(n + 1);
        cells[place] = n;
        System.arraycopy(members, 0, cells, place + 1, n);
        int outputs = 0;
        for (int i = 0; i < n; i++) {
            outputs += columns.noteMap[members[i]] == null ? 1 : 8;
        }
        mostOutputs = Math.max(mostOutputs, outputs);
        return place;
    }

    private int reserve(int count) {
        int place = used;
        used += count;
        if (used > cells.length) {
            cells = Arrays.copyOf(cells, Math.max(used, cells.length * 2));
        }
        return place;
    }
}
