package dibble.session;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.midi.ControllerNames;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.ParameterNames;
import dibble.midi.Range;
import dibble.recording.Track;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.text.Texts;
import dibble.time.TempoMap;
import java.util.Collection;
import java.util.DoubleSummaryStatistics;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** The wording for objects of a session, on the screen and on paper. */
public final class SessionFormatter {
    private SessionFormatter() {}

    /** {@code F3–C6}. */
    public static String keys(Range keys, MiddleC middleC) {
        return NoteNames.name(keys.low(), middleC) + "–" + NoteNames.name(keys.high(), middleC);
    }

    /** {@code 96 in 4/4}, {@code 60 to 132.5 in 3/4}: the meter at the beginning. */
    public static String tempo(TempoMap map) {
        DoubleSummaryStatistics bpm =
                map.tempos().stream().mapToDouble(TempoMap.Tempo::bpm).summaryStatistics();
        TempoMap.Meter meter = map.meters().get(0);
        return say(
                "session-words.to-in",
                bpm(bpm.getMin()),
                bpm.getMin() < bpm.getMax(),
                bpm(bpm.getMax()),
                meter.beats(),
                meter.unit());
    }

    /** Quarter notes a minute, with at most two places behind the point. */
    public static String bpm(double bpm) {
        return Texts.decimal(bpm);
    }

    /** {@code ↑12}, {@code ↓7}, or nothing for 0. */
    public static String transpose(int semitones) {
        return semitones == 0 ? "" : semitones > 0 ? "↑" + semitones : "↓" + -semitones;
    }

    /** Returns the channels that a source listens on, also for none and for all. */
    public static String listening(Source source) {
        if (source.listen().isAll()) {
            return say("session-words.all-channels");
        }
        List<Integer> numbers = source.listen().numbers();
        return numbers.isEmpty()
                ? say("session-words.no-channel")
                : say(
                        "session-words.channel",
                        numbers.size() == 1,
                        numbers.stream().map(String::valueOf).collect(Collectors.joining(" ")));
    }

    /** Several things in one sentence: {@code a, b and c}. */
    public static String list(Collection<String> all) {
        List<String> things = List.copyOf(all);
        int last = things.size() - 1;
        return last < 1
                ? String.join("", things)
                : say(
                        "session-words.and",
                        String.join(say("session-words.text"), things.subList(0, last)),
                        things.get(last));
    }

    /** Returns the name of a control: {@code CC 64 sustain}, {@code pitch bend}, {@code C4 60}. */
    public static String control(ControlKind kind, int number, MiddleC middleC) {
        return switch (kind) {
            case CONTROLLER -> ControllerNames.numberAndName(number);
            case NOTE -> say("session-words.note", NoteNames.nameAndNumber(number, middleC));
            case KEY_PRESSURE -> say("session-words.poly-pressure-2", NoteNames.nameAndNumber(number, middleC));
            case PITCH_BEND -> say("session-words.pitch-bend");
            case CHANNEL_PRESSURE -> say("session-words.channel-pressure");
            case PROGRAM_CHANGE -> say("session-words.program-change");
            case SCENE -> say("session-words.scene");
            case RPN ->
                say("session-words.rpn", number)
                        + ParameterNames.name(number).map(name -> " " + name).orElse("");
            case NRPN -> say("session-words.nrpn", number);
            case CONTROLLER_14 -> say("session-words.fourteen-bit", ControllerNames.numberAndName(number));
        };
    }

    /**
     * The program of a sound as it is chosen and printed, counted from 1: by the device's own names where they are known,
     * else by those of General MIDI; empty where it sets none.
     */
    public static String program(Session session, PartRef ref, Sound sound) {
        if (sound.program() == null) {
            return "";
        }
        int number = sound.program() + 1;
        Optional<Instrument> of = session.instrument(ref.instrument());
        Optional<Part> part = session.part(ref);
        Optional<String> named = of.flatMap(it -> it.programName(sound));
        if (named.isPresent()) {
            return number + " " + named.get();
        }
        if (part.isPresent() && part.get().soundFile() != null) {
            return say("session-words.program-of-file", number, part.get().soundFile());
        }
        if (part.filter(Part::drums).isPresent()) {
            return say("session-words.kit", number);
        }
        boolean isGeneral = sound.bank() == null && of.map(Instrument::names).isEmpty();
        return isGeneral ? GeneralMidi.program(sound.program()) : say("session-words.program", number);
    }

    /** Returns the name of a control of a target: that of the device for this controller, if known. */
    public static String control(Session session, SendTarget to, ControlKind kind, int number) {
        Optional<String> named = kind == ControlKind.CONTROLLER && to instanceof ZoneTarget target
                ? session.instrument(target.instrument())
                        .map(Instrument::names)
                        .map(names -> names.controllers().get(number))
                : Optional.empty();
        return named.map(name -> say("session-words.cc-named", number, name))
                .orElseGet(() -> control(kind, number, session.middleC()));
    }

    /** A value as it is said and shown: bends from their middle, programs from 1. */
    public static String value(ControlKind kind, int value) {
        return switch (kind) {
            case PITCH_BEND -> (value > 8192 ? "+" : value < 8192 ? "−" : "") + Math.abs(value - 8192);
            case PROGRAM_CHANGE -> String.valueOf(value + 1);
            default -> String.valueOf(value);
        };
    }

    /** Returns the name of a control map, or its trigger. */
    public static String controlMap(ControlMap map, Session session) {
        return map.name().isEmpty() ? control(map.when().kind(), map.when().number(), session.middleC()) : map.name();
    }

    /** Returns the name of the source with an id. */
    public static String source(String id, Session session) {
        return id.equals(Zone.ANY_SOURCE)
                ? say("session-words.all-sources-2")
                : session.source(id).map(Source::name).orElse(say("session-words.no-such-source", id));
    }

    /** Returns the name of a zone, or of its part, or of its target. */
    public static String zone(Zone zone, Session session) {
        return zone.name().isEmpty() ? target(zone.to(), session) : zone.name();
    }

    /** Returns the name of a target. */
    public static String target(ZoneTarget target, Session session) {
        if (target instanceof ZoneTarget.ToPart to) {
            return session.part(to.part()).map(Part::name).orElse(say("session-words.no-such-part", to.part()));
        }
        String instrument =
                session.instrument(target.instrument()).map(Instrument::name).orElse(target.instrument());
        return target instanceof ZoneTarget.ToChannel to
                ? instrument + " " + to.channel()
                : say("session-words.same-channel", instrument);
    }

    /** Returns the color 1-16 of a zone's part; 0 for another target. */
    public static int colour(Zone zone, Session session) {
        return session.partOf(zone).map(Part::colour).orElse(0);
    }

    /** The channel of a part as it is on a chip: its number, or a dash. */
    public static String channel(PartRef part, Routing routing) {
        var channel = routing.channels().channel(part);
        return channel.isPresent() ? String.valueOf(channel.getAsInt()) : "–";
    }

    /** Returns the name of a port: of a stand-in's gear, or of a port of the machine. */
    public static String port(String port, Session session) {
        return PortFormatter.of(port, session);
    }

    /**
     * Returns the distinction of a zone from others of its source: its channels if they are restricted, else its keys.
     */
    private static String limits(Zone zone, MiddleC middleC) {
        List<Integer> channels = zone.channels().numbers();
        if (zone.channels().isAll()) {
            return " " + keys(zone.keys(), middleC);
        }
        return say(
                "session-words.channel-2",
                channels.size() == 1,
                channels.stream().map(String::valueOf).collect(Collectors.joining(" ")));
    }

    /**
     * Returns a note of a part with its name there: {@code D2 38 Acoustic snare}. A drum part without names has those
     * of General MIDI.
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

    /** Returns the zones that play onto a track: {@code Larkspur 73 E1–F3, Tansy 32 F3–C6}. */
    public static String playedBy(Track track, Session session, List<Zone> zones) {
        if (track.takesRest()) {
            return say("session-words.everything-no-other-track-takes");
        }
        if (track.input() instanceof Track.OfKey of) {
            return say(
                    "session-words.only-of",
                    NoteNames.nameAndNumber(of.key(), session.middleC()),
                    session.part(of.part()).map(Part::name).orElse(of.part().toString()));
        }
        if (track.input() instanceof Track.OfSource of) {
            return say("session-words.everything-plays", source(of.source(), session));
        }
        if (track.input() instanceof Track.OfChannel of) {
            return say("session-words.channel", source(of.source(), session), of.channel());
        }
        if (track.input() instanceof Track.OfZone of) {
            return say(
                    "session-words.only-zone",
                    session.zone(of.zone())
                            .map(zone -> zone(zone, session))
                            .orElse(say("session-words.no-such-zone", of.zone())));
        }
        String players = track.part().stream()
                .flatMap(part -> zones.stream()
                        .filter(zone -> zone.enabled()
                                && zone.to() instanceof ZoneTarget.ToPart to
                                && to.part().equals(part)))
                .map(zone -> session.source(zone.source()).map(Source::name).orElse(say("session-words.all-sources-2"))
                        + limits(zone, session.middleC()))
                .distinct()
                .collect(Collectors.joining(", "));
        return players.isEmpty() ? say("session-words.not-played-now") : players;
    }
}
