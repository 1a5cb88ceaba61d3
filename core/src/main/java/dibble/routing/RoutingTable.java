package dibble.routing;

import dibble.midi.EventKind;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;

/**
 * What a routing is compiled into: flat arrays, indexed by source, channel and key, so that an event meets only the
 * zones and control maps that match it. Immutable once built; handed to a {@link Router} by one reference. What an event
 * becomes is decided by the methods here, for the router and for the {@link Trace} alike.
 *
 * <pre>
 * keyBlocks[source*16 + channel]              -> place of a block of 128 lists, one a key, 0 for none
 * channelLists[source*16 + channel]           -> place of a list in cells, 0 for none
 * controlBlocks[source*16 + channel]          -> place of a block of {@link ControlColumns#SIGNALS} lists, 0 for none
 * cells[place]                                -> n, then n numbers of zones or control maps in their order
 *                                             or -1, then for each velocity 0-127 the place of a list
 * </pre>
 *
 * A list of zones is split by velocity where many zones with windows share a key; a list of control maps has -2 before
 * it where one of them takes the event, -3 where that depends on the parameter that is chosen. Slots of sources, ports and instruments are those of {@link SlotAllocator}; a
 * destination is {@code port*16 + channel}.
 */
public final class RoutingTable {
    /** No zone, no scene, no note. */
    static final int NONE = -1;

    /** A zone that leads nowhere: no such part, or no channel left for it. */
    static final int NOWHERE = -1;

    /** Set in a destination where the event's own channel is to be added. */
    static final int SAME_CHANNEL = 1 << 16;

    static final int BY_VELOCITY = -1;
    static final int TAKES = -2;

    /** Before a list of control maps of which some take the event where their parameter is chosen. */
    static final int MAY_TAKE = -3;

    final int portCount;
    final SourceColumns sources;

    /** By source and channel: the kinds that are let in, a bit each; none where the source does not listen. */
    final int[] gates;

    final int[] keyBlocks;
    final int[] channelLists;
    final int[] controlBlocks;
    final int[] cells;
    final ZoneRecords zones;
    final ControlColumns controls;
    final SceneSet scenes;

    /** The index of the scene of this table, or {@link #NONE}. */
    final int scene;

    /** Ports in the order of their names. */
    final int[] portOrder;

    /** The most notes that zones can sound because of one event. */
    final int mostNotes;

    /** The most sends that one event can reach. */
    final int mostSends;

    RoutingTable(
            int portCount,
            SourceColumns sources,
            int[] gates,
            int[] keyBlocks,
            int[] channelLists,
            int[] controlBlocks,
            int[] cells,
            ZoneRecords zones,
            ControlColumns controls,
            SceneSet scenes,
            int scene,
            int[] portOrder,
            int mostNotes,
            int mostSends) {
        this.portCount = portCount;
        this.sources = sources;
        this.gates = gates;
        this.keyBlocks = keyBlocks;
        this.channelLists = channelLists;
        this.controlBlocks = controlBlocks;
        this.cells = cells;
        this.zones = zones;
        this.controls = controls;
        this.scenes = scenes;
        this.scene = scene;
        this.portOrder = portOrder;
        this.mostNotes = mostNotes;
        this.mostSends = mostSends;
    }

    /** A table with no source: nothing plays. */
    static RoutingTable empty() {
        int[] none = {};
        SourceColumns sources = new SourceColumns(0);
        SceneSet scenes = new SceneSet(none, none);
        ControlColumns controls = new ControlColumns(0, 0, 0, 0);
        return new RoutingTable(
                0, sources, none, none, none, none, none, new ZoneRecords(0), controls, scenes, NONE, none, 0, 0);
    }

    /** The slot of the scene that this is the table of, or {@link #NONE}. */
    int sceneSlot() {
        return scene == NONE ? NONE : scenes.slots[scene];
    }

    /** Returns true if a source's gate lets an event in. */
    boolean letsIn(int source, int channel, EventKind kind) {
        return (gates[source * 16 + channel] & kind.bit()) != 0;
    }

    boolean listens(int source, int channel) {
        return (sources.listen[source] >>> channel & 1) != 0;
    }

    boolean accepts(int source, EventKind kind) {
        return (sources.accept[source] & kind.bit()) != 0;
    }

    /** The scene that a program change calls, or {@link #NONE} where it calls none. */
    int calledScene(int source, int message) {
        return source == scenes.switchSource
                        && ShortMessage.channel(message) == scenes.switchChannel
                        && ShortMessage.kind(message) == ShortMessage.PROGRAM_CHANGE
                ? scenes.ofProgram[ShortMessage.data1(message)]
                : NONE;
    }

    /** The list of zones for a note-on; some of them may have another velocity window. 0 for none. */
    int noteList(int source, int channel, int key, int velocity) {
        int block = keyBlocks[source * 16 + channel];
        int list = block == 0 ? 0 : cells[block + key];
        return list != 0 && cells[list] == BY_VELOCITY ? cells[list + 1 + velocity] : list;
    }

    /** The list of control maps that match an event, 0 for none. */
    int controlList(int source, int message) {
        int block = controlBlocks[source * 16 + ShortMessage.channel(message)];
        return block == 0 ? 0 : cells[block + ControlColumns.signal(message)];
    }

    /**
     * Returns true if one of the control maps of a list takes the event, so that it goes no further.
     *
     * @param choice the parameter that is chosen, as {@link Parameter} has it
     */
    boolean isTaken(int controlList, int choice) {
        int mark = controlList == 0 ? 0 : cells[controlList - 1];
        if (mark != MAY_TAKE || !Parameter.isSome(choice)) {
            return mark == TAKES;
        }
        for (int i = controlList + 1; i <= controlList + cells[controlList]; i++) {
            if (controls.takes(cells[i]) && controls.parameter[cells[i]] == choice) {
                return true;
            }
        }
        return false;
    }

    int destination(int zone, int channel) {
        return onChannel(zones.destination(zone), channel);
    }

    static int onChannel(int destination, int channel) {
        return (destination & SAME_CHANNEL) == 0 ? destination : (destination & ~SAME_CHANNEL) + channel;
    }

    /** Returns the number of notes of a zone for a key; each may still be outside 0-127. */
    int noteCount(int zone, int key) {
        byte[] mapped = zones.mapped(zone, key);
        if (mapped != null) {
            return mapped.length;
        }
        return zones.has(zone, ZoneRecords.DROP_UNMAPPED) ? 0 : 1;
    }

    /** The note number {@code i} that a zone makes of a source's key, or {@link #NONE} where it is outside 0-127. */
    int note(int zone, int source, int key, int i) {
        byte[] mapped = zones.mapped(zone, key);
        if (mapped != null) {
            return mapped[i];
        }
        int note = key + sources.transpose[source] + zones.get(zone, ZoneRecords.TRANSPOSE);
        if ((note & ~0x7F) == 0) {
            return note;
        }
        if (!zones.has(zone, ZoneRecords.FOLD)) {
            return NONE;
        }
        return note < 0 ? Math.floorMod(note, 12) : note - (note - 116) / 12 * 12;
    }

    int velocity(int zone, int velocity) {
        if (!zones.has(zone, ZoneRecords.MAP_VELOCITY)) {
            return velocity;
        }
        int a = zones.get(zone, ZoneRecords.VELOCITY_LOW);
        int b = zones.get(zone, ZoneRecords.VELOCITY_HIGH);
        int c = zones.get(zone, ZoneRecords.VELOCITY_FIRST);
        int d = zones.get(zone, ZoneRecords.VELOCITY_LAST);
        int out = a == b ? c : c + Math.floorDiv(2 * (velocity - a) * (d - c) + (b - a), 2 * (b - a));
        return Math.max(1, Math.min(127, out));
    }

    /** Returns true if a zone passes messages of this kind that have no key, or key pressure. */
    boolean passes(int zone, EventKind kind, int message) {
        if (!zones.passes(zone, kind)) {
            return false;
        }
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return true;
        }
        int number = ShortMessage.data1(message);
        return !reconfigures(number) && !zones.blocks(zone, number);
    }

    boolean passesKeyPressure(int zone) {
        return zones.passes(zone, EventKind.KEY_PRESSURE);
    }

    /** Returns true if a controller is local control or a mode of a module (MIDI 1.0, channel mode messages). */
    static boolean reconfigures(int controller) {
        return controller == 122 || controller >= 124;
    }

    /** The properties of sources, a column each, by slot. */
    static final class SourceColumns {
        final int count;

        /** True if a slot is a source of the session at all; others are voices of tracks, or sources that went. */
        final boolean[] isSource;

        /** True if the output of a source is sent. */
        final boolean[] live;

        final int[] listen;
        final int[] accept;
        final int[] transpose;

        boolean isLive(int source) {
            return source < count && live[source];
        }

        SourceColumns(int count) {
            this.count = count;
            isSource = new boolean[count];
            live = new boolean[count];
            listen = new int[count];
            accept = new int[count];
            transpose = new int[count];
        }
    }

    /** The scenes of a session: a table each where anything that is played can call one, else only the active one's. */
    static final class SceneSet {
        /** The slots of the scenes, in their order. */
        final int[] slots;

        /** By place in the order; null where it was not compiled. */
        final RoutingTable[] tables;

        /** By place in the order: the sounds that the scene gives to parts. */
        final SoundColumns[] sounds;

        /** By program: the place of the scene that it calls, or {@link #NONE}. */
        final int[] ofProgram;

        int switchSource = NONE;
        int switchChannel = NONE;

        SceneSet(int[] slots, int[] ofProgram) {
            this.slots = slots;
            this.ofProgram = ofProgram;
            tables = new RoutingTable[slots.length];
            sounds = new SoundColumns[slots.length];
        }

        /** The place of a scene in the order, by its slot; {@link #NONE} where it is not there. */
        int place(int slot) {
            for (int i = 0; i < slots.length; i++) {
                if (slots[i] == slot) {
                    return i;
                }
            }
            return NONE;
        }
    }

    /** The sounds of parts, a column each; -1 for values that are not set. */
    static final class SoundColumns {
        /** Bank 0 and 32, program, volume and pan: in the order in which they are sent. */
        static final int VALUES = 5;

        final int[] destination;
        final int[] instrument;

        /** {@link #VALUES} for each sound. */
        final int[] values;

        SoundColumns(int count) {
            destination = new int[count];
            instrument = new int[count];
            values = new int[count * VALUES];
        }
    }
}
