package dibble.edits;

import dibble.gear.Ids;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.UnknownFields;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.SendTarget;
import dibble.session.DistinctIds;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;

/** Edits of scenes, as functions from a session to the changed one. */
public final class SceneEdits {
    private SceneEdits() {}

    /** An id for a new scene, made of its name. */
    public static String freshId(Session session, String name) {
        return Ids.fresh(name, id -> session.scene(id).isPresent());
    }

    /** Adds an empty scene behind another, or (null) behind all; it is called by the first program that is free. */
    public static Session add(Session session, String id, String name, String after) {
        Scene scene = Scene.of(id, name, freeProgram(session), List.of());
        return session.withScenes(inserted(session.scenes(), scene, after));
    }

    private static Integer freeProgram(Session session) {
        return IntStream.rangeClosed(0, 127)
                .boxed()
                .filter(program -> session.scenes().stream().noneMatch(it -> program.equals(it.program())))
                .findFirst()
                .orElse(null);
    }

    private static List<Scene> inserted(List<Scene> scenes, Scene scene, String after) {
        List<Scene> longer = new ArrayList<>(scenes);
        int place = scenes.size();
        for (int i = 0; i < scenes.size(); i++) {
            if (scenes.get(i).id().equals(after)) {
                place = i + 1;
            }
        }
        longer.add(place, scene);
        return longer;
    }

    /** Adds a copy of a scene behind it, with copies of its zones, control maps and sounds under new ids. */
    public static Session duplicate(Session session, String id, String newId, String name) {
        Scene scene = session.scene(id).orElseThrow();
        Scene copy = scene.withId(newId).withName(name).withProgram(freeProgram(session));
        return DistinctIds.withDistinctIds(session.withScenes(inserted(session.scenes(), copy, id)));
    }

    /** Takes a scene out, with the sends that call it; a control map that did nothing else goes with it. */
    public static Session delete(Session session, String id) {
        Session without = session.withScenes(session.scenes().stream()
                .filter(scene -> !scene.id().equals(id))
                .toList());
        Predicate<ControlMap.Send> calls =
                send -> send.to() instanceof SendTarget.ToScene to && to.scene().equals(id);
        return ControlEdits.eachList(
                without,
                maps -> maps.stream()
                        .filter(map -> !map.sends().stream().allMatch(calls))
                        .map(map -> map.sends().stream().noneMatch(calls)
                                ? map
                                : map.withSends(map.sends().stream()
                                        .filter(calls.negate())
                                        .toList()))
                        .toList());
    }

    /** Moves a scene up (-1) or down (1) among the others. */
    public static Session move(Session session, String id, int by) {
        return session.withScenes(
                Lists.moved(session.scenes(), scene -> scene.id().equals(id), by));
    }

    /** Changes the sound that a scene sets for a part; with an empty sound the scene leaves the part as it is. */
    public static Session changeSound(Session session, String scene, PartRef part, UnaryOperator<Sound> change) {
        return SceneEdits.changeScene(session, scene, it -> {
            List<SceneSound> sounds = new ArrayList<>();
            SceneSound before = new SceneSound(part, new Sound(null, null, null, null), UnknownFields.NONE);
            int place = it.sounds().size();
            for (SceneSound sound : it.sounds()) {
                if (sound.part().equals(part)) {
                    before = sound;
                    place = sounds.size();
                } else {
                    sounds.add(sound);
                }
            }
            Sound next = change.apply(before.sound());
            if (!isEmpty(next)) {
                sounds.add(place, new SceneSound(part, next, before.extras()));
            }
            return it.withSounds(sounds);
        });
    }

    private static boolean isEmpty(Sound sound) {
        return sound.bank() == null && sound.program() == null && sound.volume() == null && sound.pan() == null;
    }

    /** The scene a number of places before (-1) or after (1) another; null where there is none. */
    public static Scene neighbour(Session session, String id, int by) {
        List<Scene> scenes = session.scenes();
        for (int i = 0; i < scenes.size(); i++) {
            if (Objects.equals(scenes.get(i).id(), id)) {
                return i + by >= 0 && i + by < scenes.size() ? scenes.get(i + by) : null;
            }
        }
        return null;
    }

    /** Changes the scene with this id. */
    public static Session changeScene(Session session, String id, UnaryOperator<Scene> change) {
        return session.withScenes(session.scenes().stream()
                .map(scene -> scene.id().equals(id) ? change.apply(scene) : scene)
                .toList());
    }
}
