package dibble.routing;

import dibble.midi.EventKind;
import dibble.midi.JoinedValues;
import dibble.midi.Parameter;
import dibble.midi.Rest;
import dibble.midi.ShortMessage;
import java.util.Arrays;

/**
 * Runs a {@link RoutingTable}: decides for each event what leaves, in which order, and remembers what is held and owed.
 *
 * <p>Belongs to one thread at a time; allocates nothing on the way of an event, except that the store of held notes
 * doubles when more are held than ever before. What is held is kept by {@link HeldNotes}, what pedals and wheels owe by
 * {@link Debts}, what sends of control maps did by {@link SendStates}; all of it outlives tables.
 */
public final class Router {
    private static final int NONE = -1;

    private final Outlet outlet;
    private final HeldNotes notes;
    private final Parameters parameters = new Parameters();

    /** What sources said before, by source and channel. */
    private final JoinedValues heard = new JoinedValues();

    private final Debts debts = new Debts();
    private final SendStates sends = new SendStates(debts);
    private RoutingTable table = RoutingTable.empty();
    private boolean givesSounds;

    /** What the present event sounds through zones, one entry a place; {@code seenIn} and {@code seenAt} find it. */
    private int[] outPlace = new int[16];

    private int[] outVelocity = new int[16];
    private int[] outInstrument = new int[16];
    private boolean[] outPressure = new boolean[16];
    private int outCount;
    private int[] seenIn = {};
    private int[] seenAt = {};
    private int[] reachedIn = {};
    private int eventNumber;

    /** The sends that the present event makes, with their values, and the scene that one of them calls. */
    private int[] outSend = new int[16];

    private int[] outValue = new int[16];
    private int sendCount;
    private int calledScene;

    /** By voice and channel: whether a wheel's payment waits for a note or a pedal to end. */
    private boolean[] waiting = {};

    /** Who pays in a round of payments: voices with their channels, and sends. */
    private int[] payers = {};

    private int payerCount;
    private int[] leavers = {};

    /** For each of the leavers: the send of the table now in force that goes on where that still leads, or none. */
    private int[] goingOn = {};

    private int leaverCount;
    private int[] returning = {};

    /** @param output takes what is sent, on the thread that brings an event */
    public Router(RouterOutput output) {
        outlet = new Outlet(output, parameters);
        notes = new HeldNotes(outlet);
    }

    /** Has scenes give parts the sounds that they list, when one of them becomes active. Off unless asked for. */
    public void giveSounds() {
        givesSounds = true;
    }

    /**
     * Puts a table in force, and the scene that it is of. Held notes stay where they are; sources that are gone or no
     * longer heard let go.
     *
     * @param stamp the time stamp of what this makes leave
     */
    public void install(RoutingTable next, long stamp) {
        open(next);
        for (RoutingTable scene : next.scenes.tables) {
            if (scene != null) {
                open(scene);
            }
        }
        activate(next, stamp);
    }

    /** Puts a table in force, but stays in the scene that is active, where the new table has it. */
    public void replace(RoutingTable next, long stamp) {
        int place = next.scenes.place(table.sceneSlot());
        boolean stays = place != NONE && next.scenes.tables[place] != null;
        install(stays ? next.scenes.tables[place] : next, stamp);
    }

    /** The slot of the active scene, or -1 where there is none. */
    public int scene() {
        return table.sceneSlot();
    }

    private void open(RoutingTable next) {
        openVoices(next.sources.count);
        debts.openPorts(next.portCount);
        notes.openPorts(next.portCount);
        outlet.openPorts(next.portCount);
        sends.open(next.controls.sendOfSlot.length, next.portCount);
        int places = next.portCount * 16 * 128;
        if (places > seenIn.length) {
            seenIn = Arrays.copyOf(seenIn, places);
            seenAt = Arrays.copyOf(seenAt, places);
            reachedIn = Arrays.copyOf(reachedIn, next.portCount * 16);
        }
        if (next.mostNotes > outPlace.length) {
            outPlace = new int[next.mostNotes];
            outVelocity = new int[next.mostNotes];
            outInstrument = new int[next.mostNotes];
            outPressure = new boolean[next.mostNotes];
        }
        if (next.mostSends > outSend.length) {
            outSend = new int[next.mostSends];
            outValue = new int[next.mostSends];
        }
        if (sends.count() > leavers.length) {
            leavers = new int[sends.count()];
            goingOn = new int[sends.count()];
            returning = new int[sends.count()];
        }
    }

    /** Makes room for voices 0 to {@code count - 1}. */
    public void openVoices(int count) {
        debts.openVoices(count);
        parameters.openVoices(count);
        heard.open(count * 16);
        notes.openVoices(count);
        if (count * 16 > waiting.length) {
            waiting = Arrays.copyOf(waiting, count * 16);
            payers = Arrays.copyOf(payers, count * 16);
        }
    }

    private void activate(RoutingTable next, long stamp) {
        RoutingTable before = table;
        table = next;
        if (before.sources != next.sources) {
            for (int source = 0; source < before.sources.count; source++) {
                if (before.sources.live[source] && !next.sources.isLive(source)) {
                    letGo(source, stamp);
                }
            }
        }
        findLeavingSends(before, stamp);
        findPayers(0, notes.voices());
        for (int i = 0; i < payerCount; i++) {
            waiting[payers[i]] = false;
        }
        for (int port : table.portOrder) {
            pay(port, false, stamp);
        }
        returnControllers(before, stamp);
        if (givesSounds && before.sceneSlot() != next.sceneSlot() && before.scene != NONE) {
            giveSceneSounds(stamp);
        }
    }

    /** Gives the parts that the active scene lists the sounds that they do not have already. */
    public void giveSceneSounds(long stamp) {
        if (table.scene != NONE) {
            outlet.sendSounds(table.scenes.sounds[table.scene], stamp);
        }
    }

    /**
     * Decides an event of a source. A source that the table does not know sounds nothing.
     *
     * @param source the source's slot, which is its voice too
     * @param message a packed channel message
     */
    public void event(int source, int message, long stamp) {
        if (source >= table.sources.count) {
            return;
        }
        int channel = ShortMessage.channel(message);
        if (ShortMessage.isNote(message) && table.controlList(source, message) == 0) {
            boolean ends = end(source, message, stamp);
            if (!ends) {
                payDue(source, channel, stamp);
            }
            if (!ends && table.letsIn(source, channel, EventKind.NOTES)) {
                noteOn(source, channel, ShortMessage.data1(message), ShortMessage.data2(message), stamp);
            }
        } else {
            decide(source, channel, message, stamp);
        }
        payDue(source, channel, stamp);
    }

    /** Decides all events but those of keys to which no control map answers. */
    private void decide(int source, int channel, int message, long stamp) {
        eventNumber++;
        boolean ends = end(source, message, stamp);
        if (ShortMessage.startsNote(message)) {
            payDue(source, channel, stamp);
        }
        EventKind kind = EventKind.of(message);
        boolean letIn = table.letsIn(source, channel, kind);
        if (letIn) {
            heard.take(source * 16 + channel, message);
        }
        int called = letIn ? table.calledScene(source, message) : NONE;
        int controls = letIn && called == NONE ? table.controlList(source, message) : 0;
        boolean goesOn = letIn && called == NONE && !table.isTaken(controls, heard.choice(source * 16 + channel));
        if (Debts.isPedalUp(message)) {
            payElsewhere(source, channel, goesOn, message, stamp);
        }
        if (called != NONE) {
            callScene(called, stamp);
        } else if (letIn) {
            boolean starts = ShortMessage.startsNote(message);
            outCount = 0;
            if (goesOn && starts) {
                gatherNotes(source, channel, ShortMessage.data1(message), ShortMessage.data2(message));
            }
            if (controls != 0) {
                gatherSends(controls, source, message, ends);
                stopTriggeredBySends(channel, stamp);
            }
            stopTriggered(stamp);
            if (controls != 0) {
                makeSends(channel, stamp);
            }
            if (goesOn) {
                if (starts) {
                    sound(source, channel, ShortMessage.data1(message), stamp);
                } else if (kind == EventKind.KEY_PRESSURE) {
                    notes.press(source, channel, ShortMessage.data1(message), ShortMessage.data2(message), stamp);
                } else if (!ends) {
                    pass(source, channel, kind, message, stamp);
                }
            }
            if (controls != 0 && calledScene != NONE) {
                callScene(calledScene, stamp);
            }
        }
    }

    /** Whether a message can only end what was begun: a note-off, or a pedal that comes up. */
    public static boolean onlyEnds(int message) {
        return ShortMessage.endsNote(message) || Debts.isPedalUp(message);
    }

    /** Releases what a note-on or note-off ends; whether it is a note-off. */
    private boolean end(int voice, int message, long stamp) {
        if (!ShortMessage.isNote(message)) {
            return false;
        }
        int velocity = ShortMessage.data2(message);
        boolean isOn = ShortMessage.kind(message) == ShortMessage.NOTE_ON;
        notes.release(
                voice,
                ShortMessage.channel(message),
                ShortMessage.data1(message),
                isOn ? ShortMessage.DEFAULT_RELEASE : velocity,
                stamp);
        return !isOn || velocity == 0;
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
        boolean ends = end(voice, message, stamp);
        if (ShortMessage.startsNote(message)) {
            outCount = 0;
            int place = HeldNotes.place(port * 16 + channel, note);
            add(place, ShortMessage.data2(message), instrument, true);
            sound(voice, channel, note, stamp);
        } else if (!ends) {
            sendOwing(voice, channel, port * 16 + channel, instrument, message, stamp);
        }
    }

    /** Gives a channel of a port a message of a part's sound. */
    public void giveSound(int port, int instrument, int message, long stamp) {
        if (port < table.portCount) {
            outlet.send(stamp, port * 16 + ShortMessage.channel(message), message, instrument);
        }
    }

    /** Releases all that a voice holds, with the default release velocity, and pays what it owes. */
    public void letGo(int voice, long stamp) {
        if (voice >= notes.voices()) {
            return;
        }
        for (int i = 0; i < 16 * 128; i++) {
            notes.release(voice, i >>> 7, i & 0x7F, ShortMessage.DEFAULT_RELEASE, stamp);
        }
        leaverCount = 0;
        for (int slot = 0; slot < sends.count(); slot++) {
            if (sends.driver(slot) == voice) {
                addLeaver(slot, NONE, stamp);
            }
        }
        findPayers(voice, voice + 1);
        for (int port : table.portOrder) {
            pay(port, true, stamp);
        }
        for (int i = 0; i < leaverCount; i++) {
            sends.forgetLast(leavers[i]);
        }
        leaverCount = 0;
    }

    /**
     * Sends the off of every note that is on, by port name, channel and note, and then pays every debt. Afterwards
     * nothing is held and nothing owed.
     */
    public void close(long stamp) {
        for (int port : table.portOrder) {
            notes.stopPort(port, stamp);
        }
        notes.forgetAll();
        findAllPayers();
        for (int port : table.portOrder) {
            pay(port, true, stamp);
        }
        leaverCount = 0;
        debts.forgetAll();
        sends.forgetDebts();
    }

    /** {@link #close}, then all notes off (123) and all sound off (120) on each channel of each port. */
    public void silence(long stamp) {
        close(stamp);
        for (int port : table.portOrder) {
            quiet(port, 0xFFFF, stamp);
        }
    }

    private void quiet(int port, int channels, long stamp) {
        for (int channel = 0; channel < 16; channel++) {
            if ((channels >>> channel & 1) != 0) {
                outlet.send(stamp, port * 16 + channel, ShortMessage.controller(channel, 123, 0), 0);
                outlet.send(stamp, port * 16 + channel, ShortMessage.controller(channel, 120, 0), 0);
            }
        }
    }

    /** Sends the offs and payments for a port that is about to go, and forgets it. */
    public void closePort(int port, long stamp) {
        if (port < table.portCount) {
            notes.stopPort(port, stamp);
            findAllPayers();
            pay(port, true, stamp);
            leaverCount = 0;
            forgetPort(port);
        }
    }

    /** Forgets notes and debts of a port that is gone: nothing can be sent there. */
    public void forgetPort(int port) {
        if (port < table.portCount) {
            notes.forgetPort(port);
            debts.forgetPort(port);
            sends.forgetPort(port);
            outlet.forgetPort(port);
        }
    }

    /** Sends 123 and 120 to the channels that were in use, when a port is back. */
    public void reopenPort(int port, long stamp) {
        if (port < table.portCount) {
            quiet(port, outlet.usedChannels(port), stamp);
        }
    }

    /** How many debts of pedals and wheels there are. For tests and for display. */
    public int debtCount() {
        return debts.count() + sends.debtCount();
    }

    /** How many (port, channel, note) sound now. For tests and for display, not for the way of an event. */
    public int soundingCount() {
        return notes.soundingCount();
    }

    private void callScene(int place, long stamp) {
        RoutingTable next = table.scenes.tables[place];
        if (place != table.scene && next != null) {
            activate(next, stamp);
            outlet.sceneCalled(stamp, next.sceneSlot());
        }
    }

    /** A key to which no control map answers: most events there are. */
    private void noteOn(int source, int channel, int key, int velocity, long stamp) {
        int list = table.noteList(source, channel, key, velocity);
        if (list == 0) {
            return;
        }
        int zone = table.cells[list + 1];
        if (table.cells[list] > 1 || table.noteCount(zone, key) > 1) {
            eventNumber++;
            outCount = 0;
            gatherNotes(source, channel, key, velocity);
            stopTriggered(stamp);
            sound(source, channel, key, stamp);
        } else if (table.zones.takesVelocity(zone, velocity) && table.noteCount(zone, key) == 1) {
            int note = table.note(zone, source, key, 0);
            if (note != NONE) {
                int place = HeldNotes.place(table.destination(zone, channel), note);
                notes.sound(place, table.velocity(zone, velocity), table.zones.instrument(zone), stamp);
                notes.begin();
                notes.hold(source, channel, key, place, table.passesKeyPressure(zone));
            }
        }
    }

    private void gatherNotes(int source, int channel, int key, int velocity) {
        int list = table.noteList(source, channel, key, velocity);
        if (list == 0) {
            return;
        }
        int[] cells = table.cells;
        for (int i = list + 1; i <= list + cells[list]; i++) {
            int zone = cells[i];
            if (table.zones.takesVelocity(zone, velocity)) {
                int count = table.noteCount(zone, key);
                for (int n = 0; n < count; n++) {
                    int note = table.note(zone, source, key, n);
                    if (note != NONE) {
                        add(
                                HeldNotes.place(table.destination(zone, channel), note),
                                table.velocity(zone, velocity),
                                table.zones.instrument(zone),
                                table.passesKeyPressure(zone));
                    }
                }
            }
        }
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

    private void stopTriggered(long stamp) {
        for (int i = 0; i < outCount; i++) {
            notes.stop(outPlace[i], ShortMessage.DEFAULT_RELEASE, stamp);
        }
    }

    /** Sends the present event's notes and has the key hold them. */
    private void sound(int voice, int channel, int key, long stamp) {
        notes.begin();
        for (int i = 0; i < outCount; i++) {
            notes.sound(outPlace[i], outVelocity[i], outInstrument[i], stamp);
            notes.hold(voice, channel, key, outPlace[i], outPressure[i]);
        }
    }

    /** Finds what the sends of matching control maps have to say to an event, each by its last output and its note. */
    private void gatherSends(int list, int source, int message, boolean ends) {
        ControlColumns controls = table.controls;
        int way = source * 16 + ShortMessage.channel(message);
        int choice = heard.choice(way);
        int parameter = heard.parameter(way, message);
        int pair = heard.pair(way, message);
        sendCount = 0;
        calledScene = NONE;
        for (int i = list + 1; i <= list + table.cells[list]; i++) {
            int map = table.cells[i];
            int value = controls.value(map, message, choice, parameter, pair);
            for (int s = controls.firstSend[map];
                    value != ControlColumns.NOTHING && s < controls.firstSend[map + 1];
                    s++) {
                boolean callsScene = controls.send[s].kind() == ControlKind.SCENE;
                if (table.sources.live[source] || callsScene) {
                    gatherSend(s, value, ends, source, callsScene);
                }
            }
        }
    }

    private void gatherSend(int s, int value, boolean ends, int source, boolean callsScene) {
        ControlColumns controls = table.controls;
        int output = controls.output(s, value, ends);
        int slot = controls.slot[s];
        int last = sends.last(slot);
        boolean isClamped = !ends && !controls.isInside(s, value);
        if (output == ControlColumns.NOTHING || isClamped && output == last) {
            return;
        }
        sends.put(slot, output, source);
        if (callsScene) {
            if (output > 0 && last <= 0) {
                calledScene = sceneOf(controls.scene[s]);
            }
            return;
        }
        boolean isNote = controls.send[s].kind() == ControlKind.NOTE;
        if (!isNote || output > 0 == (sends.held(slot) == NONE)) {
            outSend[sendCount] = s;
            outValue[sendCount++] = output;
        }
    }

    /** The scene that a send calls, seen from the one that is active or called already; none beyond the ends. */
    private int sceneOf(int called) {
        int from = calledScene != NONE ? calledScene : table.scene;
        return switch (called) {
            case ControlColumns.NEXT_SCENE -> from + 1 < table.scenes.slots.length ? from + 1 : calledScene;
            case ControlColumns.PREVIOUS_SCENE -> from > 0 ? from - 1 : calledScene;
            case ControlColumns.NO_SCENE -> calledScene;
            default -> called;
        };
    }

    private void stopTriggeredBySends(int channel, long stamp) {
        for (int i = 0; i < sendCount; i++) {
            if (table.controls.send[outSend[i]].kind() == ControlKind.NOTE && outValue[i] > 0) {
                int place = sendPlace(outSend[i], channel);
                if (place != NONE) {
                    notes.stop(place, ShortMessage.DEFAULT_RELEASE, stamp);
                }
            }
        }
    }

    /** The place where a send of notes sounds, or none where it leads nowhere. */
    private int sendPlace(int s, int channel) {
        ControlColumns controls = table.controls;
        int aim = controls.firstAim[s];
        return aim == controls.firstAim[s + 1]
                ? NONE
                : HeldNotes.place(
                        RoutingTable.onChannel(controls.destination[aim], channel), controls.send[s].number());
    }

    private void makeSends(int channel, long stamp) {
        for (int i = 0; i < sendCount; i++) {
            int s = outSend[i];
            if (table.controls.send[s].kind() == ControlKind.NOTE) {
                sendNote(s, outValue[i], channel, stamp);
            } else {
                sendMessage(s, outValue[i], channel, stamp);
            }
        }
    }

    private void sendNote(int s, int value, int channel, long stamp) {
        int slot = table.controls.slot[s];
        if (value == 0) {
            notes.unhold(sends.held(slot), ShortMessage.DEFAULT_RELEASE, stamp);
            sends.hold(slot, NONE);
            return;
        }
        int place = sendPlace(s, channel);
        if (place != NONE) {
            notes.sound(place, value, table.controls.instrument[table.controls.firstAim[s]], stamp);
            sends.hold(slot, place);
        }
    }

    private void sendMessage(int s, int value, int channel, long stamp) {
        ControlColumns controls = table.controls;
        int slot = controls.slot[s];
        int message = controls.message(s, value);
        int fine = controls.fine(s, value);
        int choice = controls.parameter(s);
        int kind = Debts.kind(message);
        boolean rests = kind != Debts.NO_KIND && Rest.isAtRest(message);
        for (int aim = controls.firstAim[s]; aim < controls.firstAim[s + 1]; aim++) {
            int destination = RoutingTable.onChannel(controls.destination[aim], channel);
            if (rests) {
                sends.end(slot, destination, kind);
                if (isHeldDown(destination, kind)) {
                    continue;
                }
            }
            int instrument = controls.instrument[aim];
            if (choice != Parameter.NOTHING && !parameters.isTold(destination, choice)) {
                choose(choice, destination, instrument, stamp);
            }
            if (outlet.send(stamp, destination, message, instrument)) {
                if (fine != 0) {
                    outlet.send(stamp, destination, fine, instrument);
                }
                if (kind != Debts.NO_KIND && !rests) {
                    sends.begin(slot, destination, kind, instrument);
                }
                if (controls.send[s].kind() == ControlKind.CONTROLLER) {
                    sends.move(slot, destination);
                }
            }
        }
    }

    /** Whether this is a pedal, and somebody holds it down there. */
    private boolean isHeldDown(int destination, int kind) {
        return kind >= Debts.FIRST_PEDAL && debts.pedalOwners(destination, kind) > 0;
    }

    private void pass(int source, int channel, EventKind kind, int message, long stamp) {
        int list = table.channelLists[source * 16 + channel];
        if (list == 0) {
            return;
        }
        for (int i = list + 1; i <= list + table.cells[list]; i++) {
            int zone = table.cells[i];
            int destination = table.destination(zone, channel);
            if (reachedIn[destination] != eventNumber && table.passes(zone, kind, message)) {
                reachedIn[destination] = eventNumber;
                sendOwing(source, channel, destination, table.zones.instrument(zone), message, stamp);
            }
        }
    }

    /** Sends a message that zones, or a track, give a destination, and remembers what is owed for it. */
    private void sendOwing(int voice, int channel, int destination, int instrument, int message, long stamp) {
        int kind = Debts.kind(message);
        boolean rests = kind != Debts.NO_KIND && Rest.isAtRest(message);
        if (rests) {
            debts.end(voice, channel, destination, kind);
            if (isHeldDown(destination, kind)) {
                return;
            }
        }
        if (parameters.isCut(voice, channel, destination, message)) {
            chooseAgain(voice, channel, destination, instrument, message, stamp);
        }
        parameters.sent(voice, channel, message);
        if (outlet.send(stamp, destination, message, instrument) && kind != Debts.NO_KIND && !rests) {
            debts.begin(voice, channel, destination, kind, instrument);
        }
    }

    private void choose(int choice, int destination, int instrument, long stamp) {
        outlet.send(stamp, destination, Parameter.choosesCoarse(choice), instrument);
        outlet.send(stamp, destination, Parameter.choosesFine(choice), instrument);
    }

    /** Somebody else has chosen another parameter there: data would become the value of theirs. */
    private void chooseAgain(int voice, int channel, int destination, int instrument, int message, long stamp) {
        choose(parameters.chosen(voice, channel), destination, instrument, stamp);
        int coarse = parameters.coarse(voice, channel);
        if (ShortMessage.data1(message) == Parameter.DATA_FINE && coarse >= 0) {
            outlet.send(stamp, destination, ShortMessage.controller(channel, Parameter.DATA, coarse), instrument);
        }
    }

    /** A pedal that goes up goes up wherever it went down, also where zones do not lead it any more. */
    private void payElsewhere(int source, int channel, boolean goesOn, int message, long stamp) {
        if (!debts.owesAnywhere(source, channel)) {
            return;
        }
        if (goesOn) {
            markGiven(source, channel, message);
        }
        int pedal = Debts.kind(message);
        for (int port : table.portOrder) {
            for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                if (reachedIn[destination] != eventNumber) {
                    pay(source, channel, destination, pedal, stamp);
                }
            }
        }
        // What was marked has not been reached yet.
        eventNumber++;
    }

    private void markGiven(int source, int channel, int message) {
        int list = table.channelLists[source * 16 + channel];
        for (int i = list + 1; list != 0 && i <= list + table.cells[list]; i++) {
            if (table.passes(table.cells[i], EventKind.of(message), message)) {
                reachedIn[table.destination(table.cells[i], channel)] = eventNumber;
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
        if (!isHeldDown(destination, kind)) {
            outlet.send(stamp, destination, Debts.payment(kind), instrument);
        }
    }

    private void paySend(int slot, int destination, int kind, long stamp) {
        if (!sends.owes(slot, destination, kind)) {
            return;
        }
        int instrument = sends.instrument(slot, destination);
        sends.end(slot, destination, kind);
        sends.forgetLast(slot);
        if (!isHeldDown(destination, kind)) {
            outlet.send(stamp, destination, Debts.payment(kind), instrument);
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

    private void findAllPayers() {
        findPayers(0, notes.voices());
        leaverCount = 0;
        for (int slot = 0; slot < sends.count(); slot++) {
            leavers[leaverCount] = slot;
            goingOn[leaverCount++] = NONE;
        }
    }

    /**
     * Pays what the payers and leavers that were found owe to a port: by channel, kind and payer.
     *
     * @param all whether voices pay everything, rather than the wheels that do not reach any more where they are owed
     */
    private void pay(int port, boolean all, long stamp) {
        if (payerCount == 0 && leaverCount == 0) {
            return;
        }
        for (int destination = port * 16; destination < port * 16 + 16; destination++) {
            for (int kind = 0; kind < Debts.KINDS; kind++) {
                for (int i = 0; i < payerCount; i++) {
                    if (all) {
                        pay(payers[i] >>> 4, payers[i] & 0xF, destination, kind, stamp);
                    } else if (kind < Debts.FIRST_PEDAL) {
                        payIfDue(payers[i] >>> 4, payers[i] & 0xF, destination, kind, stamp);
                    }
                }
                for (int i = 0; i < leaverCount; i++) {
                    if (leaves(i, destination)) {
                        paySend(leavers[i], destination, kind, stamp);
                    }
                }
            }
        }
    }

    /** Pays the wheels of one source and channel, after an event of it, where something waits. */
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

    /** Pays a wheel that does not reach any more where it is owed; if it must wait, it is looked at again. */
    private void payIfDue(int source, int channel, int destination, int wheel, long stamp) {
        if (!debts.owes(source, channel, destination, wheel)
                || reaches(source, channel, destination, Debts.payment(wheel) | channel)) {
            return;
        }
        if (debts.owesPedal(source, channel, destination) || notes.isHeldAt(source, channel, destination)) {
            waiting[source * 16 + channel] = true;
        } else {
            pay(source, channel, destination, wheel, stamp);
        }
    }

    /** Whether a message of this kind, sent now, would get there through zones. */
    private boolean reaches(int source, int channel, int destination, int message) {
        EventKind kind = EventKind.of(message);
        // A voice that is no source of the session plays tracks, which always reach where they go.
        if (source >= table.sources.count || !table.sources.isSource[source]) {
            return true;
        }
        if (!table.letsIn(source, channel, kind)
                || table.isTaken(table.controlList(source, message), heard.choice(source * 16 + channel))) {
            return false;
        }
        int list = table.channelLists[source * 16 + channel];
        for (int i = list + 1; list != 0 && i <= list + table.cells[list]; i++) {
            int zone = table.cells[i];
            if (table.destination(zone, channel) == destination && table.passes(zone, kind, message)) {
                return true;
            }
        }
        return false;
    }

    /** Finds the sends that no longer hold, or lead elsewhere now, and releases the notes of those that do not hold. */
    private void findLeavingSends(RoutingTable before, long stamp) {
        leaverCount = 0;
        ControlColumns old = before.controls;
        for (int s = 0; s < old.sendCount; s++) {
            boolean held = old.sendOfSlot[old.slot[s]] == s;
            int same = old.sameIn(table.controls, s);
            if (held && (same == NONE || !old.hasSameAims(s, table.controls, same))) {
                addLeaver(old.slot[s], same, stamp);
            }
        }
    }

    private void addLeaver(int slot, int same, long stamp) {
        leavers[leaverCount] = slot;
        goingOn[leaverCount++] = same;
        int place = sends.held(slot);
        if (same == NONE && place != NONE) {
            sends.hold(slot, NONE);
            notes.unhold(place, ShortMessage.DEFAULT_RELEASE, stamp);
        }
    }

    /** Whether a leaver leaves a destination. */
    private boolean leaves(int leaver, int destination) {
        return goingOn[leaver] == NONE || table.controls.aim(goingOn[leaver], destination) == NONE;
    }

    /** Controllers that leaving sends moved go back, by port, channel and number; then the sends are forgotten. */
    private void returnControllers(RoutingTable before, long stamp) {
        for (int p = 0; p < table.portOrder.length && leaverCount > 0; p++) {
            int port = table.portOrder[p];
            for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                int count = 0;
                for (int i = 0; i < leaverCount; i++) {
                    if (sends.moved(leavers[i], destination) && leaves(i, destination)) {
                        count = insertByNumber(before.controls.sendOfSlot[leavers[i]], count, before.controls);
                    }
                }
                for (int i = 0; i < count; i++) {
                    returnController(before.controls, returning[i], destination, stamp);
                }
            }
        }
        for (int i = 0; i < leaverCount; i++) {
            if (goingOn[i] == NONE) {
                sends.forgetLast(leavers[i]);
            }
        }
        leaverCount = 0;
    }

    private int insertByNumber(int s, int count, ControlColumns controls) {
        int at = count;
        while (at > 0 && controls.send[returning[at - 1]].number() > controls.send[s].number()) {
            returning[at] = returning[at - 1];
            at--;
        }
        returning[at] = s;
        return count + 1;
    }

    private void returnController(ControlColumns old, int s, int destination, long stamp) {
        int aim = old.aim(s, destination);
        int rest = aim == NONE ? ControlColumns.NOTHING : old.rest[aim];
        sends.unmove(old.slot[s], destination);
        if (rest != ControlColumns.NOTHING && sends.last(old.slot[s]) != rest) {
            int message = ShortMessage.controller(0, old.send[s].number(), rest);
            if (!Debts.isPedalUp(message) || !isHeldDown(destination, Debts.kind(message))) {
                outlet.send(stamp, destination, message, old.instrument[aim]);
            }
        }
    }
}
