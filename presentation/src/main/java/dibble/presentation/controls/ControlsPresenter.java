package dibble.presentation.controls;

import static dibble.presentation.UiText.say;

import dibble.edits.ControlEdits;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.ChannelSet;
import dibble.midi.CombinedControllers;
import dibble.midi.ControllerNames;
import dibble.midi.EventKind;
import dibble.midi.HeardMessage;
import dibble.midi.MiddleC;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import dibble.presentation.Choice;
import dibble.presentation.Choices;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SendTarget;
import dibble.routing.ZoneTarget;
import dibble.session.Document;
import dibble.session.Edit;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/** The presenter of the Controls view. */
public final class ControlsPresenter {
    /** A send for display. */
    public record Said(int colour, String channel, String to, String what, String values) {}

    private final Document document;

    /** Presents a document. */
    public ControlsPresenter(Document document) {
        this.document = document;
    }

    Session session() {
        return document.session();
    }

    Routing routing() {
        return document.routing();
    }

    private MiddleC middleC() {
        return session().middleC();
    }

    /** The control maps that hold now, in their order. */
    public List<ControlMap> maps() {
        return routing().controlMaps();
    }

    /** Returns a control map by its id. */
    public Optional<ControlMap> map(String id) {
        return ControlEdits.find(session(), id);
    }

    /** {@code 2 always · 3 in Dusk}. */
    public String count() {
        int always = session().controls().size();
        String everywhere = say("controls-presenter.in-every-scene", always);
        return session()
                .scene(session().activeScene(document.performance()))
                .map(it -> everywhere + " · "
                        + say("controls-presenter.in", it.controls().size(), it.name()))
                .orElse(everywhere);
    }

    /** The scene that a map holds in, or <em>always</em>. */
    public String holdsIn(ControlMap map) {
        return ControlEdits.sceneOf(session(), map.id()).map(Scene::name).orElse(say("controls-presenter.every-scene"));
    }

    /** Returns the trigger of a map: {@code CC 21}, {@code pitch bend}. */
    public String when(ControlMap map) {
        return SessionFormatter.control(map.when().kind(), map.when().number(), middleC());
    }

    /** Returns a send for display. */
    public Said said(ControlMap map, ControlMap.Send send) {
        ControlMap.Trigger when = map.when();
        String values =
                SessionFormatter.value(when.kind(), when.low()) + "–" + SessionFormatter.value(when.kind(), when.high())
                        + " → " + SessionFormatter.value(send.kind(), send.first()) + "–"
                        + SessionFormatter.value(send.kind(), send.last());
        if (send.to() instanceof SendTarget.ToScene to) {
            return new Said(
                    0,
                    "",
                    say("controls-presenter.switch-to", scene(to)),
                    "",
                    say("controls-presenter.when-the-value-rises-above"));
        }
        String what = SessionFormatter.control(session(), send.to(), send.kind(), send.number());
        if (send.to() instanceof SendTarget.AllParts) {
            return new Said(0, say("controls-presenter.all"), say("controls-presenter.all-parts"), what, values);
        }
        ZoneTarget to = (ZoneTarget) send.to();
        Optional<Part> part = to instanceof ZoneTarget.ToPart of ? session().part(of.part()) : Optional.empty();
        String channel = to instanceof ZoneTarget.ToPart of ? SessionFormatter.channel(of.part(), routing()) : "·";
        return new Said(
                part.map(Part::colour).orElse(0), channel, SessionFormatter.target(to, session()), what, values);
    }

    private String scene(SendTarget.ToScene to) {
        return switch (to.scene()) {
            case SendTarget.ToScene.NEXT -> say("common.the-next-scene");
            case SendTarget.ToScene.PREVIOUS -> say("common.the-previous-scene");
            default -> session().scene(to.scene()).map(Scene::name).orElse(say("common.no-such-scene", to.scene()));
        };
    }

    /** Returns the output of a send for a value: {@code 86 → 38}. */
    public static String now(ControlMap map, ControlMap.Send send, int value) {
        ControlMap.Trigger when = map.when();
        boolean outside = value < when.low() || value > when.high();
        if (outside && map.ignoreOutside()) {
            return say("controls-presenter.nothing", SessionFormatter.value(when.kind(), value));
        }
        int held = Math.max(when.low(), Math.min(when.high(), value));
        return SessionFormatter.value(when.kind(), value) + " → "
                + SessionFormatter.value(send.kind(), send.output(when, held));
    }

    /** Changes a control map as one step of undo. */
    public void change(String what, String id, UnaryOperator<ControlMap> change) {
        document.edit(mapEdit(what, id, change));
    }

    /** Returns the edit that changes a control map. */
    public Edit mapEdit(String what, String id, UnaryOperator<ControlMap> change) {
        return new Edit(what, session -> ControlEdits.change(session, id, change));
    }

    /** Deletes a control map. */
    public void delete(String id) {
        document.edit(say("edit.delete-control-map"), session -> ControlEdits.delete(session, id));
    }

    /** Moves a control map down by some places, or up by a negative number. */
    public void move(String id, int by) {
        document.edit(say("edit.order"), session -> ControlEdits.move(session, id, by));
    }

    /** Adds the like of a map behind it; its id. */
    public String duplicate(String id) {
        ControlMap map = map(id).orElseThrow();
        String fresh = ControlEdits.freshId(session(), id);
        String scene = ControlEdits.sceneOf(session(), id).map(Scene::id).orElse(null);
        document.edit(say("edit.duplicate"), session -> ControlEdits.add(session, map.withId(fresh), scene));
        return fresh;
    }

    /** Limits a control map to a scene; null for all. */
    public void holdIn(String id, String scene) {
        document.edit(say("edit.active-scene"), session -> ControlEdits.holdIn(session, id, scene));
    }

    /** Returns the trigger for a message of a control; empty for notes, key pressure, and selections of parameters. */
    public static Optional<ControlMap.Trigger> trigger(HeardMessage heard) {
        int message = heard.message();
        if (Parameter.isChoice(message)) {
            return Optional.empty();
        }
        if (heard.isParameter()) {
            ControlKind kind = Parameter.isNrpn(heard.choice()) ? ControlKind.NRPN : ControlKind.RPN;
            return Optional.of(ControlMap.Trigger.any(kind, Parameter.number(heard.choice())));
        }
        if (heard.isPair()) {
            return Optional.of(ControlMap.Trigger.any(
                    ControlKind.CONTROLLER_14, ShortMessage.data1(message) - CombinedControllers.FINE));
        }
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.CONTROLLER -> Optional.of(ControlMap.Trigger.controller(ShortMessage.data1(message)));
            case ShortMessage.PITCH_BEND -> Optional.of(ControlMap.Trigger.any(ControlKind.PITCH_BEND, 0));
            case ShortMessage.CHANNEL_PRESSURE -> Optional.of(ControlMap.Trigger.any(ControlKind.CHANNEL_PRESSURE, 0));
            case ShortMessage.PROGRAM_CHANGE -> Optional.of(ControlMap.Trigger.any(ControlKind.PROGRAM_CHANGE, 0));
            default -> Optional.empty();
        };
    }

    /** The parts that a source's zones lead to now, in their order. */
    private List<PartRef> reached(String source) {
        Set<PartRef> parts = new LinkedHashSet<>();
        routing().zones().stream()
                .filter(zone -> zone.enabled() && zone.isPlayedBy(source))
                .forEach(zone -> {
                    if (zone.to() instanceof ZoneTarget.ToPart to
                            && session().part(to.part()).isPresent()) {
                        parts.add(to.part());
                    }
                });
        return List.copyOf(parts);
    }

    /**
     * A map for a control that was moved: at first it does what its source's zones do with it, to be changed from
     * there.
     *
     * @return its id, or that of the map that answers to the control already
     * @throws UserException with one line where there is no part yet
     */
    public String add(String source, ControlMap.Trigger when) {
        Optional<ControlMap> there = maps().stream()
                .filter(map -> map.isPlayedBy(source)
                        && map.when().kind() == when.kind()
                        && map.when().number() == when.number())
                .findFirst();
        if (there.isPresent()) {
            return there.get().id();
        }
        List<PartRef> parts =
                reached(source).isEmpty() ? parts().stream().limit(1).toList() : reached(source);
        if (parts.isEmpty()) {
            throw new UserException(say("controls-presenter.there-is-no-sound-to"));
        }
        return make(
                source,
                when,
                when.kind(),
                when.number(),
                parts,
                SessionFormatter.control(when.kind(), when.number(), middleC()));
    }

    private String make(
            String source, ControlMap.Trigger when, ControlKind kind, int number, List<PartRef> parts, String name) {
        String id = ControlEdits.freshId(session(), name);
        document.edit(
                say("edit.new-control-map"),
                session ->
                        ControlEdits.add(session, ControlEdits.many(id, "", source, when, kind, number, parts), null));
        return id;
    }

    /** One control that moves a controller of many parts, or (none) of all. Its id. */
    public String many(String source, ControlMap.Trigger when, int number, List<PartRef> parts) {
        String id = ControlEdits.freshId(session(), "many");
        String name = say(
                "controls-presenter.all-parts-2",
                parts.isEmpty(),
                parts.size(),
                ControllerNames.name(number).orElse("CC " + number));
        document.edit(
                say("edit.one-control-many-parts"),
                session -> ControlEdits.add(
                        session,
                        ControlEdits.many(id, name, source, when, ControlKind.CONTROLLER, number, parts),
                        null));
        return id;
    }

    /** A fade from one sound into another. Its id. */
    public String fade(String source, ControlMap.Trigger when, PartRef from, PartRef to) {
        String id = ControlEdits.freshId(session(), "fade");
        String name = say("controls-presenter.from-to", partName(from), partName(to));
        document.edit(
                say("edit.fade-between-sounds"),
                session -> ControlEdits.add(session, ControlEdits.fade(id, name, source, when, from, to), null));
        return id;
    }

    private String partName(PartRef ref) {
        return session().part(ref).map(Part::name).orElse(ref.toString());
    }

    /** Returns two parts for a crossfade: the first that a source plays, or else the first two of the session. */
    public List<PartRef> firstTwo(String source) {
        Set<PartRef> first = new LinkedHashSet<>(source == null ? List.of() : reached(source));
        first.addAll(parts());
        return first.stream().limit(2).toList();
    }

    /** Returns all parts, in the session's order. */
    public List<PartRef> parts() {
        return session().instruments().stream()
                .flatMap(instrument -> instrument.parts().stream().map(instrument::ref))
                .toList();
    }

    /** Returns all targets for a send, including its present one. */
    public List<Choice<SendTarget>> aims(SendTarget now) {
        List<Choice<SendTarget>> aims = new ArrayList<>();
        Choices.parts(session()).forEach(it -> aims.add(new Choice<>(new ZoneTarget.ToPart(it.value()), it.words())));
        aims.add(new Choice<>(new SendTarget.AllParts(), say("controls-presenter.all-parts")));
        aims.add(new Choice<>(new SendTarget.ToScene(SendTarget.ToScene.NEXT), say("common.the-next-scene")));
        aims.add(new Choice<>(new SendTarget.ToScene(SendTarget.ToScene.PREVIOUS), say("common.the-previous-scene")));
        session()
                .scenes()
                .forEach(it ->
                        aims.add(new Choice<>(new SendTarget.ToScene(it.id()), say("common.scene-3", it.name()))));
        if (aims.stream().noneMatch(it -> it.value().equals(now))) {
            aims.add(new Choice<>(
                    now,
                    now instanceof ZoneTarget to
                            ? SessionFormatter.target(to, session())
                            : scene((SendTarget.ToScene) now)));
        }
        return aims;
    }

    /** A send led elsewhere; where its kind cannot lead there, it becomes one that can. */
    public static ControlMap.Send led(ControlMap.Send send, SendTarget to) {
        if (to instanceof SendTarget.ToScene) {
            return new ControlMap.Send(ControlKind.SCENE, 0, 0, ControlKind.SCENE.most(), null, to);
        }
        boolean fits = send.kind() != ControlKind.SCENE
                && !(send.kind() == ControlKind.NOTE && to instanceof SendTarget.AllParts);
        return fits ? send.withTo(to) : ControlMap.Send.controller(ControlEdits.EXPRESSION, to);
    }

    /** A send of another kind, over its whole range unless the range is the same. */
    public static ControlMap.Send ofKind(ControlMap.Send send, ControlKind kind) {
        boolean same = send.kind().most() == kind.most();
        return new ControlMap.Send(
                kind,
                number(send.kind(), send.number(), kind),
                same ? send.first() : 0,
                same ? send.last() : kind.most(),
                kind == ControlKind.CONTROLLER ? send.rest() : null,
                send.to(),
                send.extras());
    }

    /** A trigger of another kind, over its whole range unless the range is the same. */
    public static ControlMap.Trigger ofKind(ControlMap.Trigger when, ControlKind kind) {
        boolean same = when.kind().most() == kind.most();
        return new ControlMap.Trigger(
                kind,
                number(when.kind(), when.number(), kind),
                same ? when.low() : 0,
                same ? when.high() : kind.most());
    }

    /** The number for another kind: the same where that kind has it. */
    private static int number(ControlKind before, int number, ControlKind kind) {
        if (!kind.isNumbered()) {
            return 0;
        }
        return before.isNumbered() && number <= kind.mostNumber() ? number : firstNumber(kind);
    }

    private static int firstNumber(ControlKind kind) {
        return switch (kind) {
            case CONTROLLER, CONTROLLER_14 -> 1;
            case NOTE, KEY_PRESSURE -> 60;
            case RPN, NRPN, PITCH_BEND, CHANNEL_PRESSURE, PROGRAM_CHANGE, SCENE -> 0;
        };
    }

    /** A map with another send, like its last one. */
    public static ControlMap withMore(ControlMap map) {
        List<ControlMap.Send> sends = new ArrayList<>(map.sends());
        sends.add(sends.get(sends.size() - 1));
        return map.withSends(sends);
    }

    /** A map without one of its sends. */
    public static ControlMap without(ControlMap map, int send) {
        List<ControlMap.Send> sends = new ArrayList<>(map.sends());
        sends.remove(send);
        return map.withSends(sends);
    }

    /** The sources that a map answers to, by id. */
    public List<String> players(ControlMap map) {
        return session().sources().stream()
                .map(it -> it.id())
                .filter(map::isPlayedBy)
                .toList();
    }

    /** Why a map hears nothing of its control: its source does not let it in; empty where it does. */
    public String deaf(ControlMap map) {
        return session()
                .source(map.source())
                .filter(source -> !source.accept().contains(kind(map.when()))
                        || source.listen().and(map.channels()).equals(new ChannelSet(0)))
                .map(source -> say("controls-presenter.does-not-accept-it", source.name()))
                .orElse("");
    }

    private static EventKind kind(ControlMap.Trigger when) {
        return switch (when.kind()) {
            case CONTROLLER -> EventKind.of(ShortMessage.controller(0, when.number(), 0));
            case NOTE -> EventKind.NOTES;
            case KEY_PRESSURE -> EventKind.KEY_PRESSURE;
            case PITCH_BEND -> EventKind.PITCH_BEND;
            case CHANNEL_PRESSURE -> EventKind.CHANNEL_PRESSURE;
            case RPN, NRPN, CONTROLLER_14 -> EventKind.CONTROLLERS;
            case PROGRAM_CHANGE, SCENE -> EventKind.PROGRAM_CHANGE;
        };
    }
}
