package dibble.session;

import dibble.gear.Extras;
import dibble.gear.Instrument;
import dibble.gear.SoundFile;
import dibble.gear.Source;
import dibble.midi.MiddleC;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSwitch;
import dibble.routing.Zone;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.util.List;
import java.util.Map;

/** Makes a session that differs from another in some fields. */
public final class SessionBuilder {
    private String name;
    private MiddleC middleC;
    private TempoMap tempo;
    private List<Marker> markers;
    private List<Source> sources;
    private List<Instrument> instruments;
    private List<Zone> zones;
    private List<ControlMap> controls;
    private List<Scene> scenes;
    private SceneSwitch sceneSwitch;
    private List<Track> tracks;
    private List<Take> takes;
    private List<Settled> settled;
    private ClockPlan clock;
    private Map<Integer, String> outputs;
    private List<SoundFile> soundFiles;
    private Extras extras;
    private Foreign foreign;

    /** A session with nothing in it. */
    public SessionBuilder(String name) {
        this.name = name;
        middleC = MiddleC.C4;
        tempo = TempoMap.of(96);
        markers = List.of();
        sources = List.of();
        instruments = List.of();
        zones = List.of();
        controls = List.of();
        scenes = List.of();
        tracks = List.of();
        takes = List.of();
        settled = List.of();
        clock = ClockPlan.NONE;
        outputs = Map.of();
        soundFiles = List.of();
        extras = Extras.NONE;
        foreign = Foreign.NONE;
    }

    /** Begins with all that a session has. */
    public SessionBuilder(Session session) {
        name = session.name();
        middleC = session.middleC();
        tempo = session.tempo();
        markers = session.markers();
        sources = session.sources();
        instruments = session.instruments();
        zones = session.zones();
        controls = session.controls();
        scenes = session.scenes();
        sceneSwitch = session.sceneSwitch();
        tracks = session.tracks();
        takes = session.takes();
        settled = session.settled();
        clock = session.clock();
        outputs = session.outputs();
        soundFiles = session.soundFiles();
        extras = session.extras();
        foreign = session.foreign();
    }

    public SessionBuilder name(String value) {
        name = value;
        return this;
    }

    public SessionBuilder middleC(MiddleC value) {
        middleC = value;
        return this;
    }

    public SessionBuilder tempo(TempoMap value) {
        tempo = value;
        return this;
    }

    public SessionBuilder markers(List<Marker> value) {
        markers = value;
        return this;
    }

    public SessionBuilder sources(List<Source> value) {
        sources = value;
        return this;
    }

    public SessionBuilder instruments(List<Instrument> value) {
        instruments = value;
        return this;
    }

    public SessionBuilder zones(List<Zone> value) {
        zones = value;
        return this;
    }

    public SessionBuilder controls(List<ControlMap> value) {
        controls = value;
        return this;
    }

    public SessionBuilder scenes(List<Scene> value) {
        scenes = value;
        return this;
    }

    public SessionBuilder sceneSwitch(SceneSwitch value) {
        sceneSwitch = value;
        return this;
    }

    public SessionBuilder tracks(List<Track> value) {
        tracks = value;
        return this;
    }

    public SessionBuilder takes(List<Take> value) {
        takes = value;
        return this;
    }

    public SessionBuilder settled(List<Settled> value) {
        settled = value;
        return this;
    }

    public SessionBuilder clock(ClockPlan value) {
        clock = value;
        return this;
    }

    public SessionBuilder outputs(Map<Integer, String> value) {
        outputs = value;
        return this;
    }

    public SessionBuilder soundFiles(List<SoundFile> value) {
        soundFiles = value;
        return this;
    }

    public SessionBuilder extras(Extras value) {
        extras = value;
        return this;
    }

    public SessionBuilder foreign(Foreign value) {
        foreign = value;
        return this;
    }

    /** The session as it has been told. */
    public Session build() {
        return new Session(
                name,
                middleC,
                tempo,
                markers,
                sources,
                instruments,
                zones,
                controls,
                scenes,
                sceneSwitch,
                tracks,
                takes,
                settled,
                clock,
                outputs,
                soundFiles,
                extras,
                foreign);
    }
}
