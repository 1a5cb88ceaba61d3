package dibble.routing;

import dibble.midi.CombinedControllers;
import dibble.midi.EventKind;
import dibble.midi.NeutralValues;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;

/**
 * Executes a {@link RoutingTable}: decides the output of each event and its order, and keeps track of held notes and
 * pending resets.
 *
 * <p>Confined to one thread at a time. Allocates nothing on the path of an event, except that the store of held notes
 * doubles when more are held than ever before. The state is in {@link HeldNotes}, {@link PendingResets} and {@link
 * SendStates}; it outlives tables.
 */
public final class Router {
    private static final int NONE = -1;

    private final OutputStage outlet;
    private final HeldNotes notes;
    private final Parameters parameters = new Parameters();

    /** The previous controllers of sources, by source and channel. */
    private final CombinedControllers heard = new CombinedControllers();

    private final PendingResets debts = new PendingResets();
    private final SendStates sends = new SendStates(debts);
    private final EventMarks marks = new EventMarks();
    private final NoteBatch batch;
    private final ResetSender resets;
    private final ControlSends controlSends;
    private RoutingTable table = RoutingTable.empty();
    private boolean givesSounds;

    /** @param output receives the output, on the thread that delivers an event */
    public Router(RouterOutput output) {
        outlet = new OutputStage(output, parameters);
        notes = new HeldNotes(outlet);
        batch = new NoteBatch(notes);
        resets = new ResetSender(outlet, notes, heard, debts, sends, marks);
        controlSends = new ControlSends(outlet, notes, heard, parameters, debts, sends, resets);
    }

    /** Makes scenes send the sounds of their parts when they become active. Off by default. */
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
        marks.open(next.portCount * 16);
        batch.open(next.mostNotes, next.portCount * 16 * 128);
        resets.openSends(sends.count());
        controlSends.open(next.mostSends, sends.count());
    }

    /** Makes room for voices 0 to {@code count - 1}. */
    public void openVoices(int count) {
        debts.openVoices(count);
        parameters.openVoices(count);
        heard.open(count * 16);
        notes.openVoices(count);
        resets.openVoices(count);
    }

    private void activate(RoutingTable next, long stamp) {
        RoutingTable before = table;
        table = next;
        resets.use(next);
        controlSends.use(next);
        if (before.sources != next.sources) {
            for (int source = 0; source < before.sources.count; source++) {
                if (before.sources.live[source] && !next.sources.isLive(source)) {
                    letGo(source, stamp);
                }
            }
        }
        resets.payAfterTable(before, stamp);
        controlSends.returnControllers(before, stamp);
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
                resets.payDue(source, channel, stamp);
            }
            if (!ends && table.letsIn(source, channel, EventKind.NOTES)) {
                noteOn(source, channel, ShortMessage.data1(message), ShortMessage.data2(message), stamp);
            }
        } else {
            decide(source, channel, message, stamp);
        }
        resets.payDue(source, channel, stamp);
    }

    /** Decides all events but those of keys to which no control map answers. */
    private void decide(int source, int channel, int message, long stamp) {
        marks.begin();
        boolean ends = end(source, message, stamp);
        if (ShortMessage.startsNote(message)) {
            resets.payDue(source, channel, stamp);
        }
        EventKind kind = EventKind.of(message);
        boolean letIn = table.letsIn(source, channel, kind);
        if (letIn) {
            heard.take(source * 16 + channel, message);
        }
        int called = letIn ? table.calledScene(source, message) : NONE;
        int controls = letIn && called == NONE ? table.controlList(source, message) : 0;
        boolean goesOn = letIn && called == NONE && !table.isTaken(controls, heard.choice(source * 16 + channel));
        if (PendingResets.isPedalUp(message)) {
            resets.payElsewhere(source, channel, goesOn, message, stamp);
        }
        if (called != NONE) {
            callScene(called, stamp);
        } else if (letIn) {
            boolean starts = ShortMessage.startsNote(message);
            batch.begin();
            if (goesOn && starts) {
                batch.gather(table, source, channel, ShortMessage.data1(message), ShortMessage.data2(message));
            }
            if (controls != 0) {
                controlSends.gather(controls, source, message, ends);
                controlSends.stopSounding(channel, stamp);
            }
            batch.stopSounding(stamp);
            if (controls != 0) {
                controlSends.send(channel, stamp);
            }
            if (goesOn) {
                if (starts) {
                    batch.sound(source, channel, ShortMessage.data1(message), stamp);
                } else if (kind == EventKind.KEY_PRESSURE) {
                    notes.press(source, channel, ShortMessage.data1(message), ShortMessage.data2(message), stamp);
                } else if (!ends) {
                    pass(source, channel, kind, message, stamp);
                }
            }
            if (controls != 0 && controlSends.calledScene() != NONE) {
                callScene(controlSends.calledScene(), stamp);
            }
        }
    }

    /** Returns true if a message can only end something: a note-off, or a released pedal. */
    public static boolean onlyEnds(int message) {
        return ShortMessage.endsNote(message) || PendingResets.isPedalUp(message);
    }

    /** Releases the note of a note-on or note-off; returns true for a note-off. */
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
        int channel = ShortMessage.channel(message);
        int note = ShortMessage.data1(message);
        boolean ends = end(voice, message, stamp);
        if (ShortMessage.startsNote(message)) {
            batch.begin();
            int place = HeldNotes.place(port * 16 + channel, note);
            batch.add(place, ShortMessage.data2(message), instrument, true);
            batch.sound(voice, channel, note, stamp);
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

    /** Releases all notes of a voice with the default release velocity, and sends its pending resets. */
    public void letGo(int voice, long stamp) {
        if (voice >= notes.voices()) {
            return;
        }
        for (int i = 0; i < 16 * 128; i++) {
            notes.release(voice, i >>> 7, i & 0x7F, ShortMessage.DEFAULT_RELEASE, stamp);
        }
        resets.payAllOf(voice, stamp);
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
        resets.payAll(stamp);
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
            resets.payAllTo(port, stamp);
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

    /** Returns the number of pending resets of pedals and wheels. For tests and display. */
    public int debtCount() {
        return debts.count() + sends.debtCount();
    }

    /**
     * Returns the number of sounding (port, channel, note) places. For tests and display, not for the path of an event.
     */
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
            batch.begin();
            batch.gather(table, source, channel, key, velocity);
            batch.stopSounding(stamp);
            batch.sound(source, channel, key, stamp);
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

    private void pass(int source, int channel, EventKind kind, int message, long stamp) {
        int list = table.channelLists[source * 16 + channel];
        if (list == 0) {
            return;
        }
        for (int i = list + 1; i <= list + table.cells[list]; i++) {
            int zone = table.cells[i];
            int destination = table.destination(zone, channel);
            if (!marks.isMarked(destination) && table.passes(zone, kind, message)) {
                marks.mark(destination);
                sendOwing(source, channel, destination, table.zones.instrument(zone), message, stamp);
            }
        }
    }

    /** Sends a message of zones or a track to a destination, and records its pending reset. */
    private void sendOwing(int voice, int channel, int destination, int instrument, int message, long stamp) {
        int kind = PendingResets.kind(message);
        boolean rests = kind != PendingResets.NO_KIND && NeutralValues.isAtRest(message);
        if (rests) {
            debts.end(voice, channel, destination, kind);
            if (debts.isHeldDown(destination, kind)) {
                return;
            }
        }
        if (parameters.isCut(voice, channel, destination, message)) {
            chooseAgain(voice, channel, destination, instrument, message, stamp);
        }
        parameters.sent(voice, channel, message);
        if (outlet.send(stamp, destination, message, instrument) && kind != PendingResets.NO_KIND && !rests) {
            debts.begin(voice, channel, destination, kind, instrument);
        }
    }

    /** Another source has selected another parameter there: the data would go to that one. */
    private void chooseAgain(int voice, int channel, int destination, int instrument, int message, long stamp) {
        outlet.choose(stamp, destination, parameters.chosen(voice, channel), instrument);
        int coarse = parameters.coarse(voice, channel);
        if (ShortMessage.data1(message) == Parameter.DATA_FINE && coarse >= 0) {
            outlet.send(stamp, destination, ShortMessage.controller(channel, Parameter.DATA, coarse), instrument);
        }
    }
}
