package dibble.cli;

import static dibble.cli.CliText.say;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.files.SessionContent;
import dibble.gear.Source;
import dibble.midi.HeardMessage;
import dibble.midi.MessageFormatter;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.routing.ControlMap;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.Trace;
import dibble.routing.Zone;
import dibble.session.Session;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble trace}: the effect of an event, with reasons. */
@Command(name = "trace")
final class TraceCommand extends FileCommand {
    private static final int FOURTEEN_BITS = 16_383;

    @Parameters(index = "0", paramLabel = "SESSION", descriptionKey = "session")
    private String sessionFile;

    @Option(names = "--source", paramLabel = "ID", required = true, descriptionKey = "source")
    private String sourceName;

    @ArgGroup(multiplicity = "1")
    private Played played;

    /** The event: one of these options. */
    static final class Played {
        @ArgGroup(exclusive = false)
        private Key key;

        @ArgGroup(exclusive = false)
        private Controller controller;

        @Option(names = "--program", paramLabel = "N", descriptionKey = "program")
        private Integer program;

        @Option(names = "--bend", paramLabel = "N", descriptionKey = "bend")
        private Integer bend;

        @Option(names = "--pressure", paramLabel = "N", descriptionKey = "pressure")
        private Integer pressure;
    }

    /** A key that is pressed, or pressed harder. */
    static final class Key {
        @Option(names = "--note", paramLabel = "KEY", required = true, descriptionKey = "note")
        private String note;

        @Option(names = "--velocity", paramLabel = "N", descriptionKey = "velocity")
        private Integer velocity;

        @Option(names = "--key-pressure", paramLabel = "N", descriptionKey = "key-pressure")
        private Integer keyPressure;
    }

    /** A controller that is moved, or a parameter. */
    static final class Controller {
        @ArgGroup(multiplicity = "1")
        private Which which;

        @Option(names = "--value", paramLabel = "N", descriptionKey = "value")
        private Integer value;
    }

    /** One of these. */
    static final class Which {
        @Option(names = "--controller", paramLabel = "N", descriptionKey = "controller")
        private Integer controller;

        @Option(names = "--controller14", paramLabel = "N", descriptionKey = "controller14")
        private Integer controller14;

        @Option(names = "--rpn", paramLabel = "N", descriptionKey = "rpn")
        private Integer rpn;

        @Option(names = "--nrpn", paramLabel = "N", descriptionKey = "nrpn")
        private Integer nrpn;
    }

    @Option(names = "--channel", paramLabel = "N", descriptionKey = "channel")
    private Integer channel;

    @Option(names = "--scene", paramLabel = "ID", descriptionKey = "scene")
    private String scene;

    @Option(names = "--json", descriptionKey = "json")
    private boolean json;

    @Override
    public Integer call() {
        SessionContent opened = files.session(sessionFile);
        Session session = opened.session();
        Source source = SessionInput.source(session, sourceName)
                .orElseThrow(() -> new BadInput(
                        say("trace-command.no-source-expected-one-of", sourceName, SessionInput.sources(session))));
        Routing routing = session.routing(SessionInput.inScene(opened, scene, sessionFile));
        int on = channel == null ? source.playsOn() : inRange("--channel", channel, 1, 16) - 1;
        HeardMessage message = heard(session.middleC()).onChannel(on);
        Trace trace = Trace.of(routing, source.id(), message);
        if (json) {
            out().println(json(trace));
        } else {
            print(trace, session, source, routing, message);
        }
        return 0;
    }

    private HeardMessage heard(MiddleC middleC) {
        return played.controller == null ? HeardMessage.alone(message(middleC)) : moved(played.controller);
    }

    private static HeardMessage moved(Controller moved) {
        Which which = moved.which;
        if (which.controller != null) {
            int number = inRange("--controller", which.controller, 0, 127);
            return HeardMessage.alone(ShortMessage.controller(0, number, value(moved, 127)));
        }
        if (which.controller14 != null) {
            return HeardMessage.pair(
                    0, inRange("--controller14", which.controller14, 0, 31), value(moved, FOURTEEN_BITS));
        }
        boolean nrpn = which.nrpn != null;
        int number = inRange(nrpn ? "--nrpn" : "--rpn", nrpn ? which.nrpn : which.rpn, 0, FOURTEEN_BITS - 1);
        return HeardMessage.parameter(0, nrpn, number, value(moved, FOURTEEN_BITS));
    }

    private static int value(Controller moved, int most) {
        return inRange("--value", or(moved.value, most), 0, most);
    }

    private int message(MiddleC middleC) {
        if (played.key != null) {
            int note = NoteNames.parse(played.key.note, middleC)
                    .orElseThrow(() -> new BadInput(say("trace-command.note-expected-a-key-0", played.key.note)));
            if (played.key.keyPressure != null) {
                int pressure = inRange("--key-pressure", played.key.keyPressure, 0, 127);
                return ShortMessage.of(ShortMessage.KEY_PRESSURE, 0, note, pressure);
            }
            return ShortMessage.noteOn(0, note, inRange("--velocity", or(played.key.velocity, 96), 1, 127));
        }
        if (played.program != null) {
            return ShortMessage.programChange(0, inRange("--program", played.program, 1, 128) - 1);
        }
        if (played.bend != null) {
            int bend = inRange("--bend", played.bend, 0, FOURTEEN_BITS);
            return ShortMessage.of(ShortMessage.PITCH_BEND, 0, bend & 0x7F, bend >>> 7);
        }
        return ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, 0, inRange("--pressure", played.pressure, 0, 127), 0);
    }

    private static int or(Integer value, int otherwise) {
        return value == null ? otherwise : value;
    }

    private static int inRange(String option, int value, int low, int high) {
        if (value < low || value > high) {
            throw new BadInput(say("trace-command.expected-to", option, value, low, high));
        }
        return value;
    }

    private static ObjectNode json(Trace trace) {
        ObjectNode node = new ObjectMapper().createObjectNode();
        node.put("gate", trace.gate() == null ? null : trace.gate().words());
        answers(node.putArray("controls"), trace.controls());
        answers(node.putArray("zones"), trace.zones());
        return node;
    }

    private static void answers(ArrayNode to, List<Trace.Answer> answers) {
        for (Trace.Answer answer : answers) {
            ObjectNode node = to.addObject().put("id", answer.id());
            if (answer.reason() != null) {
                node.put("reason", answer.reason().words());
                continue;
            }
            ArrayNode messages = node.putArray("messages");
            for (Trace.Sent sent : answer.messages()) {
                ArrayNode bytes = messages.addObject()
                        .put("to", sent.to())
                        .put("channel", sent.channel())
                        .putArray("message");
                for (byte b : ShortMessage.bytes(sent.message())) {
                    bytes.add(b & 0xFF);
                }
            }
            if (answer.scene() != null) {
                node.put("scene", answer.scene());
            }
        }
    }

    private void print(Trace trace, Session session, Source source, Routing routing, HeardMessage message) {
        String scene = routing.scene(routing.activeScene()).map(Scene::name).orElse("");
        print(say(
                "trace-command.channel",
                source.name(),
                ShortMessage.channel(message.message()) + 1,
                MessageFormatter.of(message, session.middleC()),
                scene.isEmpty(),
                scene));
        if (trace.gate() != null) {
            print(say("trace-command.stopped-at-the-source", reason(trace.gate())));
            if (trace.gate() != Trace.Reason.SCENE_SWITCH) {
                print(say("trace-command.if-it-were-accepted"));
            }
        }
        List<ControlMap> maps = routing.controlMaps();
        for (int m = 0; m < maps.size(); m++) {
            line(
                    say("trace-command.control-map"),
                    maps.get(m).name(),
                    trace.controls().get(m),
                    session);
        }
        List<Zone> zones = routing.zones();
        for (int z = 0; z < zones.size(); z++) {
            line(say("trace-command.zone"), zones.get(z).name(), trace.zones().get(z), session);
        }
        if (maps.isEmpty() && zones.isEmpty()) {
            print(say("trace-command.no-zone-and-no-control"));
        }
    }

    private void line(String what, String name, Trace.Answer answer, Session session) {
        String which = name.isEmpty() ? answer.id() : name;
        if (answer.reason() != null) {
            print(say("trace-command.silent", what, which, reason(answer.reason())));
        }
        for (Trace.Value sent : answer.values()) {
            String instrument = session.instrument(sent.to()).orElseThrow().name();
            print(say(
                    "trace-command.channel-2",
                    what,
                    which,
                    instrument,
                    sent.channel(),
                    MessageFormatter.of(sent.message(), session.middleC())));
        }
        if (answer.scene() != null) {
            print(say("trace-command.switches-to-scene", what, which, answer.scene()));
        }
    }

    private static String reason(Trace.Reason reason) {
        return say("reason." + reason.name().toLowerCase(Locale.ROOT).replace('_', '-'));
    }
}
