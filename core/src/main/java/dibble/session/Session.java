package dibble.session;

import static dibble.text.CoreText.say;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Ranges;
import dibble.gear.SoundFile;
import dibble.gear.Source;
import dibble.gear.UnknownFields;
import dibble.midi.MiddleC;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SceneSwitch;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.text.UserException;
import dibble.time.Marker;
import dibble.time.TempoMap;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * The document: the content of a session file, covered by undo. Immutable.
 *
 * @param markers the markers in order
 * @param zones the zones that hold in every scene
 * @param controls the control maps that hold in every scene
 * @param sceneSwitch the program changes that call scenes, or null for none
 * @param settled findings that the player accepts
 * @param clock the output and input of MIDI clock
 * @param outputs names of outputs, by their numbers 1-64
 * @param soundFiles the sound files for parts
 * @param foreign other entries of its container
 */
@RecordBuilder
public record Session(
        String name,
        MiddleC middleC,
        TempoMap tempo,
        List<Marker> markers,
        List<Source> sources,
        List<Instrument> instruments,
        List<Zone> zones,
        List<ControlMap> controls,
        List<Scene> scenes,
        SceneSwitch sceneSwitch,
        List<Track> tracks,
        List<Take> takes,
        List<AcceptedFinding> settled,
        ClockPlan clock,
        Map<Integer, String> outputs,
        List<SoundFile> soundFiles,
        UnknownFields extras,
        UnknownEntries foreign)
        implements SessionBuilder.With {
    public Session {
        markers = markers.stream().sorted(Comparator.comparingLong(Marker::at)).toList();
        sources = List.copyOf(sources);
        instruments = List.copyOf(instruments);
        zones = List.copyOf(zones);
        controls = List.copyOf(controls);
        scenes = List.copyOf(scenes);
        tracks = List.copyOf(tracks);
        takes = List.copyOf(takes);
        settled = List.copyOf(settled);
        outputs.keySet().forEach(number -> Ranges.range("number.output", number, 1, 64));
        outputs = Collections.unmodifiableMap(new LinkedHashMap<>(outputs));
        soundFiles = List.copyOf(soundFiles);
        unique("thing.sound-file", soundFiles, SoundFile::id);
        unique("thing.source", sources, Source::id);
        unique("thing.instrument", instruments, Instrument::id);
        unique("thing.scene", scenes, Scene::id);
        unique("thing.track", tracks, Track::id);
        unique("thing.take", takes, Take::id);
        unique("thing.zone", zones, Zone::id);
        unique("thing.control-map", controls, ControlMap::id);
        for (Scene scene : scenes) {
            unique("thing.zone", scene.zones(), Zone::id);
            unique("thing.control-map", scene.controls(), ControlMap::id);
        }
    }

    private static <T> void unique(String what, List<T> list, Function<T, String> id) {
        Set<String> ids = new HashSet<>();
        for (T item : list) {
            if (!ids.add(id.apply(item))) {
                throw new UserException(say("session.appears-twice-expected-unique-ids", say(what), id.apply(item)));
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
                null,
                List.of(),
                List.of(),
                List.of(),
                ClockPlan.NONE,
                Map.of(),
                List.of(),
                UnknownFields.NONE,
                UnknownEntries.NONE);
    }

    /** The file of sounds with an id, if there is one. */
    public Optional<SoundFile> soundFile(String id) {
        return soundFiles.stream().filter(file -> file.id().equals(id)).findFirst();
    }

    /** The source with an id, if there is one. */
    public Optional<Source> source(String id) {
        return sources.stream().filter(source -> source.id().equals(id)).findFirst();
    }

    /** The instrument with an id, if there is one. */
    public Optional<Instrument> instrument(String id) {
        return instruments.stream()
                .filter(instrument -> instrument.id().equals(id))
                .findFirst();
    }

    /** The part that is pointed to, if it is there. */
    public Optional<Part> part(PartRef ref) {
        return instrument(ref.instrument()).flatMap(instrument -> instrument.part(ref.part()));
    }

    /** The scene with an id, if there is one. */
    public Optional<Scene> scene(String id) {
        return scenes.stream().filter(scene -> scene.id().equals(id)).findFirst();
    }

    /** The track with an id, if there is one. */
    public Optional<Track> track(String id) {
        return tracks.stream().filter(track -> track.id().equals(id)).findFirst();
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

    /** All control maps of all scenes, after those that are always there. */
    public List<ControlMap> allControls() {
        List<ControlMap> all = new ArrayList<>(controls);
        scenes.forEach(scene -> all.addAll(scene.controls()));
        return all;
    }

    /** All zones of all scenes, after those that are always there. */
    public List<Zone> allZones() {
        List<Zone> all = new ArrayList<>(zones);
        scenes.forEach(scene -> all.addAll(scene.zones()));
        return all;
    }

    /** The track that takes a part. */
    public Optional<Track> trackOf(PartRef part) {
        return tracks.stream().filter(track -> track.takesAllOf(part)).findFirst();
    }

    /** The track that takes a note of a part: its own, else the part's. */
    public Optional<Track> trackOf(PartRef part, int note) {
        Track.Input own = new Track.OfKey(part, note);
        return tracks.stream()
                .filter(track -> track.input().equals(own))
                .findFirst()
                .or(() -> trackOf(part));
    }

    /** The part that a zone leads to, where it leads to one that is there. */
    public Optional<Part> partOf(Zone zone) {
        return zone.to() instanceof ZoneTarget.ToPart to ? part(to.part()) : Optional.empty();
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

    /** Returns the routing with a performance. */
    public Routing routing(Performance performance) {
        return routing(performance, channels(performance));
    }

    /** The same with channels that are planned already. */
    Routing routing(Performance performance, ChannelPlan channels) {
        return new Routing(
                sources, instruments, channels, zones, controls, scenes, sceneSwitch, activeScene(performance));
    }
}
