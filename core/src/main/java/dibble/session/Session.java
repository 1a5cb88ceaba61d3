package dibble.session;

import dibble.gear.ChannelPlan;
import dibble.gear.Extras;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.MiddleC;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.Target;
import dibble.routing.Zone;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * The document: everything that a file holds and that undo covers. Immutable.
 *
 * @param zones the zones that hold in every scene
 */
public record Session(
        String name,
        MiddleC middleC,
        TempoMap tempo,
        List<Source> sources,
        List<Instrument> instruments,
        List<Zone> zones,
        List<Scene> scenes,
        List<Track> tracks,
        List<Take> takes,
        Extras extras) {
    public Session {
        sources = List.copyOf(sources);
        instruments = List.copyOf(instruments);
        zones = List.copyOf(zones);
        scenes = List.copyOf(scenes);
        tracks = List.copyOf(tracks);
        takes = List.copyOf(takes);
        unique("source", sources, Source::id);
        unique("instrument", instruments, Instrument::id);
        unique("scene", scenes, Scene::id);
        unique("track", tracks, Track::id);
        unique("take", takes, Take::id);
        Stream<Zone> all = Stream.concat(zones.stream(), scenes.stream().flatMap(scene -> scene.zones().stream()));
        unique("zone", all.toList(), Zone::id);
    }

    private static <T> void unique(String what, List<T> list, Function<T, String> id) {
        Set<String> ids = new HashSet<>();
        for (T item : list) {
            if (!ids.add(id.apply(item))) {
                throw new IllegalArgumentException(what + " \"" + id.apply(item) + "\" twice (expected unique ids)");
            }
        }
    }

    /** A session with nothing in it. */
    public static Session empty(String name) {
        return new Session(
                name,
                MiddleC.C4,
                TempoMap.of(96),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Extras.NONE);
    }

    public Session withName(String text) {
        return new Session(text, middleC, tempo, sources, instruments, zones, scenes, tracks, takes, extras);
    }

    public Session withTempo(TempoMap map) {
        return new Session(name, middleC, map, sources, instruments, zones, scenes, tracks, takes, extras);
    }

    public Session withSources(List<Source> others) {
        return new Session(name, middleC, tempo, others, instruments, zones, scenes, tracks, takes, extras);
    }

    public Session withInstruments(List<Instrument> others) {
        return new Session(name, middleC, tempo, sources, others, zones, scenes, tracks, takes, extras);
    }

    public Session withZones(List<Zone> others) {
        return new Session(name, middleC, tempo, sources, instruments, others, scenes, tracks, takes, extras);
    }

    public Session withScenes(List<Scene> others) {
        return new Session(name, middleC, tempo, sources, instruments, zones, others, tracks, takes, extras);
    }

    public Session withTracks(List<Track> others) {
        return new Session(name, middleC, tempo, sources, instruments, zones, scenes, others, takes, extras);
    }

    public Session withTakes(List<Take> others) {
        return new Session(name, middleC, tempo, sources, instruments, zones, scenes, tracks, others, extras);
    }

    public Optional<Source> source(String id) {
        return sources.stream().filter(source -> source.id().equals(id)).findFirst();
    }

    public Optional<Instrument> instrument(String id) {
        return instruments.stream()
                .filter(instrument -> instrument.id().equals(id))
                .findFirst();
    }

    public Optional<Part> part(PartRef ref) {
        return instrument(ref.instrument()).flatMap(instrument -> instrument.part(ref.part()));
    }

    public Optional<Scene> scene(String id) {
        return scenes.stream().filter(scene -> scene.id().equals(id)).findFirst();
    }

    /** A zone, wherever it is. */
    public Optional<Zone> zone(String id) {
        return allZones().stream().filter(zone -> zone.id().equals(id)).findFirst();
    }

    /** The scene that a zone belongs to; empty for a zone that is always there, or nowhere. */
    public Optional<Scene> sceneOf(String zoneId) {
        return scenes.stream()
                .filter(scene ->
                        scene.zones().stream().anyMatch(zone -> zone.id().equals(zoneId)))
                .findFirst();
    }

    /** All zones of all scenes, after those that are always there. */
    public List<Zone> allZones() {
        List<Zone> all = new ArrayList<>(zones);
        scenes.forEach(scene -> all.addAll(scene.zones()));
        return all;
    }

    /** The track that takes a part. */
    public Optional<Track> trackOf(PartRef part) {
        return tracks.stream()
                .filter(track -> track.part().filter(part::equals).isPresent())
                .findFirst();
    }

    /** The part that a zone leads to, where it leads to one that is there. */
    public Optional<Part> partOf(Zone zone) {
        return zone.to() instanceof Target.ToPart to ? part(to.part()) : Optional.empty();
    }

    /** The id of the scene that holds: the performance's, if it is there, else the first; null where there is none. */
    public String activeScene(Performance performance) {
        return scene(performance.activeScene())
                .or(() -> scenes.stream().findFirst())
                .map(Scene::id)
                .orElse(null);
    }

    /** The channels of all parts, keeping those in use. */
    public ChannelPlan channels(Performance performance) {
        return ChannelPlan.of(instruments, performance.channels());
    }

    /** What decides where events go. */
    public Routing routing(Performance performance) {
        return new Routing(sources, instruments, channels(performance), zones, scenes, activeScene(performance));
    }
}
