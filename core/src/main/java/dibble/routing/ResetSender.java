package dibble.routing;

import dibble.midi.CombinedControllers;
import dibble.midi.EventKind;
import dibble.midi.ShortMessage;
import java.util.Arrays;

/**
 * Sends the pending resets of {@link PendingResets} and {@link SendStates} when they are due: for wheels that no longer
 * reach a destination, pedals that are released elsewhere, inactive sends, and released voices. Confined to the
 * router's thread.
 */
final class ResetSender {
    static final int NONE = -1;

    private final OutputStage outlet;
    private final HeldNotes notes;
    private final CombinedControllers heard;
    private final PendingResets debts;
    private final SendStates sends;
    private final EventMarks marks;
    private RoutingTable table = RoutingTable.empty();

    /** By voice and channel: whether a wheel's payment waits for a note or a pedal to end. */
    private boolean[] waiting = {};

    /** The voices with their channels, and the sends, of a round of resets. */
    private int[] payers = {};

    private int payerCount;
    private int[] leavers = {};

    /** For each of the leavers: the send of the table now in force that goes on where that still leads, or none. */
    private int[] goingOn = {};

    private int leaverCount;

    ResetSender(
            OutputStage outlet,
            HeldNotes notes,
            CombinedControllers heard,
            PendingResets debts,
            SendStates sends,
            EventMarks marks) {
        this.outlet = outlet;
        this.notes = notes;
        this.heard = heard;
        this.debts = debts;
        this.sends = sends;
        this.marks = marks;
    }

    void openVoices(int count) {
        if (count * 16 > waiting.length) {
            waiting = Arrays.copyOf(waiting, count * 16);
            payers = Arrays.copyOf(payers, count * 16);
        }
    }

    void openSends(int count) {
        if (count > leavers.length) {
            leavers = new int[count];
            goingOn = new int[count];
        }
    }

    /** Puts a table in force. */
    void use(RoutingTable next) {
        table = next;
    }

    /**
     * Sends the resets that a new table makes due: those of removed sends, and of wheels that no longer reach a
     * destination.
     */
    void payAfterTable(RoutingTable before, long stamp) {
        findLeavingSends(before, stamp);
        findPayers(0, notes.voices());
        for (int i = 0; i < payerCount; i++) {
            waiting[payers[i]] = false;
        }
        for (int port : table.portOrder) {
            pay(port, false, stamp);
        }
    }

    /** Sends all resets of a voice, with those of the sends that it drives. */
    void payAllOf(int voice, long stamp) {
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

    /** Pays everything that is owed anywhere. */
    void payAll(long stamp) {
        findAllPayers();
        for (int port : table.portOrder) {
            pay(port, true, stamp);
        }
        leaverCount = 0;
    }

    /** Pays everything that is owed to a port. */
    void payAllTo(int port, long stamp) {
        findAllPayers();
        pay(port, true, stamp);
        leaverCount = 0;
    }

    /** Returns how many sends leave since the table before. */
    int leaverCount() {
        return leaverCount;
    }

    /** Returns the slot of a leaving send. */
    int leaver(int number) {
        return leavers[number];
    }

    /** Ends the round of leaving sends: those that do not go on are forgotten. */
    void endLeaving() {
        for (int i = 0; i < leaverCount; i++) {
            if (goingOn[i] == NONE) {
                sends.forgetLast(leavers[i]);
            }
        }
        leaverCount = 0;
    }

    /** A pedal that goes up goes up wherever it went down, also where zones do not lead it any more. */
    void payElsewhere(int source, int channel, boolean goesOn, int message, long stamp) {
        if (!debts.owesAnywhere(source, channel)) {
            return;
        }
        if (goesOn) {
            markGiven(source, channel, message);
        }
        int pedal = PendingResets.kind(message);
        for (int port : table.portOrder) {
            for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                if (!marks.isMarked(destination)) {
                    pay(source, channel, destination, pedal, stamp);
                }
            }
        }
        // Marked resets that have not been sent.
        marks.begin();
    }

    private void markGiven(int source, int channel, int message) {
        int list = table.channelLists[source * 16 + channel];
        for (int i = list + 1; list != 0 && i <= list + table.cells[list]; i++) {
            if (table.passes(table.cells[i], EventKind.of(message), message)) {
                marks.mark(table.destination(table.cells[i], channel));
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
        if (!debts.isHeldDown(destination, kind)) {
            outlet.send(stamp, destination, PendingResets.payment(kind), instrument);
        }
    }

    private void paySend(int slot, int destination, int kind, long stamp) {
        if (!sends.owes(slot, destination, kind)) {
            return;
        }
        int instrument = sends.instrument(slot, destination);
        sends.end(slot, destination, kind);
        sends.forgetLast(slot);
        if (!debts.isHeldDown(destination, kind)) {
            outlet.send(stamp, destination, PendingResets.payment(kind), instrument);
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
     * Sends the resets that were found for a port, by channel, kind and holder.
     *
     * @param all whether to reset everything of a voice, or only wheels that no longer reach the destination
     */
    private void pay(int port, boolean all, long stamp) {
        if (payerCount == 0 && leaverCount == 0) {
            return;
        }
        for (int destination = port * 16; destination < port * 16 + 16; destination++) {
            for (int kind = 0; kind < PendingResets.KINDS; kind++) {
                for (int i = 0; i < payerCount; i++) {
                    if (all) {
                        pay(payers[i] >>> 4, payers[i] & 0xF, destination, kind, stamp);
                    } else if (kind < PendingResets.FIRST_PEDAL) {
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
    void payDue(int source, int channel, long stamp) {
        if (!waiting[source * 16 + channel]) {
            return;
        }
        waiting[source * 16 + channel] = false;
        for (int port : table.portOrder) {
            for (int destination = port * 16; destination < port * 16 + 16; destination++) {
                for (int wheel = 0; wheel < PendingResets.FIRST_PEDAL; wheel++) {
                    payIfDue(source, channel, destination, wheel, stamp);
                }
            }
        }
    }

    /** Pays a wheel that does not reach any more where it is owed; if it must wait, it is looked at again. */
    private void payIfDue(int source, int channel, int destination, int wheel, long stamp) {
        if (!debts.owes(source, channel, destination, wheel)
                || reaches(source, channel, destination, PendingResets.payment(wheel) | channel)) {
            return;
        }
        if (debts.owesPedal(source, channel, destination) || notes.isHeldAt(source, channel, destination)) {
            waiting[source * 16 + channel] = true;
        } else {
            pay(source, channel, destination, wheel, stamp);
        }
    }

    /** Returns true if a message of this kind, sent now, would get there through zones. */
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

    /** Returns true if a leaver leaves a destination. */
    boolean leaves(int leaver, int destination) {
        return goingOn[leaver] == NONE || table.controls.aim(goingOn[leaver], destination) == NONE;
    }
}
