package dibble.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.files.SessionFile;
import dibble.gear.Source;
import dibble.midi.MessageWords;
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
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble trace}: what would become of an event, and why. */
@Command(
        name = "trace",
        description = "Says for each zone and control map what it would make of an event, or why it stays silent.",
        footerHeading = "%nExamples:%n",
        footer = {
            "  dibble trace round.dibble --source larkspur --note C3",
            "  dibble trace round.dibble --source fern --controller 64 --value 127 --scene dusk --json"
        })
final class TraceCommand extends FileCommand {
    private static final int MOST_BEND = 16383;

    @Parameters(
            index = "0",
            paramLabel = "SESSION",
            description = "a session: NAME.dibble, or a bare session.json; - is standard input")
    private String sessionFile;

    @Option(names = "--source", paramLabel = "ID", required = true, description = "who plays")
    private String sourceName;

    @ArgGroup(multiplicity = "1")
    private Played played;

    /** What is played: one of these. */
    static final class Played {
        @ArgGroup(exclusive = false)
        private Key key;

        @ArgGroup(exclusive = false)
        private Controller controller;

        @Option(names = "--program", paramLabel = "N", description = "a program change, 1 to 128 as they are shown")
        private Integer program;

        @Option(names = "--bend", paramLabel = "N", description = "pitch bend, 0 to 16383 (8192 is the middle)")
        private Integer bend;

        @Option(names = "--pressure", paramLabel = "N", description = "channel pressure, 0 to 127")
        private Integer pressure;
    }

    /** A key that is pressed, or pressed harder. */
    static final class Key {
        @Option(names = "--note", paramLabel = "KEY", required = true, description = "a key: 60, C4 or F#3")
        private String note;

        @Option(names = "--velocity", paramLabel = "N", description = "1 to 127 (96 unless set)")
        private Integer velocity;

        @Option(names = "--key-pressure", paramLabel = "N", description = "the pressure of the key, 0 to 127")
        private Integer keyPressure;
    }

    /** A controller that is moved. */
    static final class Controller {
        @Option(names = "--controller", paramLabel = "N", required = true, description = "a controller, 0 to 127")
        private int number;

        @Option(names = "--value", paramLabel = "N", description = "its value, 0 to 127 (127 unless set)")
        private Integer value;
    }

    @Option(
            names = "--channel",
            paramLabel = "N",
            description = "1 to 16 (unless set, the one that the source plays on)")
    private Integer channel;

    @Option(names = "--scene", paramLabel = "ID", description = "the scene that holds")
    private String scene;

    @Option(names = "--json", description = "as JSON")
    private boolean json;

    @Override
    public Integer call() {
        SessionFile.Opened opened = files.session(sessionFile);
        Session session = opened.session();
        Source source = SessionInput.source(session, sourceName)
                .orElseThrow(() -> new BadInput(
                        "no source \"" + sourceName + "\" (expected one of " + SessionInput.sources(session) + ")"));
        Routing routing = session.routing(SessionInput.inScene(opened, scene, sessionFile));
        int on = channel == null ? source.playsOn() : inRange("--channel", channel, 1, 16) - 1;
        int message = ShortMessage.onChannel(message(session.middleC()), on);
        Trace trace = Trace.of(routing, source.id(), message);
        if (json) {
            out().println(json(trace));
        } else {
            print(trace, session, source, routing, message);
        }
        return 0;
    }

    private int message(MiddleC middleC) {
        if (played.key != null) {
            int note = NoteNames.parse(played.key.note, middleC)
                    .orElseThrow(() -> new BadInput(
                            "--note " + played.key.note + " (expected a key: 0 to 127, or a name such as C4 or F#3)"));
            if (played.key.keyPressure != null) {
                int pressure = inRange("--key-pressure", played.key.keyPressure, 0, 127);
                return ShortMessage.of(ShortMessage.KEY_PRESSURE, 0, note, pressure);
            }
            return ShortMessage.noteOn(0, note, inRange("--velocity", or(played.key.velocity, 96), 1, 127));
        }
        if (played.controller != null) {
            int number = inRange("--controller", played.controller.number, 0, 127);
            return ShortMessage.controller(0, number, inRange("--value", or(played.controller.value, 127), 0, 127));
        }
        if (played.program != null) {
            return ShortMessage.programChange(0, inRange("--program", played.program, 1, 128) - 1);
        }
        if (played.bend != null) {
            int bend = inRange("--bend", played.bend, 0, MOST_BEND);
            return ShortMessage.of(ShortMessage.PITCH_BEND, 0, bend & 0x7F, bend >>> 7);
        }
        return ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, 0, inRange("--pressure", played.pressure, 0, 127), 0);
    }

    private static int or(Integer value, int otherwise) {
        return value == null ? otherwise : value;
    }

    private static int inRange(String option, int value, int low, int high) {
        if (value < low || value > high) {
            throw new BadInput(option + " " + value + " (expected " + low + " to " + high + ")");
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

    private void print(Trace trace, Session session, Source source, Routing routing, int message) {
        print(source.name() + ", channel " + (ShortMessage.channel(message) + 1) + ": "
                + MessageWords.of(message, session.middleC())
                + routing.scene(routing.activeScene())
                        .map(Scene::name)
                        .map(name -> ", scene " + name)
                        .orElse(""));
        if (trace.gate() != null) {
            print("  stopped at the source: " + trace.gate().words());
            if (trace.gate() != Trace.Reason.SCENE_SWITCH) {
                print("  if it were let in:");
            }
        }
        List<ControlMap> maps = routing.controlMaps();
        for (int m = 0; m < maps.size(); m++) {
            line("control map", maps.get(m).name(), trace.controls().get(m), session);
        }
        List<Zone> zones = routing.zones();
        for (int z = 0; z < zones.size(); z++) {
            line("zone", zones.get(z).name(), trace.zones().get(z), session);
        }
        if (maps.isEmpty() && zones.isEmpty()) {
            print("  no zone and no control map holds");
        }
    }

    private void line(String what, String name, Trace.Answer answer, Session session) {
        String head = "  " + what + " " + (name.isEmpty() ? answer.id() : name) + ": ";
        if (answer.reason() != null) {
            print(head + "silent, " + answer.reason().words());
        }
        for (Trace.Sent sent : answer.messages()) {
            String instrument = session.instrument(sent.to()).orElseThrow().name();
            print(head + instrument + ", channel " + sent.channel() + ": "
                    + MessageWords.of(sent.message(), session.middleC()));
        }
        if (answer.scene() != null) {
            print(head + "calls scene " + answer.scene());
        }
    }
}
