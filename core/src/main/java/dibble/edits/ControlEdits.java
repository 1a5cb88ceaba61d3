package dibble.edits;

import dibble.gear.Ids;
import dibble.gear.PartRef;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SendTarget;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Edits of control maps, as functions from a session to the changed one. */
public final class ControlEdits {
    /** Controller 11, expression: the share of a part's volume that players move. */
    public static final int EXPRESSION = 11;

    private ControlEdits() {}

    static Session eachList(Session session, UnaryOperator<List<ControlMap>> change) {
        List<Scene> scenes = session.scenes().stream()
                .map(scene -> scene.withControls(change.apply(scene.controls())))
                .toList();
        return session.withControls(change.apply(session.controls())).withScenes(scenes);
    }

    /** A control map, wherever it is. */
    public static Optional<ControlMap> find(Session session, String id) {
        return session.allControls().stream().filter(map -> map.id().equals(id)).findFirst();
    }

    /** The scene that a control map belongs to; empty for one that is always there, or nowhere. */
    public static Optional<Scene> sceneOf(Session session, String id) {
        return session.scenes().stream()
                .filter(scene ->
                        scene.controls().stream().anyMatch(map -> map.id().equals(id)))
                .findFirst();
    }

    /** An id for a new control map, made of its name. */
    public static String freshId(Session session, String name) {
        return Ids.fresh(name, id -> find(session, id).isPresent());
    }

    /** Adds a control map to a scene, or with null to those that are always there. */
    public static Session add(Session session, ControlMap map, String scene) {
        return scene == null
                ? session.withControls(with(session.controls(), map))
                : SceneEdits.changeScene(session, scene, it -> it.withControls(with(it.controls(), map)));
    }

    private static List<ControlMap> with(List<ControlMap> maps, ControlMap map) {
        List<ControlMap> longer = new ArrayList<>(maps);
        longer.add(map);
        return longer;
    }

    /** Changes the control map with this id, wherever it is. */
    public static Session change(Session session, String id, UnaryOperator<ControlMap> change) {
        return eachList(
                session,
                maps -> maps.stream()
                        .map(map -> map.id().equals(id) ? change.apply(map) : map)
                        .toList());
    }

    /** Takes a control map out, wherever it is. */
    public static Session delete(Session session, String id) {
        return eachList(
                session,
                maps -> maps.stream().filter(map -> !map.id().equals(id)).toList());
    }

    /** Moves a control map up (-1) or down (1) among those that hold where it does. */
    public static Session move(Session session, String id, int by) {
        return eachList(session, maps -> Lists.moved(maps, map -> map.id().equals(id), by));
    }

    /** Makes a control map hold in one scene, or always if the scene is null. */
    public static Session holdIn(Session session, String id, String scene) {
        ControlMap map = find(session, id).orElseThrow();
        String now = sceneOf(session, id).map(Scene::id).orElse(null);
        return Objects.equals(now, scene) ? session : add(delete(session, id), map, scene);
    }

    /** A control that fades one sound into another by their expression, and leaves both whole. */
    public static ControlMap fade(
            String id, String name, String source, ControlMap.Trigger when, PartRef from, PartRef to) {
        return new ControlMap(
                id,
                name,
                source,
                ChannelSet.ALL,
                false,
                false,
                true,
                when,
                List.of(expression(from, 127, 0), expression(to, 0, 127)),
                UnknownFields.NONE);
    }

    private static ControlMap.Send expression(PartRef part, int first, int last) {
        return new ControlMap.Send(ControlKind.CONTROLLER, EXPRESSION, first, last, 127, new ZoneTarget.ToPart(part));
    }

    /**
     * A control that does the same to many parts.
     *
     * @param parts them, or none for all there are
     */
    public static ControlMap many(
            String id,
            String name,
            String source,
            ControlMap.Trigger when,
            ControlKind kind,
            int number,
            List<PartRef> parts) {
        List<SendTarget> aims = new ArrayList<>();
        parts.forEach(part -> aims.add(new ZoneTarget.ToPart(part)));
        if (aims.isEmpty()) {
            aims.add(new SendTarget.AllParts());
        }
        List<ControlMap.Send> sends = aims.stream()
                .map(aim -> ControlMap.Send.whole(kind, number, aim))
                .toList();
        return new ControlMap(id, name, source, ChannelSet.ALL, false, false, true, when, sends, UnknownFields.NONE);
    }
}
