package dibble.session;

import dibble.gear.Ids;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.Target;
import dibble.routing.Zone;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** What a player does to a session, as functions from a session to the changed one. */
public final class Edits {
    private Edits() {}

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

    /** Changes the source with this id. */
    public static Session changeSource(Session session, String id, UnaryOperator<Source> change) {
        return session.withSources(session.sources().stream()
                .map(source -> source.id().equals(id) ? change.apply(source) : source)
                .toList());
    }

    /** Adds a source behind the others. */
    public static Session addSource(Session session, Source source) {
        return session.withSources(with(session.sources(), source));
    }

    /** Takes a source out, with its zones and control maps: they would play nothing any more. */
    public static Session deleteSource(Session session, String id) {
        Session without = eachZoneList(
                        session,
                        zones -> zones.stream()
                                .filter(zone -> !zone.source().equals(id))
                                .toList())
                .withSources(session.sources().stream()
                        .filter(source -> !source.id().equals(id))
                        .toList());
        Session quiet = ControlEdits.eachList(
                without,
                maps -> maps.stream().filter(map -> !map.source().equals(id)).toList());
        return quiet.sceneSwitch() != null && quiet.sceneSwitch().source().equals(id)
                ? quiet.withSceneSwitch(null)
                : quiet;
    }

    /** Adds an instrument behind the others. */
    public static Session addInstrument(Session session, Instrument instrument) {
        return session.withInstruments(with(session.instruments(), instrument));
    }

    /** Changes the instrument with this id. */
    public static Session changeInstrument(Session session, String id, UnaryOperator<Instrument> change) {
        return session.withInstruments(session.instruments().stream()
                .map(instrument -> instrument.id().equals(id) ? change.apply(instrument) : instrument)
                .toList());
    }

    /** Moves an instrument up (-1) or down (1) among the others. */
    public static Session moveInstrument(Session session, String id, int by) {
        return session.withInstruments(
                moved(session.instruments(), it -> it.id().equals(id), by));
    }

    /** Moves a source up (-1) or down (1) among the others. */
    public static Session moveSource(Session session, String id, int by) {
        return session.withSources(moved(session.sources(), it -> it.id().equals(id), by));
    }

    static <T> List<T> moved(List<T> items, Predicate<T> which, int by) {
        List<T> moved = new ArrayList<>(items);
        for (int from = 0; from < items.size(); from++) {
            if (which.test(items.get(from))) {
                int to = Math.max(0, Math.min(items.size() - 1, from + by));
                moved.add(to, moved.remove(from));
                return moved;
            }
        }
        return moved;
    }

    /** Takes an instrument out, with the zones that lead to it. */
    public static Session deleteInstrument(Session session, String id) {
        return eachZoneList(
                        session,
                        zones -> zones.stream()
                                .filter(zone -> !zone.to().instrument().equals(id))
                                .toList())
                .withInstruments(session.instruments().stream()
                        .filter(instrument -> !instrument.id().equals(id))
                        .toList());
    }

    /** Adds a part to an instrument, at a place among its parts; it gets a colour of its own. */
    public static Session addPart(Session session, String instrument, Part part, int place) {
        Session longer = changeInstrument(session, instrument, it -> {
            List<Part> parts = new ArrayList<>(it.parts());
            parts.add(Math.min(place, parts.size()), part.withColour(0));
            return it.withParts(parts);
        });
        return longer.withInstruments(Colours.give(longer.instruments()));
    }

    /** Takes a part out, with the zones that lead to it. */
    public static Session deletePart(Session session, PartRef ref) {
        Session without = eachZoneList(
                session,
                zones -> zones.stream().filter(zone -> !leadsTo(zone.to(), ref)).toList());
        return changeInstrument(
                without,
                ref.instrument(),
                it -> it.withParts(it.parts().stream()
                        .filter(part -> !part.id().equals(ref.part()))
                        .toList()));
    }

    /** Moves a part up (-1) or down (1) among those of its instrument. */
    public static Session movePart(Session session, PartRef ref, int by) {
        return changeInstrument(
                session,
                ref.instrument(),
                it -> it.withParts(moved(it.parts(), part -> part.id().equals(ref.part()), by)));
    }

    /** Changes a part. */
    public static Session changePart(Session session, PartRef ref, UnaryOperator<Part> change) {
        return session.withInstruments(session.instruments().stream()
                .map(instrument -> !instrument.id().equals(ref.instrument())
                        ? instrument
                        : instrument.withParts(instrument.parts().stream()
                                .map(part -> part.id().equals(ref.part()) ? change.apply(part) : part)
                                .toList()))
                .toList());
    }

    /** Changes the scene with this id. */
    public static Session changeScene(Session session, String id, UnaryOperator<Scene> change) {
        return session.withScenes(session.scenes().stream()
                .map(scene -> scene.id().equals(id) ? change.apply(scene) : scene)
                .toList());
    }

    /**
     * Gives zones and control maps other ids where one is used in several scenes, as a file may have it: while a
     * session is edited, an id names one thing.
     */
    public static Session withDistinctIds(Session session) {
        Set<String> zones = new HashSet<>();
        Set<String> controls = new HashSet<>();
        Session first = session.withZones(distinct(session.zones(), Zone::id, Zone::withId, zones))
                .withControls(distinct(session.controls(), ControlMap::id, ControlMap::withId, controls));
        List<Scene> scenes = new ArrayList<>();
        for (Scene scene : session.scenes()) {
            scenes.add(scene.withZones(distinct(scene.zones(), Zone::id, Zone::withId, zones))
                    .withControls(distinct(scene.controls(), ControlMap::id, ControlMap::withId, controls)));
        }
        Session distinct = first.withScenes(scenes);
        return distinct.equals(session) ? session : distinct;
    }

    private static <T> List<T> distinct(
            List<T> items, Function<T, String> id, BiFunction<T, String, T> withId, Set<String> taken) {
        List<T> distinct = new ArrayList<>();
        for (T item : items) {
            String fresh = Ids.fresh(id.apply(item), taken::contains);
            taken.add(fresh);
            distinct.add(fresh.equals(id.apply(item)) ? item : withId.apply(item, fresh));
        }
        return distinct;
    }

    /**
     * Cuts a zone in two that play the same: the new one has the keys from a key up.
     *
     * @throws IllegalArgumentException where the key is not above the zone's first, and in it
     */
    public static Session cutZone(Session session, String id, String newId, int at) {
        Zone zone = session.zone(id).orElseThrow();
        if (at <= zone.keys().low() || at > zone.keys().high()) {
            throw new IllegalArgumentException("cut at key " + at + " (expected "
                    + (zone.keys().low() + 1) + " to " + zone.keys().high() + ")");
        }
        String scene = session.sceneOf(id).map(Scene::id).orElse(null);
        Session cut =
                changeZone(session, id, it -> it.withKeys(new Range(it.keys().low(), at - 1)));
        return addZone(
                cut, zone.withId(newId).withKeys(new Range(at, zone.keys().high())), scene);
    }

    /**
     * Adds the like of a zone.
     *
     * @param source who plays it
     * @param scene the scene that it holds in, or null for always
     */
    public static Session copyZone(Session session, String id, String newId, String source, String scene) {
        Zone zone = session.zone(id).orElseThrow();
        return addZone(session, zone.edit().id(newId).source(source).build(), scene);
    }

    /** Has a zone hold in one scene, or (null) always. */
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
     * Has the zones of a source meet: a gap between neighbours is given to the lower one, and where they overlap in part
     * the lower one ends before the upper one begins. Zones of which one lies within the other are a layer, and stay.
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
     * Has some keys of a source play the keyswitches of a part, one after the other.
     *
     * @param first the key that plays the first switch
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
            throw new IllegalArgumentException("part " + part + " has no keyswitches (expected one or more)");
        }
        Zone zone = Zone.of(id, "", source, new Range(first, key - 1), part)
                .edit()
                .keyswitch(true)
                .noteMap(map)
                .dropUnmapped(true)
                .build();
        return addZone(session, zone, null);
    }

    /** Adds a track for each of some notes of a part that has none, before the part's own. */
    public static Session addKeyTracks(Session session, PartRef ref, Collection<Integer> notes) {
        Part part = session.part(ref).orElseThrow();
        List<Track> tracks = new ArrayList<>(session.tracks());
        for (int note : notes) {
            Track.Input input = new Track.OfKey(ref, note);
            if (tracks.stream().noneMatch(track -> track.input().equals(input))) {
                String name = part.noteNames().getOrDefault(note, part.name() + " " + note);
                String id = Ids.fresh(
                        name,
                        taken -> tracks.stream().anyMatch(track -> track.id().equals(taken)));
                int place = 0;
                while (place < tracks.size() && !tracks.get(place).takesAllOf(ref)) {
                    place++;
                }
                tracks.add(place < tracks.size() ? place : rest(tracks), Track.of(id, name, input));
            }
        }
        return session.withTracks(tracks);
    }

    public static Session deleteZone(Session session, String id) {
        return eachZoneList(
                session,
                zones -> zones.stream().filter(zone -> !zone.id().equals(id)).toList());
    }

    private static Session eachZoneList(Session session, UnaryOperator<List<Zone>> change) {
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
     * Lets a source play a part on top of all that it plays already.
     *
     * @param id the new zone's id
     */
    public static Session layerPart(Session session, String id, String source, PartRef part, Range keys) {
        return addZone(session, newZone(session, id, source, part, keys), null);
    }

    /**
     * Lets a source play a part beside what it plays already: the zones under the key are cut there, the new part gets
     * the keys from it upwards (or, with {@code below}, those under it), as far as the cut zones reached.
     *
     * @param at the first key of the upper side
     */
    public static Session splitAt(
            Session session, String id, String source, PartRef part, Range keys, int at, boolean below) {
        if (at <= keys.low() || at > keys.high()) {
            throw new IllegalArgumentException(
                    "split at key " + at + " (expected " + (keys.low() + 1) + " to " + keys.high() + ")");
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
            return session.withZones(with(session.zones(), zone));
        }
        return session.withScenes(session.scenes().stream()
                .map(scene -> scene.id().equals(sceneId) ? scene.withZones(with(scene.zones(), zone)) : scene)
                .toList());
    }

    private static <T> List<T> with(List<T> list, T item) {
        List<T> longer = new ArrayList<>(list);
        longer.add(item);
        return longer;
    }

    /** Adds a track for each part that a zone leads to and no track takes, in the order of the instruments. */
    public static Session addMissingTracks(Session session) {
        List<Track> tracks = new ArrayList<>(session.tracks());
        session.instruments()
                .forEach(instrument -> instrument.parts().forEach(part -> {
                    PartRef ref = instrument.ref(part);
                    boolean fed = session.allZones().stream().anyMatch(zone -> leadsTo(zone, ref));
                    if (fed && session.trackOf(ref).isEmpty()) {
                        String id = Ids.fresh(
                                part.name(),
                                taken -> tracks.stream()
                                        .anyMatch(track -> track.id().equals(taken)));
                        tracks.add(rest(tracks), Track.of(id, part.name(), ref));
                    }
                }));
        return session.withTracks(tracks);
    }

    /** A track for what no other track takes. */
    public static Track restTrack(Session session) {
        String id = Ids.fresh(
                "everything-else",
                taken -> session.tracks().stream().anyMatch(track -> track.id().equals(taken)));
        return Track.of(id, "Everything else", new Track.Rest());
    }

    /** Where a new track goes: before the one that takes what is left. */
    private static int rest(List<Track> tracks) {
        int last = tracks.size() - 1;
        return last >= 0 && tracks.get(last).takesRest() ? last : tracks.size();
    }

    private static boolean leadsTo(Zone zone, PartRef part) {
        return zone.enabled() && leadsTo(zone.to(), part);
    }

    private static boolean leadsTo(Target target, PartRef part) {
        return target instanceof Target.ToPart to && to.part().equals(part);
    }

    /** Keeps a new take, with the tracks that were printed from it. */
    public static Session keepTake(Session session, Take take, List<Track> printed) {
        return replaceTracks(session, printed).withTakes(with(session.takes(), take));
    }

    /** Puts tracks in the place of those of the same ids; new ones come behind the others. */
    public static Session replaceTracks(Session session, List<Track> others) {
        Map<String, Track> tracks = new LinkedHashMap<>();
        session.tracks().forEach(track -> tracks.put(track.id(), track));
        others.forEach(track -> tracks.put(track.id(), track));
        return session.withTracks(List.copyOf(tracks.values()));
    }

    /** An id and a name for the next take: {@code take-3} and {@code Take 3}. */
    public static String freshTakeId(Session session) {
        int number = session.takes().size() + 1;
        while (hasTake(session, "take-" + number)) {
            number++;
        }
        return "take-" + number;
    }

    /** Whether an id is taken, also by a take that is gone of which something is still on a track. */
    private static boolean hasTake(Session session, String id) {
        return session.takes().stream().anyMatch(take -> take.id().equals(id))
                || session.tracks().stream()
                        .anyMatch(track -> !track.regions().of(id).isEmpty());
    }
}
