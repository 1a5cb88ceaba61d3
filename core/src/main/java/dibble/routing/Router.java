package dibble.routing;

import dibble.midi.EventKind;
import dibble.midi.ShortMessage;
import dibble.routing.RoutingTable.ZoneColumns;
import java.util.Arrays;

/**
 * Runs a {@link RoutingTable}: decides for each event what leaves, in which order, and remembers what is held.
 *
 * <p>For every (port, channel, note) what leaves alternates strictly between on and off, and an off goes where its on
 * went, whatever table is in force by then. Belongs to one thread at a time; allocates nothing on the way of an event,
 * except that the store of held notes doubles when more are held than ever before.
 *
 * <p>What holds a note is a <em>key</em>: a voice (a source that is played live, or a track that is played back), a
 * channel and an incoming key. Each key has a chain of the notes that it holds, in the order in which they sounded.
 */
public final class Router {
    private static final int NONE = -1;
    private static final int FIRST_NODES = 4096;

    private final RouterOutput output;
    private RoutingTable table = RoutingTable.empty();

    /** First and last node of each key's chain, by voice and then by {@code channel*128 + key}. */
    private int[][] firstHeld = {};

    private int[] nextNode = new int[FIRST_NODES];
    private int[] nodePlace = new int[FIRST_NODES];
    private boolean[] nodePressure = new boolean[FIRST_NODES];
    private int freeNode = NONE;

    /** By place, {@code (port*16 + channel)*128 + note}: keys that hold it, whether it sounds, and for whom. */
    private int[] holders = {};

    private boolean[] sounding = {};
    private int[] soundingFor = {};

    /** What the present event sounds, one entry a place; {@code seen} finds the entry of a place. */
    private int[] outPlace = new int[16];

    private int[] outVelocity = new int[16];
    private int[] outInstrument = new int[16];
    private boolean[] outPressure = new boolean[16];
    private int outCount;
    private int[] seenIn = {};
    private int[] seenAt = {};
    private int[] reachedIn = {};
    private int eventNumber;

    public Router(RouterOutput output) {
        this.output = output;
        addNodes(0);
    }

    /**
     * Puts a table in force. Held notes stay where they are; sources that are gone or no longer heard let go.
     *
     * @param stamp the time stamp of what this makes leave
     */
    public void install(RoutingTable next, long stamp) {
        RoutingTable before = table;
        openVoices(next.sourceCount);
        openPorts(next.portCount);
        if (next.mostOutputs > outPlace.length) {
            outPlace = new int[next.mostOutputs];
            outVelocity = new int[next.mostOutputs];
            outInstrument = new int[next.mostOutputs];
            outPressure = new boolean[next.mostOutputs];
        }
        table = next;
        for (int source = 0; source < before.sourceCount; source++) {
            if (before.live[source] && !next.live[source]) {
                letGo(source, stamp);
            }
        }
    }

    /** Makes room for voices 0 to {@code count - 1}. */
    public void openVoices(int count) {
        int old = firstHeld.length;
        if (count > old) {
            firstHeld = Arrays.copyOf(firstHeld, count);
            for (int voice = old; voice < count; voice++) {
                firstHeld[voice] = new int[16 * 128];
                Arrays.fill(firstHeld[voice], NONE);
            }
        }
    }

    private void openPorts(int count) {
        int places = count * 16 * 128;
        if (places > holders.length) {
            holders = Arrays.copyOf(holders, places);
            sounding = Arrays.copyOf(sounding, places);
            soundingFor = Arrays.copyOf(soundingFor, places);
            seenIn = Arrays.copyOf(seenIn, places);
            seenAt = Arrays.copyOf(seenAt, places);
            reachedIn = Arrays.copyOf(reachedIn, count * 16);
        }
    }

    /**
     * Decides an event of a source. A source that the table does not know sounds nothing.
     *
     * @param source the source's slot, which is its voice too
     * @param message a packed channel message
     */
    public void event(int source, int message, long stamp) {
        if (source >= table.sourceCount) {
            return;
        }
        eventNumber++;
        int channel = ShortMessage.channel(message);
        int key = ShortMessage.data1(message);
        boolean starts = ShortMessage.startsNote(message);
        if (starts) {
            release(source, channel, key, ShortMessage.DEFAULT_RELEASE, stamp);
        } else if (ShortMessage.endsNote(message)) {
            release(source, channel, key, releaseVelocity(message), stamp);
            return;
        }
        EventKind kind = EventKind.of(message);
        if ((table.listen[source] >>> channel & 1) == 0 || (table.accept[source] & kind.bit()) == 0) {
            return;
        }
        if (starts) {
            noteOn(source, channel, key, ShortMessage.data2(message), stamp);
        } else if (kind == EventKind.KEY_PRESSURE) {
            keyPressure(source, channel, key, ShortMessage.data2(message), stamp);
        } else {
            pass(source, channel, kind, message, stamp);
        }
    }

    /**
     * Plays a message of a recorded track: it goes straight to its destination, and shares alternation with all that
     * sounds there.
     *
     * @param voice the track's voice, made room for by {@link #openVoices}
     * @param message packed, on its outgoing channel
     */
    public void play(int voice, int port, int instrument, int message, long stamp) {
        if (port >= table.portCount) {
            return;
        }
        eventNumber++;
        int channel = ShortMessage.channel(message);
        int note = ShortMessage.data1(message);
        if (ShortMessage.startsNote(message)) {
            release(voice, channel, note, ShortMessage.DEFAULT_RELEASE, stamp);
            outCount = 0;
            add(place(port * 16 + channel, note), ShortMessage.data2(message), instrument, true);
            sound(voice, channel, note, stamp);
        } else if (ShortMessage.endsNote(message)) {
            release(voice, channel, note, releaseVelocity(message), stamp);
        } else {
            output.send(stamp, port, message, instrument);
        }
    }

    /** Releases all that a voice holds, with the default release velocity. */
    public void letGo(int voice, long stamp) {
        for (int i = 0; i < 16 * 128; i++) {
            release(voice, i >>> 7, i & 0x7F, ShortMessage.DEFAULT_RELEASE, stamp);
        }
    }

    /** Sends the off of every note that is on, by port name, channel and note. Afterwards nothing is held. */
    public void close(long stamp) {
        for (int port : table.portOrder) {
            for (int place = port * 2048; place < (port + 1) * 2048; place++) {
                stop(place, ShortMessage.DEFAULT_RELEASE, stamp);
            }
        }
        Arrays.fill(holders, 0);
        for (int[] heads : firstHeld) {
            Arrays.fill(heads, NONE);
        }
        freeNode = NONE;
        addNodes(0);
    }

    /** {@link #close}, then all notes off (123) and all sound off (120) on each channel of each port. */
    public void silence(long stamp) {
        close(stamp);
        for (int port : table.portOrder) {
            for (int channel = 0; channel < 16; channel++) {
                output.send(stamp, port, ShortMessage.controller(channel, 123, 0), 0);
                output.send(stamp, port, ShortMessage.controller(channel, 120, 0), 0);
            }
        }
    }

    /** Sends the offs of all that sounds on a port that is about to go; keys that held notes there hold nothing. */
    public void closePort(int port, long stamp) {
        for (int place = port * 2048; place < Math.min((port + 1) * 2048, sounding.length); place++) {
            stop(place, ShortMessage.DEFAULT_RELEASE, stamp);
        }
    }

    /** How many (port, channel, note) sound now. For tests and for display, not for the way of an event. */
    public int soundingCount() {
        int count = 0;
        for (boolean on : sounding) {
            count += on ? 1 : 0;
        }
        return count;
    }

    private static int releaseVelocity(int message) {
        return ShortMessage.kind(message) == ShortMessage.NOTE_ON
                ? ShortMessage.DEFAULT_RELEASE
                : ShortMessage.data2(message);
    }

    private static int place(int destination, int note) {
        return destination << 7 | note;
    }

    private int zoneDestination(int zone, int channel) {
        int destination = table.zones.destination[zone];
        return (destination & RoutingTable.SAME_CHANNEL) == 0
                ? destination
                : (destination & ~RoutingTable.SAME_CHANNEL) + channel;
    }

    private void noteOn(int source, int channel, int key, int velocity, long stamp) {
        int[] cells = table.cells;
        int list = table.noteLists[(source * 16 + channel) * 128 + key];
        if (list != 0 && cells[list] < 0) {
            list = cells[list + 1 + velocity];
        }
        if (list == 0) {
            return;
        }
        ZoneColumns zones = table.zones;
        outCount = 0;
        for (int i = list + 1; i <= list + cells[list]; i++) {
            int zone = cells[i];
            if (zones.takesVelocity(zone, velocity)) {
                addNotes(zone, source, channel, key, velocity);
            }
        }
        sound(source, channel, key, stamp);
    }

    private void addNotes(int zone, int source, int channel, int key, int velocity) {
        ZoneColumns zones = table.zones;
        int destination = zoneDestination(zone, channel);
        int out = velocityOut(zone, velocity);
        boolean pressure = (zones.pass[zone] & EventKind.KEY_PRESSURE.bit()) != 0;
        byte[][] map = zones.noteMap[zone];
        if (map != null && map[key] != null) {
            for (byte note : map[key]) {
                add(place(destination, note), out, zones.instrument[zone], pressure);
            }
            return;
        }
        int flags = zones.flags[zone];
        if ((flags & ZoneColumns.DROP_UNMAPPED) != 0) {
            return;
        }
        int note = key + table.transpose[source] + zones.transpose[zone];
        if ((flags & ZoneColumns.FOLD) != 0) {
            note = note < 0 ? Math.floorMod(note, 12) : note > 127 ? note - (note - 116) / 12 * 12 : note;
        }
        if (note >= 0 && note <= 127) {
            add(place(destination, note), out, zones.instrument[zone], pressure);
        }
    }

    private int velocityOut(int zone, int velocity) {
        ZoneColumns zones = table.zones;
        if ((zones.flags[zone] & ZoneColumns.MAP_VELOCITY) == 0) {
            return velocity;
        }
        int a = zones.velocityLow[zone];
        int b = zones.velocityHigh[zone];
        int c = zones.velocityFirst[zone];
        int d = zones.velocityLast[zone];
        int out = a == b ? c : c + Math.floorDiv(2 * (velocity - a) * (d - c) + (b - a), 2 * (b - a));
        return Math.max(1, Math.min(127, out));
    }

    /** Adds a note to the present event's; the same note at the same place is one, with the highest velocity. */
    private void add(int place, int velocity, int instrument, boolean pressure) {
        if (seenIn[place] == eventNumber) {
            int at = seenAt[place];
            outVelocity[at] = Math.max(outVelocity[at], velocity);
            outPressure[at] |= pressure;
            return;
        }
        seenIn[place] = eventNumber;
        seenAt[place] = outCount;
        outPlace[outCount] = place;
        outVelocity[outCount] = velocity;
        outInstrument[outCount] = instrument;
        outPressure[outCount] = pressure;
        outCount++;
    }

    /** Sends the present event's notes, first the offs of those that are triggered again, and has the key hold them. */
    private void sound(int voice, int channel, int key, long stamp) {
        for (int i = 0; i < outCount; i++) {
            stop(outPlace[i], ShortMessage.DEFAULT_RELEASE, stamp);
        }
        int last = NONE;
        for (int i = 0; i < outCount; i++) {
            int place = outPlace[i];
            int destination = place >>> 7;
            sounding[place] = output.send(
                    stamp,
                    destination >>> 4,
                    ShortMessage.noteOn(destination & 0xF, place & 0x7F, outVelocity[i]),
                    outInstrument[i]);
            soundingFor[place] = outInstrument[i];
            holders[place]++;
            int node = takeNode();
            nodePlace[node] = place;
            nodePressure[node] = outPressure[i];
            nextNode[node] = NONE;
            if (last == NONE) {
                firstHeld[voice][channel << 7 | key] = node;
            } else {
                nextNode[last] = node;
            }
            last = node;
        }
    }

    private void release(int voice, int channel, int key, int velocity, long stamp) {
        int at = channel << 7 | key;
        int node = firstHeld[voice][at];
        if (node == NONE) {
            return;
        }
        firstHeld[voice][at] = NONE;
        while (node != NONE) {
            int place = nodePlace[node];
            if (--holders[place] == 0) {
                stop(place, velocity, stamp);
            }
            int next = nextNode[node];
            nextNode[node] = freeNode;
            freeNode = node;
            node = next;
        }
    }

    private void stop(int place, int velocity, long stamp) {
        if (sounding[place]) {
            sounding[place] = false;
            int destination = place >>> 7;
            output.send(
                    stamp,
                    destination >>> 4,
                    ShortMessage.noteOff(destination & 0xF, place & 0x7F, velocity),
                    soundingFor[place]);
        }
    }

    private void keyPressure(int source, int channel, int key, int value, long stamp) {
        for (int node = firstHeld[source][channel << 7 | key]; node != NONE; node = nextNode[node]) {
            int place = nodePlace[node];
            if (nodePressure[node] && sounding[place]) {
                int destination = place >>> 7;
                output.send(
                        stamp,
                        destination >>> 4,
                        ShortMessage.of(ShortMessage.KEY_PRESSURE, destination & 0xF, place & 0x7F, value),
                        soundingFor[place]);
            }
        }
    }

    private void pass(int source, int channel, EventKind kind, int message, long stamp) {
        boolean controller = ShortMessage.kind(message) == ShortMessage.CONTROLLER;
        int number = ShortMessage.data1(message);
        if (controller && (number == 122 || number >= 124)) {
            // Local control and the modes would reconfigure the module.
            return;
        }
        int list = table.channelLists[source * 16 + channel];
        if (list == 0) {
            return;
        }
        ZoneColumns zones = table.zones;
        for (int i = list + 1; i <= list + table.cells[list]; i++) {
            int zone = table.cells[i];
            int destination = zoneDestination(zone, channel);
            if ((zones.pass[zone] & kind.bit()) != 0
                    && !(controller && zones.blocks(zone, number))
                    && reachedIn[destination] != eventNumber) {
                reachedIn[destination] = eventNumber;
                output.send(
                        stamp,
                        destination >>> 4,
                        ShortMessage.onChannel(message, destination & 0xF),
                        zones.instrument[zone]);
            }
        }
    }

    private int takeNode() {
        if (freeNode == NONE) {
            int old = nextNode.length;
            nextNode = Arrays.copyOf(nextNode, old * 2);
            nodePlace = Arrays.copyOf(nodePlace, old * 2);
            nodePressure = Arrays.copyOf(nodePressure, old * 2);
            addNodes(old);
        }
        int node = freeNode;
        freeNode = nextNode[node];
        return node;
    }

    private void addNodes(int from) {
        for (int node = nextNode.length - 1; node >= from; node--) {
            nextNode[node] = freeNode;
            freeNode = node;
        }
    }
}
