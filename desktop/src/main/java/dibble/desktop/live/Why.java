package dibble.desktop.live;

import dibble.desktop.ui.Places;
import dibble.desktop.ui.Words;
import dibble.edits.ControlEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.routing.Aim;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Target;
import dibble.routing.Trace;
import dibble.routing.Zone;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** The trace of an event in words: what each zone and control map does with it, or why it stays silent. */
final class Why {
    /**
     * One line of the answer.
     *
     * @param thing what it is about, or null
     * @param sounds whether something comes of it
     */
    record Line(Places.Thing thing, int colour, String channel, String name, String text, boolean sounds) {}

    private final Session session;
    private final Routing routing;
    private final String source;
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
            Session session, Routing routing, String source, int message, Map<String, String> closed, String alone) {
        this.session = session;
        this.routing = routing;
        this.source = source;
        this.message = message;
        this.closed = closed;
        this.alone = alone;
    }

    /** An answer: a sentence, then a line for each thing that had a say. */
    record Answer(String sentence, List<Line> lines) {}

    static Answer ask(
            Session session,
            Routing routing,
            Set<String> unheard,
            String source,
            int message,
            Map<String, String> closed,
            String alone) {
        Routing inForce = alone == null ? routing : routing.alone(alone);
        Why why = new Why(session, inForce, source, message, closed, alone);
        return why.answer(Trace.live(inForce, source, message, unheard));
    }

    private MiddleC middleC() {
        return session.middleC();
    }

    private Answer answer(Trace trace) {
        String played = Words.source(source, session) + ", channel " + (ShortMessage.channel(message) + 1) + ", "
                + Words.message(message, middleC());
        if (trace.gate() != null) {
            lines.add(new Line(
                    new Places.Thing(Places.Kind.SOURCE, source),
                    0,
                    "",
                    Words.source(source, session),
                    gate(trace.gate()),
                    false));
            return new Answer(played + ": it stops at its source.", lines);
        }
        trace.controls().forEach(this::control);
        trace.zones().forEach(this::zone);
        if (others > 0) {
            lines.add(new Line(null, 0, "", "", Words.count(others, "other") + " belong to other sources.", false));
        }
        String sentence = sounding.isEmpty()
                ? ": nothing comes of it."
                : ShortMessage.startsNote(message)
                        ? " plays " + String.join(" and ", sounding) + "."
                        : " goes to " + String.join(" and ", sounding) + ".";
        return new Answer(played + sentence, lines);
    }

    private String gate(Trace.Reason reason) {
        Source of = session.source(source).orElseThrow();
        return switch (reason) {
            case NOT_LISTENING ->
                of.name() + " " + Words.letIn(of).replaceFirst("^channel", "lets in channel")
                        + ", and this came on channel " + (ShortMessage.channel(message) + 1) + ".";
            case NOT_ACCEPTED -> of.name() + " does not let in " + kind() + ".";
            default -> "This program calls a scene, and goes no further.";
        };
    }

    private String kind() {
        return switch (EventKind.of(message)) {
            case NOTES -> "keys";
            case CONTROLLERS -> "knobs (CC " + ShortMessage.data1(message) + ")";
            case PITCH_BEND -> "pitch bend";
            case CHANNEL_PRESSURE -> "pressure";
            case KEY_PRESSURE -> "key pressure";
            case PROGRAM_CHANGE -> "program changes";
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
            text = "calls " + scene(answer.scene()) + ".";
            sounding.add(scene(answer.scene()));
        } else {
            text = sent(answer.messages()) + (map.keep() ? "." : "; the control itself goes no further.");
        }
        lines.add(new Line(
                new Places.Thing(Places.Kind.CONTROL, map.id()),
                0,
                "",
                Words.controlMap(map, session),
                text,
                answer.reason() == null));
    }

    private String scene(String id) {
        return switch (id) {
            case Aim.ToScene.NEXT -> "the next scene";
            case Aim.ToScene.PREVIOUS -> "the scene before";
            default -> session.scene(id).map(it -> "scene " + it.name()).orElse("no such scene: " + id);
        };
    }

    private void zone(Trace.Answer answer) {
        Zone zone = session.zone(answer.id()).orElse(null);
        if (zone == null || answer.reason() == Trace.Reason.OTHER_SOURCE) {
            others++;
            return;
        }
        String text = answer.reason() == null ? sent(answer.messages()) + "." : reason(answer.reason(), zone);
        if (answer.reason() == null && closed.containsKey(zone.to().instrument())) {
            text += " But " + closed.get(zone.to().instrument()) + ".";
        }
        String channel = zone.to() instanceof Target.ToPart to ? Words.channel(to.part(), routing) : "·";
        lines.add(new Line(
                new Places.Thing(Places.Kind.ZONE, zone.id()),
                Words.colour(zone, session),
                channel,
                Words.zone(zone, session),
                text,
                answer.reason() == null));
    }

    private String sent(List<Trace.Sent> messages) {
        return messages.stream()
                .map(sent -> {
                    String part = routing.partAt(sent.to(), sent.channel())
                            .map(Part::name)
                            .orElse("no part");
                    String instrument =
                            session.instrument(sent.to()).map(Instrument::name).orElse(sent.to());
                    sounding.add(part);
                    return "sends " + Words.message(sent.message(), middleC()) + " to " + part + ", " + instrument + " "
                            + sent.channel();
                })
                .collect(Collectors.joining("; "));
    }

    private String reason(Trace.Reason reason, ControlMap map) {
        return switch (reason) {
            case OUTSIDE_THE_WINDOW ->
                "its window is " + map.when().low() + " to " + map.when().high() + ", and outside it sends nothing.";
            case CHANNEL -> channels(map.channels().numbers());
            default -> reason(reason, Optional.empty());
        };
    }

    private String channels(List<Integer> numbers) {
        return "takes channel" + (numbers.size() == 1 ? " " : "s ")
                + numbers.stream().map(String::valueOf).collect(Collectors.joining(", ")) + ", and this came on "
                + (ShortMessage.channel(message) + 1) + ".";
    }

    private String note(int key) {
        return NoteNames.nameAndNumber(key, middleC());
    }

    private String reason(Trace.Reason reason, Zone zone) {
        return switch (reason) {
            case CHANNEL -> channels(zone.channels().numbers());
            case KEY_BELOW -> "its keys begin at " + note(zone.keys().low()) + ".";
            case KEY_ABOVE -> "its keys end at " + note(zone.keys().high()) + ".";
            case VELOCITY_BELOW -> "it takes velocities from " + zone.velocity().low() + " on.";
            case VELOCITY_ABOVE ->
                "it takes velocities up to " + zone.velocity().high() + ".";
            default -> reason(reason, Optional.of(zone));
        };
    }

    private String reason(Trace.Reason reason, Optional<Zone> zone) {
        return switch (reason) {
            case OFF ->
                alone != null && zone.filter(Zone::enabled).isPresent()
                        ? "another zone is heard alone."
                        : "it is switched off.";
            case UNMAPPED -> "its note map has no note for this key.";
            case OUTSIDE -> "transposed, this falls outside 0–127.";
            case NOT_PASSED -> "it does not pass " + kind() + ".";
            case TAKEN -> "a control map takes it, and it goes no further.";
            case NO_SUCH_PART -> "what it leads to is not there.";
            case NO_CHANNEL -> "what it leads to has no channel.";
            case NOT_HEARD -> "would play, but " + Words.source(source, session) + " is not heard now.";
            case SOUNDS_BY_ITSELF -> "the keyboard sounds this by itself, so nothing is sent.";
            default -> reason.words() + ".";
        };
    }
}
