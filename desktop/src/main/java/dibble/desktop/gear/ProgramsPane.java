package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.jack.ServerState;
import dibble.presentation.OtherPrograms;
import dibble.programs.Cables;
import dibble.programs.NotesPort;
import dibble.programs.OwnPorts;
import dibble.programs.SoundPair;
import dibble.session.Connection;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** Dibble's ports among other applications: the state of the server, and the ports with their connections. */
final class ProgramsPane extends VBox {
    private final ViewContext desk;
    private List<Object> shown = List.of();

    ProgramsPane(ViewContext desk) {
        super(4);
        this.desk = desk;
        setId("programs");
    }

    /** Shows the present state; rebuilt only after a change. */
    void show() {
        OtherPrograms programs = desk.programs();
        Cables.Look look = programs.cables().orElse(Cables.Look.NOTHING);
        List<Object> now = List.of(programs.server(), programs.ports(), look);
        if (!now.equals(shown)) {
            shown = now;
            Cards.rebuild(this, nodes(programs.server(), programs.ports(), look));
        }
    }

    private static List<Node> nodes(ServerState server, OwnPorts ports, Cables.Look look) {
        List<Node> nodes = new ArrayList<>();
        nodes.add(Cards.heading(say("programs-pane.other-programs")));
        Label state = wrapped(words(server, System.getProperty("os.name", "")));
        state.setId("programs-state");
        nodes.add(state);
        if (!server.isRunning()) {
            return nodes;
        }
        for (NotesPort port : ports.notes()) {
            nodes.add(line(port.name(), port.in() ? say("ports-panel.in") : say("common.out"), port.id(), look));
        }
        if (ports.notes().isEmpty()) {
            nodes.add(wrapped(say("programs-pane.no-gear-yet")));
        }
        if (!ports.sound().isEmpty()) {
            nodes.add(wrapped(say("programs-pane.sound-pairs", ports.sound().size())));
        }
        for (SoundPair pair : ports.sound()) {
            boolean isUsed = look.wanted().stream().anyMatch(cable -> isOf(pair, cable));
            if (isUsed) {
                nodes.add(line(pair.name(), say("programs-pane.sound"), pair.id(), look));
            }
        }
        return nodes;
    }

    private static boolean isOf(SoundPair pair, Connection cable) {
        return cable.own().equals(pair.id() + SoundPair.LEFT) || cable.own().equals(pair.id() + SoundPair.RIGHT);
    }

    /** Returns a line for a port, and below it its connections, present and missing. */
    private static Node line(String name, String way, String id, Cables.Look look) {
        Label label = new Label(name);
        label.getStyleClass().add("strong");
        label.setMinWidth(40);
        VBox line = new VBox(2, Cards.line(label, (Node) Cards.soft(way)));
        String there = others(
                id, look.wanted().stream().filter(cable -> !look.missing().contains(cable)));
        line.getChildren()
                .add(wrapped(
                        there.isEmpty()
                                ? say("programs-pane.connected-to-nothing")
                                : say("programs-pane.connected-to", there)));
        String missing = others(id, look.missing().stream());
        if (!missing.isEmpty()) {
            Label gone = wrapped(say("programs-pane.missing", missing));
            gone.getStyleClass().add("missing");
            line.getChildren().add(gone);
        }
        line.getStyleClass().add("port-line");
        line.setId("program-" + id.replaceAll("[^a-zA-Z0-9]+", "-"));
        return line;
    }

    private static String others(String id, Stream<Connection> cables) {
        return cables.filter(cable -> cable.own().equals(id)
                        || cable.own().equals(id + SoundPair.LEFT)
                        || cable.own().equals(id + SoundPair.RIGHT))
                .map(Connection::other)
                .distinct()
                .collect(Collectors.joining(", "));
    }

    /** Returns the state of the server, and the remedy if there is none. */
    static String words(ServerState server, String system) {
        return switch (server.kind()) {
            case UNKNOWN -> say("programs-pane.looking");
            case NO_LIBRARY ->
                system.toLowerCase(Locale.ROOT).contains("linux")
                        ? say("programs-pane.no-library-linux")
                        : say("programs-pane.no-library");
            case NO_SERVER -> say("programs-pane.no-server");
            case OTHERS -> say("programs-pane.others-server");
            case RUNNING ->
                say(
                        "programs-pane.running",
                        server.name(),
                        server.rate(),
                        server.block(),
                        server.block() * 1000.0 / server.rate());
        };
    }

    private static Label wrapped(String text) {
        Label label = Cards.soft(text);
        label.setWrapText(true);
        return label;
    }
}
