package dibble.sheet;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.SoundNames;
import dibble.gear.Source;
import dibble.midi.NoteNames;
import dibble.recording.Track;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** The content of a sheet as properties of objects, by which two sessions are compared. */
final class Facts {
    /**
     * @param name its kind and name
     * @param facts its properties by their names
     */
    record Thing(String name, Map<String, String> facts) {}

    private final Session session;
    private final Routing routing;
    private final SheetFormatter words;
    private final Map<String, Thing> things = new LinkedHashMap<>();
    private Map<String, String> facts;

    Facts(Session session, Performance performance) {
        this.session = session;
        routing = session.routing(performance);
        words = new SheetFormatter(session);
    }

    /** Everything by an id that is the same in another session that came from this one. */
    Map<String, Thing> things() {
        begin("session", say("compare.session"));
        fact(say("compare.name"), session.name());
        fact(say("compare.tempo"), SessionFormatter.tempo(session.tempo()));
        session.sources().forEach(this::source);
        session.instruments().forEach(this::instrument);
        zones("", session.zones());
        controls("", session.controls());
        for (int i = 0; i < session.scenes().size(); i++) {
            scene(session.scenes().get(i), i);
        }
        session.tracks().forEach(this::track);
        return things;
    }

    private void begin(String id, String name) {
        facts = new LinkedHashMap<>();
        things.put(id, new Thing(name, facts));
    }

    private void fact(String what, String value) {
        if (!value.isEmpty()) {
            facts.put(what, value);
        }
    }

    private void source(Source source) {
        begin("source " + source.id(), say("compare.source", source.name()));
        fact(say("compare.name"), source.name());
        fact(say("compare.keys"), words.keys(source.keys()));
        fact(say("compare.port-and-channels"), words.about(source));
        fact(
                say("compare.lanes"),
                source.lanes().stream()
                        .map(lane -> lane.channel() + " " + lane.name())
                        .collect(Collectors.joining(", ")));
    }

    private void instrument(Instrument instrument) {
        begin("instrument " + instrument.id(), say("compare.instrument", instrument.name()));
        fact(say("compare.name"), instrument.name());
        fact(say("compare.port"), SessionFormatter.port(instrument.port(), session));
        fact(say("compare.channels"), SheetFormatter.receives(instrument.receives()));
        fact(say("compare.sound-names"), names(instrument.names()));
        for (Part part : instrument.parts()) {
            part(instrument, part);
        }
    }

    private void part(Instrument instrument, Part part) {
        begin("part " + instrument.ref(part), say("compare.part", part.name()));
        fact(say("compare.name"), part.name());
        fact(say("compare.channel"), SessionFormatter.channel(instrument.ref(part), routing));
        fact(say("compare.program"), words.program(instrument.ref(part), part));
        fact(say("compare.keys"), words.keys(part.keys()));
        fact(say("compare.level"), SheetFormatter.level(part.strip().levelNow()));
        fact(say("compare.pan"), String.valueOf(part.strip().panNow()));
        fact(
                say("compare.output"),
                instrument.builtIn() ? String.valueOf(part.strip().output()) : "");
        fact(say("compare.keyswitches"), names(part.keyswitches()));
        fact(say("compare.note-names"), names(part.noteNames()));
    }

    private static String names(SoundNames names) {
        return names == null
                ? ""
                : say(
                        "compare.names-of",
                        names.maker() + " " + names.model(),
                        names.banks().size(),
                        names.count(),
                        names.bankSelect().word());
    }

    private String names(Map<Integer, String> names) {
        return new TreeMap<>(names)
                .entrySet().stream()
                        .map(entry ->
                                NoteNames.nameAndNumber(entry.getKey(), session.middleC()) + " " + entry.getValue())
                        .collect(Collectors.joining(", "));
    }

    private void zones(String scene, List<Zone> zones) {
        for (Zone zone : zones) {
            begin(
                    "zone " + scene + " " + zone.id(),
                    say("compare.zone", SessionFormatter.zone(zone, session), scene.isEmpty(), sceneName(scene)));
            fact(say("compare.name"), zone.name());
            fact(say("compare.played-by"), SessionFormatter.source(zone.source(), session));
            fact(say("compare.sound"), SessionFormatter.target(zone.to(), session));
            fact(say("compare.how"), String.join(" · ", words.details(zone)));
            fact(say("compare.note-map"), noteMap(zone));
        }
    }

    private String noteMap(Zone zone) {
        return zone.noteMap().entrySet().stream()
                .map(entry -> NoteNames.nameAndNumber(entry.getKey(), session.middleC()) + " → "
                        + entry.getValue().stream()
                                .map(note -> NoteNames.nameAndNumber(note, session.middleC()))
                                .collect(Collectors.joining(" + ")))
                .collect(Collectors.joining(", "));
    }

    private String sceneName(String id) {
        return session.scene(id).map(Scene::name).orElse(id);
    }

    private void controls(String scene, List<ControlMap> maps) {
        for (ControlMap map : maps) {
            begin(
                    "control " + scene + " " + map.id(),
                    say(
                            "compare.control",
                            SessionFormatter.controlMap(map, session),
                            scene.isEmpty(),
                            sceneName(scene)));
            fact(say("compare.name"), map.name());
            fact(say("compare.moved-by"), SessionFormatter.source(map.source(), session) + ", " + words.when(map));
            fact(say("compare.does"), map.sends().stream().map(words::send).collect(Collectors.joining("; ")));
            fact(say("compare.how"), String.join(" · ", SheetFormatter.manner(map)));
        }
    }

    private void scene(Scene scene, int place) {
        begin("scene " + scene.id(), say("compare.scene", scene.name()));
        fact(say("compare.name"), scene.name());
        fact(say("compare.place"), String.valueOf(place + 1));
        fact(say("compare.program-change"), scene.program() == null ? "" : String.valueOf(scene.program() + 1));
        for (SceneSound sound : scene.sounds()) {
            Part part = session.part(sound.part()).orElse(null);
            fact(
                    say("compare.sound-of", part == null ? sound.part().toString() : part.name()),
                    words.sound(sound.part(), sound.sound()));
        }
        zones(scene.id(), scene.zones());
        controls(scene.id(), scene.controls());
    }

    private void track(Track track) {
        begin("track " + track.id(), say("compare.track", track.name()));
        fact(say("compare.name"), track.name());
        fact(say("compare.takes"), SessionFormatter.playedBy(track, session, session.allZones()));
        fact(say("compare.notes"), String.valueOf(track.noteCount()));
    }
}
