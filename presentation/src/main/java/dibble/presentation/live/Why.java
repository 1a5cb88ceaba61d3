package dibble.presentation.live;

import static dibble.presentation.UiText.say;

import dibble.edits.ControlEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.midi.HeardMessage;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.presentation.Navigator;
import dibble.presentation.Words;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.SendTarget;
import dibble.routing.Trace;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** The trace of an event in words: the effect of each zone and control map, or the reason for its silence. */
public final class Why {
    /**
     * A line of the answer.
     *
     * @param thing its object, or null
     * @param sounds whether it has output
     */
    public record Line(Navigator.Thing thing, int colour, String channel, String name, String text, boolean sounds) {}

    private final Session session;
    private final Routing routing;
    private final String source;
    private final HeardMessage heard;
    private final int message;
    private final Map<String, String> closed;
    private final String alone;
    private final List<Line> lines = new ArrayList<>();
    private final Set<String> sounding = new LinkedHashSet<>();
    private int others;

    /**
     * @param routing the one that is in force
     * @param closed why nothing is sent to an instrument now, by its id
     * @param alone the zone that is heard alone, or null
     */
    private Why(
            Session session,
            Routing routing,
            String source,
            HeardMessage heard,
            Map<String, String> closed,
            String alone) {
        this.session = session;
        this.routing = routing;
        this.source = source;
        this.heard = heard;
        this.message = heard.message();
        this.closed = closed;
        this.alone = alone;
    }

    /** An answer: a sentence, then a line for each thing that had a say. */
    public record Answer(String sentence, List<Line> lines) {}

    /** Explains the effect of a message. */
    public static Answer ask(
            Session session,
            Routing routing,
            Set<String> unheard,
            String source,
            HeardMessage heard,
            Map<String, String> closed,
            String alone) {
        Routing inForce = alone == null ? routing : routing.alone(alone);
        Why why = new Why(session, inForce, source, heard, closed, alone);
        return why.answer(Trace.live(inForce, source, heard, unheard));
    }

    private MiddleC middleC() {
        return session.middleC();
    }

    private Answer answer(Trace trace) {
        String played = say(
                "why.channel",
                SessionFormatter.source(source, session),
                ShortMessage.channel(message) + 1,
                Words.heard(heard, middleC()));
        if (trace.gate() != null) {
            lines.add(new Line(
                    new Navigator.Thing(Navigator.Kind.SOURCE, source),
                    0,
                    "",
                    SessionFormatter.source(source, session),
                    gate(trace.gate()),
                    false));
            return new Answer(say("why.stopped-at-its-source", played), lines);
        }
        trace.controls().forEach(this::control);
        trace.zones().forEach(this::zone);
        if (others > 0) {
            lines.add(new Line(null, 0, "", "", say("why.others-belong-to-other-sources", others), false));
        }
        String sentence = sounding.isEmpty()
                ? say("why.nothing-comes-of-it", played)
                : ShortMessage.startsNote(message)
                        ? say("why.plays", played, SessionFormatter.list(sounding))
                        : say("why.goes-to", played, SessionFormatter.list(sounding));
        return new Answer(sentence, lines);
    }

    private String gate(Trace.Reason reason) {
        Source of = session.source(source).orElseThrow();
        return switch (reason) {
            case NOT_LISTENING ->
                say(
                        "why.listens-on-this-came-on",
                        of.name(),
                        SessionFormatter.listening(of),
                        ShortMessage.channel(message) + 1);
            case NOT_ACCEPTED -> say("why.does-not-accept", of.name(), kind());
            default -> say("why.this-program-change-switches-the");
        };
    }

    private String kind() {
        return switch (EventKind.of(message)) {
            case NOTES -> say("common.keys-2");
            case CONTROLLERS -> say("why.controllers-cc", ShortMessage.data1(message));
            case PITCH_BEND -> say("common.pitch-bend");
            case CHANNEL_PRESSURE -> say("common.channel-pressure");
            case KEY_PRESSURE -> say("common.poly-pressure");
            case PROGRAM_CHANGE -> say("why.program-changes");
        };
    }

    private void control(Trace.Answer answer) {
        ControlMap map = ControlEdits.find(session, answer.id()).orElse(null);
        boolean elsewhere = answer.reason() == Trace.Reason.OTHER_SOURCE || answer.reason() == Trace.Reason.OTHER_EVENT;
        if (map == null || elsewhere) {
            others += answer.reason() == Trace.Reason.OTHER_SOURCE ? 1 : 0;
            return;
        }
        String text;
        if (answer.reason() != null) {
            text = reason(answer.reason(), map);
        } else if (answer.scene() != null) {
            text = say("why.switches-to", scene(answer.scene()));
            sounding.add(scene(answer.scene()));
        } else {
            text = say("why.text", sent(answer.values()), map.keep());
        }
        lines.add(new Line(
                new Navigator.Thing(Navigator.Kind.CONTROL, map.id()),
                0,
                "",
                SessionFormatter.controlMap(map, session),
                text,
                answer.reason() == null));
    }

    private String scene(String id) {
        return switch (id) {
            case SendTarget.ToScene.NEXT -> say("common.the-next-scene");
            case SendTarget.ToScene.PREVIOUS -> say("common.the-previous-scene");
            default ->
                session.scene(id).map(it -> say("common.scene-3", it.name())).orElse(say("common.no-such-scene", id));
        };
    }

    private void zone(Trace.Answer answer) {
        Zone zone = session.zone(answer.id()).orElse(null);
        if (zone == null || answer.reason() == Trace.Reason.OTHER_SOURCE) {
            others++;
            return;
        }
        String text = answer.reason() == null ? sent(answer.values()) + "." : reason(answer.reason(), zone);
        if (answer.reason() == null && closed.containsKey(zone.to().instrument())) {
            text = say("why.but", text, closed.get(zone.to().instrument()));
        }
        String channel = zone.to() instanceof ZoneTarget.ToPart to ? SessionFormatter.channel(to.part(), routing) : "·";
        lines.add(new Line(
                new Navigator.Thing(Navigator.Kind.ZONE, zone.id()),
                SessionFormatter.colour(zone, session),
                channel,
                SessionFormatter.zone(zone, session),
                text,
                answer.reason() == null));
    }

    private String sent(List<Trace.Value> values) {
        return values.stream()
                .map(sent -> {
                    String part = routing.partAt(sent.to(), sent.channel())
                            .map(Part::name)
                            .orElse(say("why.no-part"));
                    String instrument =
                            session.instrument(sent.to()).map(Instrument::name).orElse(sent.to());
                    sounding.add(part);
                    return say(
                            "why.sends-to", Words.heard(sent.message(), middleC()), part, instrument, sent.channel());
                })
                .collect(Collectors.joining("; "));
    }

    private String reason(Trace.Reason reason, ControlMap map) {
        return switch (reason) {
            case OUTSIDE_THE_WINDOW ->
                say("why.its-window-is-to-outside", map.when().low(), map.when().high());
            case CHANNEL -> channels(map.channels().numbers());
            default -> reason(reason, Optional.empty());
        };
    }

    private String channels(List<Integer> numbers) {
        return say(
                "why.takes-channel-this-came-on",
                numbers.size() == 1,
                numbers.stream().map(String::valueOf).collect(Collectors.joining(", ")),
                ShortMessage.channel(message) + 1);
    }

    private String note(int key) {
        return NoteNames.nameAndNumber(key, middleC());
    }

    private String reason(Trace.Reason reason, Zone zone) {
        return switch (reason) {
            case CHANNEL -> channels(zone.channels().numbers());
            case KEY_BELOW -> say("why.its-keys-start-at", note(zone.keys().low()));
            case KEY_ABOVE -> say("why.its-keys-end-at", note(zone.keys().high()));
            case VELOCITY_BELOW ->
                say("why.it-takes-velocities-from-up", zone.velocity().low());
            case VELOCITY_ABOVE ->
                say("why.it-takes-velocities-up-to", zone.velocity().high());
            default -> reason(reason, Optional.of(zone));
        };
    }

    private String reason(Trace.Reason reason, Optional<Zone> zone) {
        return switch (reason) {
            case NO_MSB -> say("why.no-msb");
            case OFF ->
                alone != null && zone.filter(Zone::enabled).isPresent()
                        ? say("why.another-zone-is-soloed")
                        : say("why.it-is-switched-off");
            case UNMAPPED -> say("why.its-note-map-has-no");
            case OUTSIDE -> say("why.transposed-the-note-would-be");
            case NOT_PASSED -> say("why.it-does-not-pass", kind());
            case TAKEN -> say("why.a-control-map-takes-it");
            case NO_SUCH_PART -> say("why.its-target-is-missing");
            case NO_CHANNEL -> say("why.its-target-has-no-channel");
            case NOT_HEARD -> say("why.would-play-but-is-not", SessionFormatter.source(source, session));
            case SOUNDS_BY_ITSELF -> say("why.the-keyboard-sounds-this-itself");
            default -> reason.words() + ".";
        };
    }
}
