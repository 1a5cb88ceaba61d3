package dibble.desktop.ui;

import dibble.edits.ControlEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.ControllerNames;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.Track;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.Target;
import dibble.routing.Zone;
import dibble.session.PortWords;
import dibble.session.Session;
import dibble.standins.StandIns;
import dibble.time.TempoMap;
import java.util.DoubleSummaryStatistics;
import java.util.List;
import java.util.stream.Collectors;

/** How things are said in the interface, in one place. Imports no nodes. */
public final class Words {
    private Words() {}

    /** {@code F3–C6}. */
    public static String keys(Range keys, MiddleC middleC) {
        return NoteNames.name(keys.low(), middleC) + "–" + NoteNames.name(keys.high(), middleC);
    }

    /** {@code 96 in 4/4}, {@code 60 to 132.5 in 3/4}: the meter at the beginning. */
    public static String tempo(TempoMap map) {
        DoubleSummaryStatistics bpm =
                map.tempos().stream().mapToDouble(TempoMap.Tempo::bpm).summaryStatistics();
        TempoMap.Meter meter = map.meters().get(0);
        return bpm(bpm.getMin()) + (bpm.getMin() < bpm.getMax() ? " to " + bpm(bpm.getMax()) : "") + " in "
                + meter.beats() + "/" + meter.unit();
    }

    /** Quarter notes a minute, with at most two places behind the point. */
    public static String bpm(double bpm) {
        return bpm == Math.rint(bpm) ? String.valueOf((long) bpm) : String.valueOf(Math.round(bpm * 100) / 100.0);
    }

    /** {@code ↑12}, {@code ↓7}, or nothing for 0. */
    public static String transpose(int semitones) {
        return semitones == 0 ? "" : semitones > 0 ? "↑" + semitones : "↓" + -semitones;
    }

    /** What a source lets in: {@code lets in all channels}. */
    public static String letIn(Source source) {
        if (source.listen().isAll()) {
            return "lets in all channels";
        }
        List<Integer> numbers = source.listen().numbers();
        return numbers.isEmpty()
                ? "lets in nothing"
                : (numbers.size() == 1 ? "channel " : "channels ")
                        + numbers.stream().map(String::valueOf).collect(Collectors.joining(" "));
    }

    /** A message as people read it: {@code F♯3 54 · velocity 96}, {@code CC 64 sustain · 127}. */
    public static String message(int message, MiddleC middleC) {
        int first = ShortMessage.data1(message);
        int second = ShortMessage.data2(message);
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.NOTE_ON, ShortMessage.NOTE_OFF -> {
                String note = NoteNames.nameAndNumber(first, middleC);
                yield ShortMessage.startsNote(message) ? note + " · velocity " + second : note + " · off";
            }
            case ShortMessage.KEY_PRESSURE -> NoteNames.nameAndNumber(first, middleC) + " · key pressure " + second;
            case ShortMessage.CONTROLLER -> ControllerNames.numberAndName(first) + " · " + second;
            case ShortMessage.PROGRAM_CHANGE -> "program " + (first + 1);
            case ShortMessage.CHANNEL_PRESSURE -> "pressure · " + first;
            default -> "pitch bend · " + signed((first | second << 7) - 8192);
        };
    }

    private static String signed(int number) {
        return number > 0 ? "+" + number : number < 0 ? "−" + -number : "0";
    }

    /** What a control is called: {@code CC 64 sustain}, {@code pitch bend}, {@code C4 60}. */
    public static String control(ControlKind kind, int number, MiddleC middleC) {
        return switch (kind) {
            case CONTROLLER -> ControllerNames.numberAndName(number);
            case NOTE -> "note " + NoteNames.nameAndNumber(number, middleC);
            case KEY_PRESSURE -> "key pressure " + NoteNames.nameAndNumber(number, middleC);
            case PITCH_BEND -> "pitch bend";
            case CHANNEL_PRESSURE -> "pressure";
            case PROGRAM_CHANGE -> "program change";
            case SCENE -> "scene";
        };
    }

    /** The name of a control map: its own, else what it answers to. */
    public static String controlMap(ControlMap map, Session session) {
        return map.name().isEmpty() ? control(map.when().kind(), map.when().number(), session.middleC()) : map.name();
    }

    /** The name of a thing of the session; its id where it is not there. */
    public static String thing(Places.Thing thing, Session session) {
        String id = thing.id();
        return switch (thing.kind()) {
            case ZONE -> session.zone(id).map(zone -> zone(zone, session)).orElse(id);
            case CONTROL ->
                ControlEdits.find(session, id)
                        .map(map -> controlMap(map, session))
                        .orElse(id);
            case PART -> session.part(PartRef.parse(id)).map(Part::name).orElse(id);
            case SCENE -> session.scene(id).map(Scene::name).orElse(id);
            case INSTRUMENT -> session.instrument(id).map(Instrument::name).orElse(id);
            case SOURCE -> session.source(id).map(Source::name).orElse(id);
            case TRACK ->
                session.tracks().stream()
                        .filter(track -> track.id().equals(id))
                        .findFirst()
                        .map(Track::name)
                        .orElse(id);
        };
    }

    /** Who a source's id names. */
    public static String source(String id, Session session) {
        return id.equals(Zone.ANY_SOURCE)
                ? "all sources"
                : session.source(id).map(Source::name).orElse("no such source: " + id);
    }

    /** The name of a zone: its own, else its part's, else what it points to. */
    public static String zone(Zone zone, Session session) {
        return zone.name().isEmpty() ? target(zone.to(), session) : zone.name();
    }

    /** Where a zone leads. */
    public static String target(Target target, Session session) {
        if (target instanceof Target.ToPart to) {
            return session.part(to.part()).map(Part::name).orElse("no such part: " + to.part());
        }
        String instrument =
                session.instrument(target.instrument()).map(Instrument::name).orElse(target.instrument());
        return target instanceof Target.ToChannel to ? instrument + " " + to.channel() : instrument + ", same channel";
    }

    /** The colour 1-16 of what a zone leads to; 0 where it is no part. */
    public static int colour(Zone zone, Session session) {
        return session.partOf(zone).map(Part::colour).orElse(0);
    }

    /** The channel of a part as it is on a chip: its number, or a dash. */
    public static String channel(PartRef part, Routing routing) {
        var channel = routing.channels().channel(part);
        return channel.isPresent() ? String.valueOf(channel.getAsInt()) : "–";
    }

    /** {@code 4 sources → 7 tracks}. */
    public static String recordPlan(int sources, int tracks) {
        return count(sources, "source") + " → " + count(tracks, "track");
    }

    /** What a port is called: a stand-in by the gear that it stands in for, a port of the machine by its name there. */
    public static String port(String port, Session session) {
        return PortWords.of(port, session);
    }

    /** The same in a list of ports of all kinds. */
    public static String portInList(String port, Session session) {
        return port(port, session) + (port.startsWith(StandIns.PREFIX) ? " (stand-in)" : "");
    }

    public static String count(int number, String what) {
        return number + " " + what + (number == 1 ? "" : "s");
    }

    /** What parts a zone from the others of its source: its channels, where it has some of its own, else its keys. */
    private static String limits(Zone zone, MiddleC middleC) {
        List<Integer> channels = zone.channels().numbers();
        if (zone.channels().isAll()) {
            return " " + keys(zone.keys(), middleC);
        }
        return (channels.size() == 1 ? ", channel " : ", channels ")
                + channels.stream().map(String::valueOf).collect(Collectors.joining(" "));
    }

    /**
     * A note that a part sounds, with the name that it has there: {@code D2 38 Acoustic snare}. A drum part without names
     * of its own has those of General MIDI.
     */
    public static String note(int note, Part part, MiddleC middleC) {
        String name = nameOf(note, part);
        return NoteNames.nameAndNumber(note, middleC) + (name == null ? "" : " " + name);
    }

    /** The name that a note has in a part; null for none. */
    public static String nameOf(int note, Part part) {
        String name = part.noteNames().get(note);
        return name == null && part.drums() && part.noteNames().isEmpty()
                ? GeneralMidi.percussion().get(note)
                : name;
    }

    /** Who plays what a track takes: {@code Larkspur 73 E1–F3, Tansy 32 F3–C6}. */
    public static String playedBy(Track track, Session session, List<Zone> zones) {
        if (track.takesRest()) {
            return "what no track takes";
        }
        if (track.input() instanceof Track.OfKey of) {
            return "only " + NoteNames.nameAndNumber(of.key(), session.middleC()) + " of "
                    + session.part(of.part()).map(Part::name).orElse(of.part().toString());
        }
        if (track.input() instanceof Track.OfSource of) {
            return "all that " + source(of.source(), session) + " plays";
        }
        if (track.input() instanceof Track.OfChannel of) {
            return source(of.source(), session) + ", channel " + of.channel();
        }
        if (track.input() instanceof Track.OfZone of) {
            return "only zone "
                    + session.zone(of.zone()).map(zone -> zone(zone, session)).orElse("no such zone: " + of.zone());
        }
        String players = track.part().stream()
                .flatMap(part -> zones.stream()
                        .filter(zone -> zone.enabled()
                                && zone.to() instanceof Target.ToPart to
                                && to.part().equals(part)))
                .map(zone -> session.source(zone.source()).map(Source::name).orElse("all sources")
                        + limits(zone, session.middleC()))
                .distinct()
                .collect(Collectors.joining(", "));
        return players.isEmpty() ? "nothing plays it now" : players;
    }
}
