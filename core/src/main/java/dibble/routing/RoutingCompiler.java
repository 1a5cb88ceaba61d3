package dibble.routing;

import dibble.gear.BankSelect;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.midi.Parameter;
import dibble.routing.RoutingTable.SceneSet;
import dibble.routing.RoutingTable.SoundColumns;
import dibble.routing.RoutingTable.SourceColumns;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * Compiles a {@link Routing} into a {@link RoutingTable}. For each source the sixteen channels fall into classes that
 * the same zones take; in each class the keys fall into stretches between the ends of zones, and each stretch gets
 * one list, shared by all its keys and channels.
 *
 * <p>Where something that is played can call a scene, every scene gets its table, so that none has to be made then.
 */
public final class RoutingCompiler {
    /** A list of more zones than this is split by velocity where their windows differ. */
    private static final int LONG_LIST = 4;

    private final Routing routing;
    private final SlotAllocator slots;

    /** The ids of sources that are not heard, or null where everything is sent. */
    private final Set<String> unheard;

    private final SceneSet scenes;
    private final List<Zone> zones;
    private final ZoneRecords columns;
    private final ControlColumns controls;
    private int[] cells = new int[256];

    /** Indexes 0 and 1 stay empty: 0 means no list, and the cell before a list may be read. */
    private int used = 2;

    private int mostNotes;
    private int mostSends;

    private RoutingCompiler(
            Routing routing, SlotAllocator slots, Set<String> unheard, SceneSet scenes, ControlCompiler maps) {
        this.routing = routing;
        this.slots = slots;
        this.unheard = unheard;
        this.scenes = scenes;
        this.zones = routing.zones();
        this.columns = new ZoneRecords(zones.size());
        this.controls = maps.columns(routing, scenes);
    }

    /** The table by which everything is sent: for printing and for work on files. */
    public static RoutingTable compile(Routing routing, SlotAllocator slots) {
        return compileAll(routing, slots, null);
    }

    /**
     * Compiles the table for live playing. It sends nothing for muted sources, and nothing from a keyboard to the
     * instrument that it plays directly.
     *
     * @param unheard the ids of muted sources
     */
    public static RoutingTable compileLive(Routing routing, SlotAllocator slots, Set<String> unheard) {
        return compileAll(routing, slots, unheard);
    }

    private static RoutingTable compileAll(Routing routing, SlotAllocator slots, Set<String> unheard) {
        routing.sources().forEach(source -> slots.source(source.id()));
        routing.instruments().forEach(instrument -> slots.port(instrument.port()));
        SceneSet scenes = sceneSet(routing, slots);
        ControlCompiler maps = new ControlCompiler(routing, slots);
        List<Scene> all = routing.scenes();
        boolean each = canCallScenes(routing);
        RoutingTable active = null;
        for (int place = 0; place < all.size(); place++) {
            boolean isActive = all.get(place).id().equals(routing.activeScene());
            scenes.sounds[place] = sounds(routing, slots, all.get(place));
            if (each || isActive) {
                Routing there = routing.withScene(all.get(place).id());
                scenes.tables[place] = new RoutingCompiler(there, slots, unheard, scenes, maps).table(place);
                active = isActive ? scenes.tables[place] : active;
            }
        }
        return active != null
                ? active
                : new RoutingCompiler(routing, slots, unheard, scenes, maps).table(RoutingTable.NONE);
    }

    private static boolean canCallScenes(Routing routing) {
        boolean byProgram = routing.sceneSwitch() != null
                && routing.source(routing.sceneSwitch().source()).isPresent()
                && routing.scenes().stream().anyMatch(scene -> scene.program() != null);
        return byProgram
                || Stream.concat(
                                routing.controls().stream(),
                                routing.scenes().stream().flatMap(scene -> scene.controls().stream()))
                        .filter(ControlMap::enabled)
                        .flatMap(map -> map.sends().stream())
                        .anyMatch(send -> send.kind() == ControlKind.SCENE);
    }

    private static SceneSet sceneSet(Routing routing, SlotAllocator slots) {
        List<Scene> all = routing.scenes();
        int[] ofProgram = new int[128];
        Arrays.fill(ofProgram, RoutingTable.NONE);
        for (int place = all.size() - 1; place >= 0; place--) {
            if (all.get(place).program() != null) {
                ofProgram[all.get(place).program()] = place;
            }
        }
        SceneSet scenes = new SceneSet(
                all.stream().mapToInt(scene -> slots.scene(scene.id())).toArray(), ofProgram);
        SceneSwitch by = routing.sceneSwitch();
        if (by != null && routing.source(by.source()).isPresent()) {
            scenes.switchSource = slots.source(by.source());
            scenes.switchChannel = by.channel() - 1;
        }
        return scenes;
    }

    private static SoundColumns sounds(Routing routing, SlotAllocator slots, Scene scene) {
        List<SceneSound> there = scene.sounds().stream()
                .filter(sound -> routing.destination(sound.part()).isPresent())
                .toList();
        SoundColumns sounds = new SoundColumns(there.size());
        for (int i = 0; i < there.size(); i++) {
            PartRef part = there.get(i).part();
            Destination to = routing.destination(part).orElseThrow();
            sounds.destination[i] = slots.port(to.port()) * 16 + to.channel() - 1;
            sounds.instrument[i] = slots.instrument(part.instrument());
            Sound sound = there.get(i).sound();
            BankSelect by = routing.instrument(part.instrument()).orElseThrow().bankSelect();
            Integer[] values = {sound.coarseBank(by), sound.fineBank(by), sound.program(), sound.volume(), sound.pan()};
            for (int v = 0; v < values.length; v++) {
                sounds.values[i * SoundColumns.VALUES + v] = values[v] == null ? -1 : values[v];
            }
        }
        return sounds;
    }

    private RoutingTable table(int scene) {
        fillColumns();
        // Voices of tracks have slots too: the table has those of sources only.
        int count = routing.sources().stream()
                .mapToInt(source -> slots.source(source.id()) + 1)
                .max()
                .orElse(0);
        SourceColumns sources = new SourceColumns(count);
        int[] gates = new int[count * 16];
        int[] keyBlocks = new int[count * 16];
        int[] channelLists = new int[count * 16];
        int[] controlBlocks = new int[count * 16];
        for (Source source : routing.sources()) {
            int slot = slots.source(source.id());
            sources.isSource[slot] = true;
            sources.live[slot] = unheard == null || !unheard.contains(source.id());
            sources.listen[slot] = source.listen().mask();
            sources.accept[slot] = EventKind.mask(source.accept());
            sources.transpose[slot] = source.transpose();
            for (int channel = 0; channel < 16; channel++) {
                gates[slot * 16 + channel] = source.listen().holds(channel) ? sources.accept[slot] : 0;
            }
            if (sources.live[slot]) {
                compileSource(source, slot, keyBlocks, channelLists);
            }
            compileControls(source, slot, controlBlocks);
        }
        return new RoutingTable(
                slots.portCount(),
                sources,
                gates,
                keyBlocks,
                channelLists,
                controlBlocks,
                Arrays.copyOf(cells, used),
                columns,
                controls,
                scenes,
                scene,
                slots.portOrder(),
                mostNotes,
                mostSends);
    }

    private void compileControls(Source source, int slot, int[] controlBlocks) {
        boolean heard = unheard == null || !unheard.contains(source.id());
        List<Integer> own = new ArrayList<>();
        for (int m = 0; m < controls.mapCount; m++) {
            ControlMap map = controls.map[m];
            // A muted source still calls scenes.
            boolean does = heard || map.sends().stream().anyMatch(send -> send.kind() == ControlKind.SCENE);
            if (map.enabled() && map.isPlayedBy(source.id()) && does) {
                own.add(m);
            }
        }
        if (own.isEmpty()) {
            return;
        }
        int[][] byChannel = new int[16][];
        for (int channel = 0; channel < 16; channel++) {
            int c = channel;
            byChannel[channel] = own.stream()
                    .mapToInt(Integer::intValue)
                    .filter(m -> controls.map[m].channels().holds(c))
                    .toArray();
            int twin = twinOf(byChannel, channel);
            controlBlocks[slot * 16 + channel] =
                    twin < channel ? controlBlocks[slot * 16 + twin] : controlBlock(byChannel[channel]);
        }
    }

    private int controlBlock(int[] maps) {
        if (maps.length == 0) {
            return 0;
        }
        int block = reserve(ControlColumns.SIGNALS);
        Map<Integer, List<Integer>> bySignal = new TreeMap<>();
        for (int m : maps) {
            for (int signal : ControlColumns.signals(controls.map[m].when())) {
                bySignal.computeIfAbsent(signal, it -> new ArrayList<>()).add(m);
            }
        }
        bySignal.forEach((signal, same) -> {
            // Made first: it may have the cells moved.
            int list = controlList(same.stream().mapToInt(Integer::intValue).toArray());
            cells[block + signal] = list;
        });
        return block;
    }

    private int controlList(int[] maps) {
        int[] takers = Arrays.stream(maps).filter(controls::takes).toArray();
        boolean takes = Arrays.stream(takers).anyMatch(m -> controls.parameter[m] == Parameter.NOTHING);
        int mark = reserve(maps.length + 2);
        cells[mark] = takes ? RoutingTable.TAKES : takers.length > 0 ? RoutingTable.MAY_TAKE : 0;
        cells[mark + 1] = maps.length;
        System.arraycopy(maps, 0, cells, mark + 2, maps.length);
        int sends = Arrays.stream(maps).map(m -> controls.map[m].sends().size()).sum();
        mostSends = Math.max(mostSends, sends);
        return mark + 1;
    }

    private void fillColumns() {
        for (int z = 0; z < zones.size(); z++) {
            Zone zone = zones.get(z);
            columns.set(z, ZoneRecords.DESTINATION, slots.destination(zone.to(), routing));
            columns.set(z, ZoneRecords.INSTRUMENT, slots.instrument(zone.to().instrument()));
            columns.set(z, ZoneRecords.TRANSPOSE, zone.transpose());
            columns.set(z, ZoneRecords.VELOCITY_LOW, zone.velocity().low());
            columns.set(z, ZoneRecords.VELOCITY_HIGH, zone.velocity().high());
            int flags = (zone.dropUnmapped() ? ZoneRecords.DROP_UNMAPPED : 0)
                    | (zone.fold() ? ZoneRecords.FOLD : 0)
                    | (zone.noteMap().isEmpty() ? 0 : ZoneRecords.HAS_NOTE_MAP);
            if (zone.velocityTo() != null) {
                flags |= ZoneRecords.MAP_VELOCITY;
                columns.set(z, ZoneRecords.VELOCITY_FIRST, zone.velocityTo().first());
                columns.set(z, ZoneRecords.VELOCITY_LAST, zone.velocityTo().last());
            }
            columns.set(z, ZoneRecords.FLAGS, flags);
            columns.set(z, ZoneRecords.PASS, EventKind.mask(zone.pass()));
            for (int controller : zone.blockControllers()) {
                columns.block(z, controller);
            }
            columns.setNoteMap(z, noteMap(zone.noteMap()));
        }
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

    private void compileSource(Source source, int slot, int[] keyBlocks, int[] channelLists) {
        int[] own = new int[zones.size()];
        int count = 0;
        for (int z = 0; z < zones.size(); z++) {
            Zone zone = zones.get(z);
            boolean soundsByItself = unheard != null
                    && source.localControl()
                    && zone.to().instrument().equals(source.ownInstrument());
            if (zone.enabled()
                    && zone.isPlayedBy(source.id())
                    && columns.get(z, ZoneRecords.DESTINATION) != RoutingTable.NOWHERE
                    && !soundsByItself) {
                own[count++] = z;
            }
        }
        int[][] byChannel = new int[16][];
        int[] holding = new int[count];
        for (int channel = 0; channel < 16; channel++) {
            int n = 0;
            for (int i = 0; i < count; i++) {
                if (zones.get(own[i]).channels().holds(channel)) {
                    holding[n++] = own[i];
                }
            }
            byChannel[channel] = channel > 0 && isSame(byChannel[channel - 1], holding, n)
                    ? byChannel[channel - 1]
                    : Arrays.copyOf(holding, n);
            int twin = slot * 16 + twinOf(byChannel, channel);
            int at = slot * 16 + channel;
            keyBlocks[at] = twin < at ? keyBlocks[twin] : keyBlock(byChannel[channel]);
            channelLists[at] = twin < at ? channelLists[twin] : channelList(byChannel[channel]);
        }
    }

    private static boolean isSame(int[] list, int[] other, int length) {
        return Arrays.equals(list, 0, list.length, other, 0, length);
    }

    private static int twinOf(int[][] byChannel, int channel) {
        for (int earlier = 0; earlier < channel; earlier++) {
            if (Arrays.equals(byChannel[earlier], byChannel[channel])) {
                return earlier;
            }
        }
        return channel;
    }

    private int keyBlock(int[] taken) {
        if (taken.length == 0) {
            return 0;
        }
        int block = reserve(128);
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
            cells[block + key] = list;
        }
        return block;
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
            begins[columns.get(matching[i], ZoneRecords.VELOCITY_LOW)] = true;
            begins[columns.get(matching[i], ZoneRecords.VELOCITY_HIGH) + 1] = true;
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
        return columns.get(earlier, ZoneRecords.DESTINATION) == columns.get(later, ZoneRecords.DESTINATION)
                && (columns.get(later, ZoneRecords.PASS) & ~columns.get(earlier, ZoneRecords.PASS)) == 0
                && columns.blocksNoMore(earlier, later);
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
            outputs += columns.has(members[i], ZoneRecords.HAS_NOTE_MAP) ? 8 : 1;
        }
        mostNotes = Math.max(mostNotes, outputs);
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
