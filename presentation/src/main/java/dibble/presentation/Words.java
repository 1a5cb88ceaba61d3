package dibble.presentation;

import static dibble.presentation.UiText.say;

import dibble.edits.ControlEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.CombinedControllers;
import dibble.midi.ControllerNames;
import dibble.midi.HeardMessage;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Parameter;
import dibble.midi.PortId;
import dibble.midi.ShortMessage;
import dibble.programs.OwnPorts;
import dibble.recording.Track;
import dibble.routing.ControlKind;
import dibble.routing.Scene;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.util.Optional;

/** The wording of the interface, in one place. */
public final class Words {
    private Words() {}

    /** Returns the channels that pass a source: {@code listens on channels 1 2}. */
    public static String letIn(Source source) {
        return say("words.listens-on", SessionFormatter.listening(source));
    }

    /** A message as people read it: {@code F♯3 54 · velocity 96}, {@code CC 64 sustain · 127}. */
    public static String message(int message, MiddleC middleC) {
        int first = ShortMessage.data1(message);
        int second = ShortMessage.data2(message);
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.NOTE_ON, ShortMessage.NOTE_OFF -> {
                String note = NoteNames.nameAndNumber(first, middleC);
                yield ShortMessage.startsNote(message) ? say("words.velocity", note, second) : say("words.off", note);
            }
            case ShortMessage.KEY_PRESSURE ->
                say("words.poly-pressure", NoteNames.nameAndNumber(first, middleC), second);
            case ShortMessage.CONTROLLER -> ControllerNames.numberAndName(first) + " · " + second;
            case ShortMessage.PROGRAM_CHANGE -> say("common.program-2", first + 1);
            case ShortMessage.CHANNEL_PRESSURE -> say("words.channel-pressure", first);
            default -> say("words.pitch-bend", signed((first | second << 7) - 8192));
        };
    }

    /** A message with the value that it says together with those before it: {@code RPN 1 fine tuning · 8197}. */
    public static String heard(HeardMessage heard, MiddleC middleC) {
        return joined(heard, middleC).orElseGet(() -> message(heard.message(), middleC));
    }

    /** Returns the value that a message forms with earlier ones; empty for an independent message. */
    public static Optional<String> joined(HeardMessage heard, MiddleC middleC) {
        if (heard.isParameter()) {
            ControlKind kind = Parameter.isNrpn(heard.choice()) ? ControlKind.NRPN : ControlKind.RPN;
            return Optional.of(SessionFormatter.control(kind, Parameter.number(heard.choice()), middleC) + " · "
                    + heard.parameter());
        }
        return heard.isPair()
                ? Optional.of(SessionFormatter.control(
                                ControlKind.CONTROLLER_14,
                                ShortMessage.data1(heard.message()) - CombinedControllers.FINE,
                                middleC)
                        + " · " + heard.pair())
                : Optional.empty();
    }

    private static String signed(int number) {
        return number > 0 ? "+" + number : number < 0 ? "−" + -number : "0";
    }

    /** The name of a thing of the session; its id where it is not there. */
    public static String thing(Navigator.Thing thing, Session session) {
        String id = thing.id();
        return switch (thing.kind()) {
            case ZONE ->
                session.zone(id)
                        .map(zone -> SessionFormatter.zone(zone, session))
                        .orElse(id);
            case CONTROL ->
                ControlEdits.find(session, id)
                        .map(map -> SessionFormatter.controlMap(map, session))
                        .orElse(id);
            case PART, SOUND -> session.part(PartRef.parse(id)).map(Part::name).orElse(id);
            case SCENE -> session.scene(id).map(Scene::name).orElse(id);
            case INSTRUMENT -> session.instrument(id).map(Instrument::name).orElse(id);
            case SOURCE -> session.source(id).map(Source::name).orElse(id);
            case TRACK -> session.track(id).map(Track::name).orElse(id);
        };
    }

    /** {@code 4 sources → 7 tracks}. */
    public static String recordPlan(int sources, int tracks) {
        return say("words.sources-tracks", sources, tracks);
    }

    /** The same in a list of ports of all kinds. */
    public static String portInList(String port, Session session) {
        if (OwnPorts.isOwn(port)) {
            return say("words.another-program");
        }
        return PortId.isStandIn(port)
                ? say("words.stand-in", SessionFormatter.port(port, session))
                : SessionFormatter.port(port, session);
    }
}
