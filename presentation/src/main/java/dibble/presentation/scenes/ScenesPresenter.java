package dibble.presentation.scenes;

import static dibble.presentation.UiText.say;

import dibble.edits.SceneEdits;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.Zone;
import dibble.session.Document;
import dibble.session.SceneDifference;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/** The presenter of the Scenes view. */
public final class ScenesPresenter {
    /**
     * One thing in which two scenes differ.
     *
     * @param colour of the part concerned, or 0
     * @param channel for the chip, or empty
     * @param name the thing
     * @param first how it is in the first scene
     * @param second how it is in the second
     */
    public record Differs(int colour, String channel, String name, String first, String second) {}

    private static final String NOT_THERE = "–";

    private final Document document;

    /** Presents a document. */
    public ScenesPresenter(Document document) {
        this.document = document;
    }

    private Session session() {
        return document.session();
    }

    private MiddleC middleC() {
        return session().middleC();
    }

    /** The scene that holds now. */
    public Optional<Scene> active() {
        return session().scene(session().activeScene(document.performance()));
    }

    /** The scene after the one that holds now. */
    public Optional<Scene> next() {
        return active().map(scene -> SceneEdits.neighbour(session(), scene.id(), 1));
    }

    /** Calls a scene. */
    public void call(String id) {
        document.perform(performance -> performance.withScene(id));
    }

    /** Calls the scene a number of places on, if there is one. */
    public void step(int by) {
        active().map(scene -> SceneEdits.neighbour(session(), scene.id(), by)).ifPresent(scene -> call(scene.id()));
    }

    /** Changes the session, as one step: whose programs call scenes. */
    public void edit(String what, UnaryOperator<Session> change) {
        document.edit(what, change);
    }

    /** Adds a scene behind another or, with null, behind all; returns its id. */
    public String add(String after) {
        String name = freshName(say("common.scene-2"));
        String id = SceneEdits.freshId(session(), name);
        document.edit(say("edit.new-scene"), session -> SceneEdits.add(session, id, name, after));
        return id;
    }

    /** Duplicates a scene, and returns the id of the copy. */
    public String duplicate(String id) {
        String name = freshName(session().scene(id).orElseThrow().name());
        String newId = SceneEdits.freshId(session(), name);
        document.edit(say("edit.duplicate-scene"), session -> SceneEdits.duplicate(session, id, newId, name));
        return newId;
    }

    /** {@code Dusk 2}, or the next number that is free. */
    private String freshName(String base) {
        String bare = base.replaceFirst(" \\d+$", "");
        int number = 2;
        while (isName(bare + " " + number)) {
            number++;
        }
        return bare + " " + number;
    }

    private boolean isName(String name) {
        return session().scenes().stream().anyMatch(scene -> scene.name().equals(name));
    }

    /** Deletes a scene. */
    public void delete(String id) {
        document.edit(say("edit.delete-scene"), session -> SceneEdits.delete(session, id));
    }

    /** Moves a scene down by some places, or up by a negative number. */
    public void move(String id, int by) {
        document.edit(say("edit.order-of-scenes"), session -> SceneEdits.move(session, id, by));
    }

    /** Changes a scene as one step of undo. */
    public void change(String what, String id, UnaryOperator<Scene> change) {
        document.edit(what, session -> SceneEdits.changeScene(session, id, change));
    }

    /** Changes the sound that a scene gives a part, as one step of undo. */
    public void changeSound(String scene, PartRef part, UnaryOperator<Sound> change) {
        document.edit(say("edit.sound-in-scene"), session -> SceneEdits.changeSound(session, scene, part, change));
    }

    /** Returns the content of a scene: {@code 3 zones · 1 control map · 2 sounds}. */
    public static String holds(Scene scene) {
        List<String> words = new ArrayList<>();
        count(words, scene.zones().size(), "scenes-presenter.zones");
        count(words, scene.controls().size(), "scenes-presenter.control-maps");
        count(words, scene.sounds().size(), "scenes-presenter.sounds");
        return words.isEmpty() ? say("scenes-presenter.nothing-of-its-own-yet") : String.join(" · ", words);
    }

    private static void count(List<String> words, int number, String what) {
        if (number > 0) {
            words.add(say(what, number));
        }
    }

    /** Returns the content that holds in every scene. */
    public String always() {
        List<String> words = new ArrayList<>();
        count(words, session().zones().size(), "scenes-presenter.zones");
        count(words, session().controls().size(), "scenes-presenter.control-maps");
        return words.isEmpty()
                ? say("scenes-presenter.nothing-is-active-in-every")
                : say("scenes-presenter.in-every-scene-as-well", String.join(" · ", words));
    }

    /** Returns the calls of a scene: {@code F1 · program 1}. */
    public String calledBy(Scene scene) {
        List<String> words = new ArrayList<>();
        int number = session().scenes().indexOf(scene) + 1;
        if (number >= 1 && number <= 12) {
            words.add("F" + number);
        }
        boolean heard = session().sceneSwitch() != null;
        if (scene.program() != null) {
            words.add(say("scenes-presenter.program", scene.program() + 1, heard));
        }
        return String.join(" · ", words);
    }

    /** A sound that a scene sets: {@code program 12 Vibraphone · level 80}. */
    public String sound(PartRef part, Sound sound) {
        List<String> words = new ArrayList<>();
        if (sound.bank() != null) {
            words.add(say(
                    "scenes-presenter.bank", sound.bank().get(0), sound.bank().get(1)));
        }
        if (sound.program() != null) {
            words.add(say(
                    "common.program-2",
                    session()
                            .instrument(part.instrument())
                            .flatMap(of -> of.programName(sound))
                            .map(name -> sound.program() + 1 + " " + name)
                            .orElseGet(() -> GeneralMidi.program(sound.program()))));
        }
        if (sound.volume() != null) {
            words.add(say("scenes-presenter.level", sound.volume()));
        }
        if (sound.pan() != null) {
            words.add(say("scenes-presenter.pan", sound.pan()));
        }
        return words.isEmpty() ? say("scenes-presenter.nothing-changed-yet") : String.join(" · ", words);
    }

    /** The parts that a scene does not give a sound yet. */
    public List<PartRef> partsLeft(Scene scene) {
        return session().instruments().stream()
                .flatMap(instrument -> instrument.parts().stream().map(instrument::ref))
                .filter(ref ->
                        scene.sounds().stream().noneMatch(sound -> sound.part().equals(ref)))
                .toList();
    }

    /** Returns the differences of two scenes. */
    public List<Differs> differences(Scene first, Scene second) {
        Routing routing = document.routing();
        List<Differs> all = new ArrayList<>();
        for (SceneDifference<Zone> differs : SceneDifference.zones(first, second)) {
            Zone one = differs.first() == null ? differs.second() : differs.first();
            String channel = session().partOf(one).isPresent()
                    ? SessionFormatter.channel(((dibble.routing.ZoneTarget.ToPart) one.to()).part(), routing)
                    : "";
            all.add(differs(
                    SessionFormatter.colour(one, session()),
                    channel,
                    SessionFormatter.source(one.source(), session()) + " → "
                            + SessionFormatter.target(one.to(), session()),
                    differs,
                    this::aspects));
        }
        for (SceneDifference<ControlMap> differs : SceneDifference.controls(first, second)) {
            ControlMap one = differs.first() == null ? differs.second() : differs.first();
            all.add(differs(
                    0,
                    "",
                    SessionFormatter.source(one.source(), session()) + ", "
                            + SessionFormatter.controlMap(one, session()),
                    differs,
                    this::aspects));
        }
        for (SceneDifference<SceneSound> differs : SceneDifference.sounds(first, second)) {
            PartRef ref = (differs.first() == null ? differs.second() : differs.first()).part();
            Optional<Part> part = session().part(ref);
            all.add(differs(
                    part.map(Part::colour).orElse(0),
                    SessionFormatter.channel(ref, routing),
                    say("scenes-presenter.sound-of", part.map(Part::name).orElse(ref.toString())),
                    differs,
                    it -> List.of(sound(it.part(), it.sound()))));
        }
        return all;
    }

    /** Says only what differs, where both scenes have the thing. */
    private static <T> Differs differs(
            int colour, String channel, String name, SceneDifference<T> differs, Function<T, List<String>> aspects) {
        if (differs.first() == null || differs.second() == null) {
            return new Differs(
                    colour, channel, name, whole(differs.first(), aspects), whole(differs.second(), aspects));
        }
        List<String> first = aspects.apply(differs.first());
        List<String> second = aspects.apply(differs.second());
        List<String> ofFirst = new ArrayList<>();
        List<String> ofSecond = new ArrayList<>();
        for (int i = 0; i < first.size(); i++) {
            if (!first.get(i).equals(second.get(i))) {
                ofFirst.add(first.get(i));
                ofSecond.add(second.get(i));
            }
        }
        return new Differs(colour, channel, name, joined(ofFirst), joined(ofSecond));
    }

    private static <T> String whole(T thing, Function<T, List<String>> aspects) {
        return thing == null ? NOT_THERE : joined(aspects.apply(thing).subList(0, 1));
    }

    private static String joined(List<String> words) {
        String text = words.stream().filter(word -> !word.isEmpty()).collect(Collectors.joining(", "));
        return text.isEmpty() ? say("scenes-presenter.in-other-ways") : text;
    }

    /** The aspects of a zone, each always in its place; the first tells most. */
    private List<String> aspects(Zone zone) {
        return List.of(
                SessionFormatter.keys(zone.keys(), middleC()),
                zone.channels().isAll()
                        ? say("words.all-channels")
                        : say(
                                "scenes-presenter.channels",
                                listed(zone.channels().numbers())),
                say(
                        "scenes-presenter.velocities",
                        zone.velocity().low(),
                        zone.velocity().high()),
                zone.transpose() == 0
                        ? say("scenes-presenter.as-played")
                        : SessionFormatter.transpose(zone.transpose()),
                zone.enabled() ? say("scenes-presenter.on") : say("common.off"),
                zone.noteMap().isEmpty()
                        ? say("scenes-presenter.no-note-map")
                        : say(
                                "scenes-presenter.note-map-of-keys",
                                zone.noteMap().size()),
                say(
                        "scenes-presenter.passes-kinds-blocks-nothing",
                        zone.pass().size(),
                        zone.blockControllers().isEmpty(),
                        listed(zone.blockControllers())),
                zone.velocityTo() == null
                        ? say("scenes-presenter.velocities-as-played")
                        : say(
                                "scenes-presenter.velocities-become",
                                zone.velocityTo().first(),
                                zone.velocityTo().last()));
    }

    private static String listed(Collection<Integer> numbers) {
        return numbers.stream().map(String::valueOf).collect(Collectors.joining(" "));
    }

    private List<String> aspects(ControlMap map) {
        return List.of(
                map.sends().stream()
                        .map(send -> SessionFormatter.control(send.kind(), send.number(), middleC()) + " "
                                + send.first() + "–" + send.last())
                        .distinct()
                        .collect(Collectors.joining(", ")),
                say("scenes-presenter.window", map.when().low(), map.when().high()),
                map.enabled() ? say("scenes-presenter.on") : say("common.off"),
                map.keep() ? say("scenes-presenter.also-reaches-the-zones") : say("common.goes-no-further"),
                map.name());
    }
}
