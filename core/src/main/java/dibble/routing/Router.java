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
 * channel and an incoming key. Each key has a chain of the notes that it holds, in the order in which they sounded. What
 * pedals and wheels owe is kept by {@link Debts}.
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
    private final Debts debts = new Debts();

    /** By voice and channel: whether a wheel's payment waits for a note or a pedal to end. */
    private boolean[] waiting = {};

    private int[] payers = {};
    private int payerCount;

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
        payAllDue(stamp);
    }

    /** Makes room for voices 0 to {@code count - 1}. */
    public void openVoices(int count) {
        debts.openVoices(count);
        int old = firstHeld.length;
        if (count > old) {
            waiting = Arrays.copyOf(waiting, count * 16);
            payers = Arrays.copyOf(payers, count * 16);
            firstHeld = Arrays.copyOf(firstHeld, count);
            for (int voice = old; voice < count; voice++) {
                firstHeld[voice] = new int[16 * 128];
                Arrays.fill(firstHeld[voice], NONE);
            }
        }
    }

    private void openPorts(int count) {
        debts.openPorts(count);
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
            payDue(source, channel, stamp);
            return;
        }
        EventKind kind = EventKind.of(message);
        boolean letIn = isLetIn(source, channel, kind);
        if (starts) {
            if (letIn) {
                noteOn(source, channel, key, ShortMessage.data2(message), stamp);
            }
        } else if (kind == EventKind.KEY_PRESSURE) {
            if (letIn) {
                keyPressure(source, channel, key, ShortMessage.data2(message), stamp);
            }
        } else if (Debts.isPedalUp(message)) {
            pedalUp(source, channel, letIn, message, stamp);
        } else if (letIn) {
            pass(source, channel, kind, message, stamp);
        }
        payDue(source, channel, stamp);
    }

    private boolean isLetIn(int source, int channel, EventKind kind) {
        return (table.listen[source] >>> channel & 1) != 0 && (table.accept[source] & kind.bit()) != 0;
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
            sendOwing(voice, channel, port * 16 + channel, instrument, message, stamp);
        }
    }

    /** Releases all that a voice holds, with the default release velocity, and pays what it owes. */
    public void letGo(int voice, long stamp) {
        for (int i = 0; i < 16 * 128; i++) {
            release(voice, i >>> 7, i & 0x7F, ShortMessage.DEFAULT_RELEASE, stamp);
        }
        findPayers(voice, voice + 1);
        for (int port : table.portOrder) {
            payAll(port, Debts.KINDS, stamp);
        }
    }

    /**
     * Sends the off of every note that is on, by port name, channel and note, and then pays every debt. Afterwards
     * nothing is held and nothing owed.
     */
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
        findPayers(0, firstHeld.length);
        for (int port : table.portOrder) {
            payAll(port, Debts.KINDS, stamp);
        }
        debts.forgetAll();
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

    /** Sends the offs and payments for a port that is about to go; keys that held notes there sound nothing more. */
    public void closePort(int port, long stamp) {
        for (int place = port * 2048; place < Math.min((port + 1) * 2048, sounding.length); place++) {
            stop(place, ShortMessage.DEFAULT_RELEASE, stamp);
        }
        findPayers(0, firstHeld.length);
        payAll(port, Debts.KINDS, stamp);
    }

    /** How many debts of pedals and wheels there are. For tests and for display. */
    public int debtCount() {
        return debts.count();
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
        int list = table.channelLists[source * 16 + channel];
        if (list == 0) {
            return;
        }
        for (int i = list + 1; i <= list + table.cells[list]; i++) {
            int zone = table.cells[i];
            int destination = zoneDestination(zone, channel);
            if (passes(zone, kind, message) && reachedIn[destination] != eventNumber) {
                reachedIn[destination] = eventNumber;
                sendOwing(source, channel, destination, table.zones.instrument[zone], message, stamp);
            }
        }
    }

    private boolean passes(int zone, EventKind kind, int message) {
        ZoneColumns zones = table.zones;
        if ((zones.pass[zone] & kind.bit()) == 0) {
            return false;
        }
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return true;
        }
        int number = ShortMessage.data1(message);
        // Local control and the modes would reconfigure the module.
        return number != 122 && number < 124 && !zones.blocks(zone, number);
    }

    /** Sends a message that zones, or a track, give a destination, and remembers what is owed for it. */
    private void sendOwing(int voice, int channel, int destination, int instrument, int message, long stamp) {
        int kind = Debts.kind(message);
        if (kind >= Debts.FIRST_PEDAL && Debts.isAtRest(message)) {
            debts.end(voice, channel, destination, kind);
            if (debts.pedalOwners(destination, kind) > 0) {
                return;
            }
        }
        boolean taken =
                output.send(stamp, destination >>> 4, ShortMessage.onChannel(message, destination & 0xF), instrument);
        if (kind != Debts.NO_KIND && taken) {
            if (Debts.isAtRest(message)) {
                debts.end(voice, channel, destination, kind);
            } else {
                debts.begin(voice, channel, destination, kind, instrument);
            }
        }
    }

    /** A pedal that goes up goes up wherever it went down, also where zones do not lead it any more. */
    private void pedalUp(int source, int channel, boolean letIn, int message, long stamp) {
        int pedal = Debts.kind(message);
        if (debts.owesAnywhere(source, channel)) {
            if (letIn) {
                markGiven(source, channel, message);
            }
            for (int port : table.portOrder) {
                for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                    if (reachedIn[destination] != eventNumber) {
                        pay(source, channel, destination, pedal, stamp);
                    }
                }
            }
            eventNumber++;
        }
        if (letIn) {
            pass(source, channel, EventKind.CONTROLLERS, message, stamp);
        }
    }

    private void markGiven(int source, int channel, int message) {
        int list = table.channelLists[source * 16 + channel];
        for (int i = list + 1; list != 0 && i <= list + table.cells[list]; i++) {
            if (passes(table.cells[i], EventKind.of(message), message)) {
                reachedIn[zoneDestination(table.cells[i], channel)] = eventNumber;
            }
        }
    }

    /** Ends a debt, where there is one, and sends what puts it right, unless another still holds the pedal down. */
    private void pay(int voice, int channel, int destination, int kind, long stamp) {
        if (!debts.owes(voice, channel, destination, kind)) {
            return;
        }
        int instrument = debts.instrument(voice, channel, destination, kind);
        debts.end(voice, channel, destination, kind);
        if (kind < Debts.FIRST_PEDAL || debts.pedalOwners(destination, kind) == 0) {
            output.send(stamp, destination >>> 4, Debts.payment(kind, destination & 0xF), instrument);
        }
    }

    /** Finds the voices and channels, {@code voice*16 + channel}, that owe anything. */
    private void findPayers(int fromVoice, int toVoice) {
        payerCount = 0;
        for (int payer = fromVoice * 16; payer < toVoice * 16; payer++) {
            if (debts.owesAnywhere(payer >>> 4, payer & 0xF)) {
                payers[payerCount++] = payer;
            }
        }
    }

    /** Pays what the payers that were found owe to a port: by channel, kind and payer. */
    private void payAll(int port, int kinds, long stamp) {
        for (int destination = port * 16; payerCount > 0 && destination < port * 16 + 16; destination++) {
            for (int kind = 0; kind < kinds; kind++) {
                for (int i = 0; i < payerCount; i++) {
                    pay(payers[i] >>> 4, payers[i] & 0xF, destination, kind, stamp);
                }
            }
        }
    }

    /** Pays the wheels that do not reach any more where they are owed; those that must wait are looked at again. */
    private void payAllDue(long stamp) {
        findPayers(0, firstHeld.length);
        for (int i = 0; i < payerCount; i++) {
            waiting[payers[i]] = false;
        }
        for (int port : table.portOrder) {
            for (int destination = port * 16; payerCount > 0 && destination < port * 16 + 16; destination++) {
                for (int wheel = 0; wheel < Debts.FIRST_PEDAL; wheel++) {
                    for (int i = 0; i < payerCount; i++) {
                        payIfDue(payers[i] >>> 4, payers[i] & 0xF, destination, wheel, stamp);
                    }
                }
            }
        }
    }

    /** The same for one source and channel, after an event of it, where something waits. */
    private void payDue(int source, int channel, long stamp) {
        if (!waiting[source * 16 + channel]) {
            return;
        }
        waiting[source * 16 + channel] = false;
        for (int port : table.portOrder) {
            for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                for (int wheel = 0; wheel < Debts.FIRST_PEDAL; wheel++) {
                    payIfDue(source, channel, destination, wheel, stamp);
                }
            }
        }
    }

    private void payIfDue(int source, int channel, int destination, int wheel, long stamp) {
        if (!debts.owes(source, channel, destination, wheel)
                || reaches(source, channel, destination, Debts.payment(wheel, channel))) {
            return;
        }
        if (debts.owesPedal(source, channel, destination) || holdsNoteAt(source, channel, destination)) {
            waiting[source * 16 + channel] = true;
        } else {
            pay(source, channel, destination, wheel, stamp);
        }
    }

    /** Whether a message of this kind, sent now, would get there through zones. */
    private boolean reaches(int source, int channel, int destination, int message) {
        EventKind kind = EventKind.of(message);
        // A voice that is no source of the session plays tracks, which always reach where they go.
        if (!table.isSource[source]) {
            return true;
        }
        if (!isLetIn(source, channel, kind)) {
            return false;
        }
        int list = table.channelLists[source * 16 + channel];
        for (int i = list + 1; list != 0 && i <= list + table.cells[list]; i++) {
            int zone = table.cells[i];
            if (zoneDestination(zone, channel) == destination && passes(zone, kind, message)) {
                return true;
            }
        }
        return false;
    }

    private boolean holdsNoteAt(int source, int channel, int destination) {
        for (int key = 0; key < 128; key++) {
            for (int node = firstHeld[source][channel << 7 | key]; node != NONE; node = nextNode[node]) {
                if (nodePlace[node] >>> 7 == destination) {
                    return true;
                }
            }
        }
        return false;
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
