package dibble.routing;

import dibble.midi.CombinedControllers;
import dibble.midi.NeutralValues;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;

/**
 * Executes the sends of control maps: their output for an event, and their resets when they become inactive. Confined
 * to the router's thread.
 */
final class ControlSends {
    private static final int NONE = -1;

    private final OutputStage outlet;
    private final HeldNotes notes;
    private final CombinedControllers heard;
    private final Parameters parameters;
    private final PendingResets debts;
    private final SendStates sends;
    private final ResetSender resets;
    private RoutingTable table = RoutingTable.empty();

    /** The sends that the present event makes, with their values, and the scene that one of them calls. */
    private int[] outSend = new int[16];

    private int[] outValue = new int[16];
    private int sendCount;
    private int calledScene = NONE;
    private int[] returning = {};

    ControlSends(
            OutputStage outlet,
            HeldNotes notes,
            CombinedControllers heard,
            Parameters parameters,
            PendingResets debts,
            SendStates sends,
            ResetSender resets) {
        this.outlet = outlet;
        this.notes = notes;
        this.heard = heard;
        this.parameters = parameters;
        this.debts = debts;
        this.sends = sends;
        this.resets = resets;
    }

    /** Makes room for the sends of one event, and for all sends. */
    void open(int mostSends, int count) {
        if (mostSends > outSend.length) {
            outSend = new int[mostSends];
            outValue = new int[mostSends];
        }
        if (count > returning.length) {
            returning = new int[count];
        }
    }

    /** Puts a table in force. */
    void use(RoutingTable next) {
        table = next;
    }

    /** Returns the place of the scene that a send calls, or -1. */
    int calledScene() {
        return calledScene;
    }

    /** Finds the outputs of matching control maps for an event, each by its last output and its note. */
    void gather(int list, int source, int message, boolean ends) {
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

    /** Ends sounding notes at places where sends are about to start notes. */
    void stopSounding(int channel, long stamp) {
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

    /** Sends the outputs that were found. */
    void send(int channel, long stamp) {
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
        int kind = PendingResets.kind(message);
        boolean rests = kind != PendingResets.NO_KIND && NeutralValues.isAtRest(message);
        for (int aim = controls.firstAim[s]; aim < controls.firstAim[s + 1]; aim++) {
            int destination = RoutingTable.onChannel(controls.destination[aim], channel);
            if (rests) {
                sends.end(slot, destination, kind);
                if (debts.isHeldDown(destination, kind)) {
                    continue;
                }
            }
            int instrument = controls.instrument[aim];
            if (choice != Parameter.NOTHING && !parameters.isTold(destination, choice)) {
                outlet.choose(stamp, destination, choice, instrument);
            }
            if (outlet.send(stamp, destination, message, instrument)) {
                if (fine != 0) {
                    outlet.send(stamp, destination, fine, instrument);
                }
                if (kind != PendingResets.NO_KIND && !rests) {
                    sends.begin(slot, destination, kind, instrument);
                }
                if (controls.send[s].kind() == ControlKind.CONTROLLER) {
                    sends.move(slot, destination);
                }
            }
        }
    }

    /** Controllers that leaving sends moved go back, by port, channel and number; then the sends are forgotten. */
    void returnControllers(RoutingTable before, long stamp) {
        for (int p = 0; p < table.portOrder.length && resets.leaverCount() > 0; p++) {
            int port = table.portOrder[p];
            for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                int count = 0;
                for (int i = 0; i < resets.leaverCount(); i++) {
                    if (sends.moved(resets.leaver(i), destination) && resets.leaves(i, destination)) {
                        count = insertByNumber(before.controls.sendOfSlot[resets.leaver(i)], count, before.controls);
                    }
                }
                for (int i = 0; i < count; i++) {
                    returnController(before.controls, returning[i], destination, stamp);
                }
            }
        }
        resets.endLeaving();
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
            if (!PendingResets.isPedalUp(message) || !debts.isHeldDown(destination, PendingResets.kind(message))) {
                outlet.send(stamp, destination, message, old.instrument[aim]);
            }
        }
    }
}
