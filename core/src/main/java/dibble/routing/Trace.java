package dibble.routing;

import static dibble.text.CoreText.say;

import dibble.gear.Source;
import dibble.midi.CombinedControllers;
import dibble.midi.EventKind;
import dibble.midi.HeardMessage;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * The predicted effect of an event, with reasons: for each zone and control map that holds, its output, or the first
 * reason for silence. Sends nothing, and ignores held notes and previous events: a value of several controllers is
 * shown with all of them. The compiled table answers, as for the {@link Router}; the session is used for reasons only.
 *
 * @param gate the reason why the source drops the event, or null
 * @param controls the control maps, in their order
 * @param zones the zones, in their order
 */
public record Trace(Reason gate, List<Answer> controls, List<Answer> zones) {
    /** Why something stays silent, in the order in which reasons are looked for. */
    public enum Reason {
        NOT_LISTENING,
        NOT_ACCEPTED,
        SCENE_SWITCH,
        OFF,
        OTHER_SOURCE,
        CHANNEL,
        OTHER_EVENT,
        NO_MSB("no MSB"),
        KEY_BELOW,
        KEY_ABOVE,
        VELOCITY_BELOW,
        VELOCITY_ABOVE,
        UNMAPPED,
        OUTSIDE("outside 0-127"),
        NOT_PASSED,
        TAKEN("taken by a control map"),
        OUTSIDE_THE_WINDOW,
        NO_SUCH_PART,
        NO_CHANNEL,
        NOT_HEARD,
        SOUNDS_BY_ITSELF;

        private final String words;

        Reason() {
            words = name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }

        Reason(String words) {
            this.words = words;
        }

        /** The reason in the contract's words. */
        public String words() {
            return words;
        }
    }

    /**
     * A message that would be sent.
     *
     * @param to the id of the instrument
     * @param channel 1-16
     * @param message packed, on that channel
     */
    public record Sent(String to, int channel, int message) {}

    /**
     * A sent value for display: messages that form one value are combined.
     *
     * @param to the id of the instrument
     * @param channel 1-16
     * @param message the last message, with the combined value
     */
    public record Value(String to, int channel, HeardMessage message) {}

    /**
     * The output of a zone or a control map.
     *
     * @param scene the id of the called scene, or null
     * @param reason the reason for no output, or null
     */
    public record Answer(String id, List<Sent> messages, String scene, Reason reason) {
        /** The messages as they are read. */
        public List<Value> values() {
            return Trace.values(messages);
        }

        private static Answer silent(String id, Reason reason) {
            return new Answer(id, List.of(), null, reason);
        }
    }

    /** Messages as they are read: the four of a parameter, and the two halves of a controller, are one. */
    public static List<Value> values(List<Sent> messages) {
        List<Value> values = new ArrayList<>();
        CombinedControllers joined = new CombinedControllers();
        joined.open(1);
        int began = 0;
        for (int i = 0; i < messages.size(); i++) {
            Sent sent = messages.get(i);
            boolean sameWay = i > 0
                    && messages.get(i - 1).to().equals(sent.to())
                    && messages.get(i - 1).channel() == sent.channel();
            if (!sameWay) {
                joined.reset();
            }
            joined.take(0, sent.message());
            HeardMessage heard = joined.heard(0, sent.message());
            if (!sameWay || !goesOn(messages.get(i - 1).message(), sent.message())) {
                began = values.size();
            }
            if (heard.isParameter() || heard.isPair()) {
                values.subList(began, values.size()).clear();
            }
            values.add(new Value(sent.to(), sent.channel(), heard));
        }
        return values;
    }

    /** Returns true if a message goes on with the value that the one before it began. */
    private static boolean goesOn(int before, int message) {
        int number = ShortMessage.data1(message);
        return Parameter.isChoice(before)
                ? Parameter.isChoice(message) || number == Parameter.DATA
                : number == ShortMessage.data1(before) + CombinedControllers.FINE;
    }

    /** Returns the trace of an event with no source muted: for files, and for printed takes. */
    public static Trace of(Routing routing, String source, HeardMessage message) {
        return new Tracing(routing, source, message, null).trace();
    }

    /**
     * The trace of an event that is played live.
     *
     * @param unheard the ids of sources that are not heard
     */
    public static Trace live(Routing routing, String source, HeardMessage message, Set<String> unheard) {
        return new Tracing(routing, source, message, unheard).trace();
    }

    private static final class Tracing {
        private final Routing routing;
        private final SlotAllocator slots = new SlotAllocator();
        private final RoutingTable table;
        private final Source source;
        private final int slot;
        private final HeardMessage heard;
        private final int message;
        private final int channel;
        private final EventKind kind;
        private final Set<String> unheard;
        private final int controlList;

        Tracing(Routing routing, String sourceId, HeardMessage heard, Set<String> unheard) {
            this.routing = routing;
            this.heard = heard;
            this.message = heard.message();
            this.unheard = unheard;
            table = RoutingCompiler.compile(routing, slots);
            source = routing.source(sourceId).orElseThrow(() -> new UserException(say("trace.no-source", sourceId)));
            slot = slots.source(sourceId);
            channel = ShortMessage.channel(message);
            kind = EventKind.of(message);
            controlList = table.controlList(slot, message);
        }

        Trace trace() {
            List<Answer> controls = new ArrayList<>();
            List<ControlMap> maps = routing.controlMaps();
            for (int m = 0; m < maps.size(); m++) {
                controls.add(control(maps.get(m), m));
            }
            List<Answer> answers = new ArrayList<>();
            List<Zone> zones = routing.zones();
            for (int z = 0; z < zones.size(); z++) {
                answers.add(zone(zones.get(z), z));
            }
            return new Trace(gate(), controls, answers);
        }

        private Reason gate() {
            if (!table.listens(slot, channel)) {
                return Reason.NOT_LISTENING;
            }
            if (!table.accepts(slot, kind)) {
                return Reason.NOT_ACCEPTED;
            }
            return table.calledScene(slot, message) != RoutingTable.NONE ? Reason.SCENE_SWITCH : null;
        }

        private Answer control(ControlMap map, int m) {
            int value = table.controls.value(m, message, heard.choice(), heard.parameter(), heard.pair());
            if (isIn(controlList, m)
                    && value == ControlColumns.NOTHING
                    && !map.when().kind().isParameter()) {
                return Answer.silent(map.id(), Reason.NO_MSB);
            }
            if (!isIn(controlList, m) || value == ControlColumns.NOTHING) {
                Reason reason = !map.enabled()
                        ? Reason.OFF
                        : !map.isPlayedBy(source.id())
                                ? Reason.OTHER_SOURCE
                                : !map.channels().holds(channel) ? Reason.CHANNEL : Reason.OTHER_EVENT;
                return Answer.silent(map.id(), reason);
            }
            ControlColumns controls = table.controls;
            List<Sent> messages = new ArrayList<>();
            String scene = null;
            Reason first = null;
            for (int s = controls.firstSend[m]; s < controls.firstSend[m + 1]; s++) {
                int output = controls.output(s, value, ShortMessage.endsNote(message));
                Reason reason = null;
                if (output == ControlColumns.NOTHING) {
                    reason = Reason.OUTSIDE_THE_WINDOW;
                } else if (map.sends().get(s - controls.firstSend[m]).to() instanceof SendTarget.ToScene to) {
                    scene = output > 0 ? to.scene() : scene;
                } else {
                    int before = messages.size();
                    addSent(s, output, messages);
                    reason = messages.size() > before ? null : whyNowhere(controls.send[s]);
                }
                first = reason != null && (first == null || reason.compareTo(first) < 0) ? reason : first;
            }
            if (messages.isEmpty() && scene == null) {
                return Answer.silent(map.id(), isUnheard() ? Reason.NOT_HEARD : first);
            }
            return isUnheard() && scene == null
                    ? Answer.silent(map.id(), Reason.NOT_HEARD)
                    : new Answer(map.id(), isUnheard() ? List.of() : messages, scene, null);
        }

        private void addSent(int s, int output, List<Sent> messages) {
            ControlColumns controls = table.controls;
            int number = controls.send[s].number();
            int plain = controls.send[s].kind() != ControlKind.NOTE
                    ? controls.message(s, output)
                    : output > 0
                            ? ShortMessage.noteOn(0, number, output)
                            : ShortMessage.noteOff(0, number, ShortMessage.DEFAULT_RELEASE);
            for (int aim = controls.firstAim[s]; aim < controls.firstAim[s + 1]; aim++) {
                int destination = RoutingTable.onChannel(controls.destination[aim], channel);
                int instrument = controls.instrument[aim];
                int choice = controls.parameter(s);
                if (choice != Parameter.NOTHING) {
                    messages.add(sent(instrument, destination, Parameter.choosesCoarse(choice)));
                    messages.add(sent(instrument, destination, Parameter.choosesFine(choice)));
                }
                messages.add(sent(instrument, destination, plain));
                if (controls.fine(s, output) != 0) {
                    messages.add(sent(instrument, destination, controls.fine(s, output)));
                }
            }
        }

        private Sent sent(int instrument, int destination, int plain) {
            int to = destination & 0xF;
            return new Sent(slots.instrumentId(instrument), to + 1, ShortMessage.onChannel(plain, to));
        }

        private Reason whyNowhere(ControlMap.Send send) {
            if (send.kind() == ControlKind.CONTROLLER && RoutingTable.reconfigures(send.number())) {
                return Reason.NOT_PASSED;
            }
            return send.to() instanceof ZoneTarget target ? whyNowhere(target) : Reason.NO_SUCH_PART;
        }

        private Reason whyNowhere(ZoneTarget target) {
            boolean isThere = target instanceof ZoneTarget.ToPart part
                    ? routing.part(part.part()).isPresent()
                    : routing.instrument(target.instrument()).isPresent();
            return isThere ? Reason.NO_CHANNEL : Reason.NO_SUCH_PART;
        }

        private Answer zone(Zone zone, int z) {
            Reason reason = whyNotTaken(zone, z);
            List<Sent> messages = new ArrayList<>();
            if (reason == null) {
                reason = kind == EventKind.NOTES || kind == EventKind.KEY_PRESSURE
                        ? addNotes(z, messages)
                        : addMessage(z, messages);
            }
            if (reason == null && table.isTaken(controlList, heard.choice())) {
                reason = Reason.TAKEN;
            }
            if (reason == null && table.zones.destination(z) == RoutingTable.NOWHERE) {
                reason = whyNowhere(zone.to());
            }
            if (reason == null && isUnheard()) {
                reason = Reason.NOT_HEARD;
            }
            if (reason == null
                    && unheard != null
                    && source.localControl()
                    && zone.to().instrument().equals(source.ownInstrument())) {
                reason = Reason.SOUNDS_BY_ITSELF;
            }
            return reason == null ? new Answer(zone.id(), messages, null, null) : Answer.silent(zone.id(), reason);
        }

        private boolean isUnheard() {
            return unheard != null && unheard.contains(source.id());
        }

        /** The first reason why the table does not have the zone take the event; null where it does, or would. */
        private Reason whyNotTaken(Zone zone, int z) {
            int key = ShortMessage.data1(message);
            int velocity = ShortMessage.data2(message);
            boolean starts = ShortMessage.startsNote(message);
            if (starts
                    && isIn(table.noteList(slot, channel, key, velocity), z)
                    && table.zones.takesVelocity(z, velocity)) {
                return null;
            }
            if (!zone.enabled()) {
                return Reason.OFF;
            }
            if (!zone.isPlayedBy(source.id())) {
                return Reason.OTHER_SOURCE;
            }
            if (!zone.channels().holds(channel)) {
                return Reason.CHANNEL;
            }
            if (kind != EventKind.NOTES && kind != EventKind.KEY_PRESSURE) {
                return null;
            }
            if (!zone.keys().holds(key)) {
                return key < zone.keys().low() ? Reason.KEY_BELOW : Reason.KEY_ABOVE;
            }
            if (starts && !zone.velocity().holds(velocity)) {
                return velocity < zone.velocity().low() ? Reason.VELOCITY_BELOW : Reason.VELOCITY_ABOVE;
            }
            return null;
        }

        private Reason addNotes(int z, List<Sent> messages) {
            int key = ShortMessage.data1(message);
            int count = table.noteCount(z, key);
            boolean any = false;
            for (int i = 0; i < count; i++) {
                int note = table.note(z, slot, key, i);
                if (note != RoutingTable.NONE) {
                    any = true;
                    addNote(z, note, messages);
                }
            }
            if (count == 0) {
                return Reason.UNMAPPED;
            }
            if (!any) {
                return Reason.OUTSIDE;
            }
            return kind == EventKind.KEY_PRESSURE && !table.passesKeyPressure(z) ? Reason.NOT_PASSED : null;
        }

        private void addNote(int z, int note, List<Sent> messages) {
            if (table.zones.destination(z) == RoutingTable.NOWHERE) {
                return;
            }
            int value = ShortMessage.data2(message);
            int velocity = ShortMessage.startsNote(message) ? table.velocity(z, value) : value;
            int status = ShortMessage.endsNote(message) ? ShortMessage.NOTE_OFF : ShortMessage.kind(message);
            Sent sent = sent(
                    table.zones.instrument(z),
                    table.destination(z, channel),
                    ShortMessage.of(status, 0, note, velocity));
            if (!messages.contains(sent)) {
                messages.add(sent);
            }
        }

        private Reason addMessage(int z, List<Sent> messages) {
            if (!table.passes(z, kind, message)) {
                return Reason.NOT_PASSED;
            }
            for (int each : heard.whole()) {
                if (table.zones.destination(z) != RoutingTable.NOWHERE && table.passes(z, kind, each)) {
                    messages.add(sent(table.zones.instrument(z), table.destination(z, channel), each));
                }
            }
            return null;
        }

        private boolean isIn(int list, int number) {
            for (int i = list + 1; list != 0 && i <= list + table.cells[list]; i++) {
                if (table.cells[i] == number) {
                    return true;
                }
            }
            return false;
        }
    }
}
