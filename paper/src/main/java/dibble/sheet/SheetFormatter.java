package dibble.sheet;

import static dibble.text.CoreText.say;

import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.ControllerNames;
import dibble.midi.EventKind;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import dibble.text.Texts;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** The wording of a sheet, and of the comparison of two. */
final class SheetFormatter {
    private final Session session;

    SheetFormatter(Session session) {
        this.session = session;
    }

    /** {@code F♯3 54–E7 100}. */
    String keys(Range keys) {
        return NoteNames.nameAndNumber(keys.low(), session.middleC()) + "–"
                + NoteNames.nameAndNumber(keys.high(), session.middleC());
    }

    /** Channels of a set: {@code channels 1 2}; empty for all. */
    static String channels(ChannelSet set) {
        List<Integer> numbers = set.numbers();
        return set.isAll()
                ? ""
                : say(
                        "sheet.channels",
                        numbers.size(),
                        numbers.stream().map(String::valueOf).collect(Collectors.joining(" ")));
    }

    private static void add(List<String> to, boolean holds, String words) {
        if (holds && !words.isEmpty()) {
            to.add(words);
        }
    }

    /** Returns the properties of a zone other than source and target: its keys first. */
    List<String> details(Zone zone) {
        List<String> details = new ArrayList<>();
        details.add(keys(zone.keys()));
        add(details, zone.keyswitch(), say("sheet.keyswitches"));
        add(details, true, SessionFormatter.transpose(zone.transpose()));
        add(details, true, velocities(zone));
        add(details, true, channels(zone.channels()));
        add(
                details,
                !zone.noteMap().isEmpty(),
                say("sheet.note-map", zone.noteMap().size(), zone.dropUnmapped()));
        add(details, zone.noteMap().isEmpty() && zone.dropUnmapped(), say("sheet.no-key-has-a-note"));
        add(details, zone.fold(), say("sheet.fold"));
        Set<EventKind> less = EnumSet.copyOf(Zone.PASSED);
        less.removeAll(zone.pass());
        add(details, !less.isEmpty(), say("sheet.without", kinds(less)));
        add(details, zone.pass().contains(EventKind.PROGRAM_CHANGE), say("sheet.program-changes-too"));
        add(
                details,
                !zone.blockControllers().isEmpty(),
                say(
                        "sheet.without",
                        zone.blockControllers().stream()
                                .map(ControllerNames::numberAndName)
                                .collect(Collectors.joining(", "))));
        add(details, !zone.enabled(), say("sheet.off"));
        return details;
    }

    private static String velocities(Zone zone) {
        Zone.VelocityMap to = zone.velocityTo();
        boolean isWhole = zone.velocity().equals(Range.VELOCITIES);
        if (to == null) {
            return isWhole
                    ? ""
                    : say(
                            "sheet.velocities",
                            zone.velocity().low(),
                            zone.velocity().high());
        }
        return say("sheet.velocities-to", zone.velocity().low(), zone.velocity().high(), to.first(), to.last());
    }

    static String kinds(Set<EventKind> kinds) {
        return EnumSet.copyOf(kinds).stream()
                .map(kind -> switch (kind) {
                    case NOTES -> say("sheet.notes");
                    case CONTROLLERS -> say("sheet.controllers");
                    case PITCH_BEND -> say("session-words.pitch-bend");
                    case CHANNEL_PRESSURE -> say("session-words.channel-pressure");
                    case KEY_PRESSURE -> say("sheet.poly-pressure");
                    case PROGRAM_CHANGE -> say("sheet.program-changes");
                })
                .collect(Collectors.joining(", "));
    }

    /** A part's program as the trade counts it, with its bank: {@code 9 Celesta, bank 0/32}. */
    String program(PartRef ref, Part part) {
        return sound(ref, new Sound(part.bank(), part.program(), null, null));
    }

    /** Returns the settings of a sound: bank, program, volume and pan. */
    String sound(PartRef ref, Sound sound) {
        List<String> words = new ArrayList<>();
        add(words, true, SessionFormatter.program(session, ref, sound));
        add(
                words,
                sound.bank() != null,
                sound.bank() == null
                        ? ""
                        : say("sheet.bank", sound.bank().get(0), sound.bank().get(1)));
        add(words, sound.volume() != null, say("sheet.volume", sound.volume()));
        add(words, sound.pan() != null, say("sheet.pan", sound.pan()));
        return String.join(", ", words);
    }

    /** A level in decibels, with one place behind the point. */
    static String level(double decibels) {
        String number = Double.isInfinite(decibels)
                ? "−∞"
                : Texts.decimal(Math.round(decibels * 10) / 10.0).replace('-', '−');
        return say("sheet.decibels", number);
    }

    /** Returns the properties of a source: its filters, and unusual settings. */
    String about(Source source) {
        List<String> words = new ArrayList<>();
        String port = SessionFormatter.port(source.port(), session);
        add(words, !port.equals(source.name()), port);
        words.add(SessionFormatter.listening(source));
        add(words, true, SessionFormatter.transpose(source.transpose()));
        add(words, source.localControl(), say("sheet.local-control-on"));
        Set<EventKind> less = EnumSet.allOf(EventKind.class);
        less.removeAll(source.accept());
        add(words, !less.isEmpty(), say("sheet.without", less.isEmpty() ? "" : kinds(less)));
        return String.join(" · ", words);
    }

    static String receives(Receives receives) {
        return switch (receives) {
            case BY_CHANNEL -> say("sheet.by-channel");
            case ONE_CHANNEL -> say("sheet.one-channel");
            case ALL -> say("sheet.omni");
        };
    }

    /** Returns the trigger of a control map: {@code CC 2 breath 30–127}. */
    String when(ControlMap map) {
        ControlMap.Trigger when = map.when();
        String control = SessionFormatter.control(when.kind(), when.number(), session.middleC());
        boolean isWhole = when.low() == 0 && when.high() == when.kind().most();
        return isWhole
                ? control
                : control + " " + SessionFormatter.value(when.kind(), when.low()) + "–"
                        + SessionFormatter.value(when.kind(), when.high());
    }

    /** One thing that a control map does: {@code Celesta: CC 11 expression 0–127}. */
    String send(ControlMap.Send send) {
        String to = aim(send.to());
        if (send.kind() == ControlKind.SCENE) {
            return to;
        }
        String words = to + ": " + SessionFormatter.control(session, send.to(), send.kind(), send.number()) + " "
                + SessionFormatter.value(send.kind(), send.first()) + "–"
                + SessionFormatter.value(send.kind(), send.last());
        return send.rest() == null ? words : words + ", " + say("sheet.reset-value", send.rest());
    }

    private String aim(SendTarget to) {
        if (to instanceof SendTarget.AllParts) {
            return say("sheet.all-parts");
        }
        if (to instanceof SendTarget.ToScene scene) {
            return switch (scene.scene()) {
                case SendTarget.ToScene.NEXT -> say("sheet.switches-to-the-next-scene");
                case SendTarget.ToScene.PREVIOUS -> say("sheet.switches-to-the-previous-scene");
                default ->
                    say(
                            "sheet.switches-to",
                            session.scene(scene.scene()).map(Scene::name).orElse(scene.scene()));
            };
        }
        return SessionFormatter.target((ZoneTarget) to, session);
    }

    /** Returns the other properties of a control map: its treatment of values outside the window, and of its event. */
    static List<String> manner(ControlMap map) {
        List<String> words = new ArrayList<>();
        add(words, true, channels(map.channels()));
        add(words, map.keep(), say("sheet.also-reaches-the-zones"));
        add(words, map.ignoreOutside(), say("sheet.nothing-outside-the-window"));
        add(words, !map.enabled(), say("sheet.off"));
        return words;
    }
}
