package dibble.edits;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.PartRef;
import dibble.midi.Range;
import dibble.routing.Scene;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/** Edits of zones, as functions from a session to the changed one. */
public final class ZoneEdits {
    private ZoneEdits() {}

    /** Changes the zone with this id, wherever it is. */
    public static Session changeZone(Session session, String id, UnaryOperator<Zone> change) {
        return changeZones(session, List.of(id), change);
    }

    /** Changes the zones with these ids, wherever they are. */
    public static Session changeZones(Session session, Collection<String> ids, UnaryOperator<Zone> change) {
        return eachZoneList(
                session,
                zones -> zones.stream()
                        .map(zone -> ids.contains(zone.id()) ? change.apply(zone) : zone)
                        .toList());
    }

    /**
     * Cuts a zone in two that play the same: the new one has the keys from a key up.
     *
     * @throws UserException where the key is not above the zone's first, and in it
     */
    public static Session cutZone(Session session, String id, String newId, int at) {
        Zone zone = session.zone(id).orElseThrow();
        if (at <= zone.keys().low() || at > zone.keys().high()) {
            throw new UserException(say(
                    "zone-edits.split-at-key-expected-to",
                    at,
                    zone.keys().low() + 1,
                    zone.keys().high()));
        }
        String scene = session.sceneOf(id).map(Scene::id).orElse(null);
        Session cut =
                changeZone(session, id, it -> it.withKeys(new Range(it.keys().low(), at - 1)));
        return addZone(
                cut, zone.withId(newId).withKeys(new Range(at, zone.keys().high())), scene);
    }

    /**
     * Adds a copy of a zone.
     *
     * @param source the source of the copy
     * @param scene the scene of the copy, or null for always
     */
    public static Session copyZone(Session session, Zone zone, String newId, String source, String scene) {
        return addZone(session, zone.with().id(newId).source(source).build(), scene);
    }

    /** Moves a zone to one scene, or to all if the scene is null. */
    public static Session moveZone(Session session, String id, String scene) {
        Zone zone = session.zone(id).orElseThrow();
        return session.sceneOf(id)
                        .map(Scene::id)
                        .filter(now -> now.equals(scene))
                        .isPresent()
                ? session
                : addZone(deleteZone(session, id), zone, scene);
    }

    /**
     * Makes the zones of a source adjacent. The lower of two neighbors gets the keys of a gap, and ends before the
     * upper one if they partly overlap. A zone within another is a layer and stays.
     *
     * @param zones the zones that hold now
     */
    public static Session closeGaps(Session session, List<Zone> zones) {
        List<Zone> sorted = new ArrayList<>(zones);
        sorted.sort(Comparator.<Zone>comparingInt(zone -> zone.keys().low())
                .thenComparing(zone -> -zone.keys().high()));
        Session closed = session;
        List<Zone> group = new ArrayList<>();
        int high = -1;
        for (Zone zone : sorted) {
            int low = zone.keys().low();
            boolean within = !group.isEmpty() && zone.keys().high() <= high;
            if (!group.isEmpty() && !within) {
                int end = high;
                for (Zone lower : group) {
                    Range keys = lower.keys();
                    if (keys.high() == end && low > keys.low()) {
                        closed = changeZone(closed, lower.id(), it -> it.withKeys(new Range(keys.low(), low - 1)));
                    }
                }
                group.clear();
            }
            group.add(zone);
            high = within ? high : zone.keys().high();
        }
        return closed;
    }

    /**
     * Assigns keys of a source to the keyswitches of a part, one after the other.
     *
     * @param first the key for the first switch
     */
    public static Session addKeyswitchZone(Session session, String id, String source, PartRef part, int first) {
        Map<Integer, List<Integer>> map = new TreeMap<>();
        int key = first;
        for (int note : session.part(part).orElseThrow().keyswitches().keySet()) {
            if (key <= 127) {
                map.put(key++, List.of(note));
            }
        }
        if (map.isEmpty()) {
            throw new UserException(say("zone-edits.part-has-no-keyswitches-expected", part));
        }
        Zone zone = Zone.of(id, "", source, new Range(first, key - 1), part)
                .with()
                .keyswitch(true)
                .noteMap(map)
                .dropUnmapped(true)
                .build();
        return addZone(session, zone, null);
    }

    /** Takes a zone out, wherever it is. */
    public static Session deleteZone(Session session, String id) {
        return eachZoneList(
                session,
                zones -> zones.stream().filter(zone -> !zone.id().equals(id)).toList());
    }

    static Session eachZoneList(Session session, UnaryOperator<List<Zone>> change) {
        List<Scene> scenes = session.scenes().stream()
                .map(scene -> scene.withZones(change.apply(scene.zones())))
                .toList();
        return session.withZones(change.apply(session.zones())).withScenes(scenes);
    }

    /** An id for a new zone, made of the part's name. */
    public static String freshZoneId(Session session, String name) {
        return Ids.fresh(name, id -> session.zone(id).isPresent());
    }

    /**
     * Adds a zone that layers a part over all zones of a source.
     *
     * @param id the id of the new zone
     */
    public static Session layerPart(Session session, String id, String source, PartRef part, Range keys) {
        return addZone(session, newZone(session, id, source, part, keys), null);
    }

    /**
     * Splits a source at a key. Its zones are cut there; the new part gets the keys from it upwards, or with {@code
     * below} the keys under it, up to the end of the cut zones.
     *
     * @param at the first key of the upper side
     */
    public static Session splitAt(
            Session session, String id, String source, PartRef part, Range keys, int at, boolean below) {
        if (at <= keys.low() || at > keys.high()) {
            throw new UserException(say("common.split-at-key-expected-to", at, keys.low() + 1, keys.high()));
        }
        Range kept = below ? new Range(at, 127) : new Range(0, at - 1);
        Range given = below ? new Range(keys.low(), at - 1) : new Range(at, keys.high());
        Session cut = eachZoneList(
                session,
                zones -> zones.stream()
                        .map(zone -> zone.source().equals(source) ? cutTo(zone, kept) : Optional.of(zone))
                        .flatMap(Optional::stream)
                        .toList());
        return addZone(cut, newZone(session, id, source, part, given), null);
    }

    private static Optional<Zone> cutTo(Zone zone, Range kept) {
        return zone.keys().overlaps(kept)
                ? Optional.of(zone.withKeys(new Range(
                        Math.max(zone.keys().low(), kept.low()),
                        Math.min(zone.keys().high(), kept.high()))))
                : Optional.empty();
    }

    private static Zone newZone(Session session, String id, String source, PartRef part, Range keys) {
        String name = session.part(part).orElseThrow().name();
        return Zone.of(id, name, source, keys, part);
    }

    /** Adds a zone to a scene, or with null to those that are always there. */
    public static Session addZone(Session session, Zone zone, String sceneId) {
        if (sceneId == null) {
            return session.withZones(Lists.with(session.zones(), zone));
        }
        return session.withScenes(session.scenes().stream()
                .map(scene -> scene.id().equals(sceneId) ? scene.withZones(Lists.with(scene.zones(), zone)) : scene)
                .toList());
    }

    static boolean leadsTo(Zone zone, PartRef part) {
        return zone.enabled() && leadsTo(zone.to(), part);
    }

    static boolean leadsTo(ZoneTarget target, PartRef part) {
        return target instanceof ZoneTarget.ToPart to && to.part().equals(part);
    }
}
