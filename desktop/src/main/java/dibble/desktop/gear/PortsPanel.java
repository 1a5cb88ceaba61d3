package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.PortId;
import dibble.programs.OwnPorts;
import dibble.session.SessionFormatter;
import dibble.standins.Fault;
import dibble.standins.PatternSequencer;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The ports of this machine and the stand-ins: a line each, with a cable that can be pulled, or hidden. */
final class PortsPanel extends VBox {
    private final ViewContext desk;

    /** Stand-ins whose behaviour is shown. */
    private final Set<String> unfolded = new HashSet<>();

    private final VBox list = new VBox(4);
    private final ProgramsPane programs;
    private final Button ask = new Button(say("ports-panel.identify-devices"));
    private boolean showsHidden;
    private List<Object> shown = List.of();

    /** The lines by their displayed state; lines with an equal state are reused. */
    private final Map<List<Object>, VBox> lines = new HashMap<>();

    PortsPanel(ViewContext desk) {
        super(4);
        this.desk = desk;
        setId("ports");
        getStyleClass().add("gear-ports");
        ask.setId("ask-who");
        ask.getStyleClass().add("small");
        ask.setOnAction(event -> desk.studio().askWhoIsThere());
        programs = new ProgramsPane(desk);
        getChildren().setAll(list, programs);
    }

    /** Shows the present ports; rebuilt only after a change. */
    void show() {
        programs.show();
        boolean asking = desk.studio().isAsking();
        if (asking != ask.isDisabled()) {
            ask.setDisable(asking);
            ask.setText(asking ? say("ports-panel.asking") : say("ports-panel.identify-devices"));
        }
        List<String> inputs = desk.devices().inputs();
        List<String> outputs = desk.devices().outputs();
        Set<String> names = names(inputs, outputs);
        Set<String> hidden = desk.preferences().get().hiddenPorts();
        List<Object> now = new ArrayList<>();
        for (String name : names) {
            now.add(state(name, inputs, outputs));
        }
        now.add(hidden);
        now.add(showsHidden);
        now.add(desk.programs().server().isRunning());
        if (!now.equals(shown)) {
            shown = now;
            show(names, inputs, outputs);
        }
    }

    /** Returns the displayed state of a port. */
    private List<Object> state(String name, List<String> inputs, List<String> outputs) {
        Optional<StandIn> device = desk.standIns().standIn(name);
        return List.of(
                name,
                SessionFormatter.port(name, desk.session()),
                ways(name, inputs.contains(name), outputs.contains(name)),
                device.map(StandIn::isPlugged),
                device.map(StandIn::faults),
                unfolded.contains(name),
                desk.preferences().get().hiddenPorts().contains(name),
                desk.devices().trouble(name),
                desk.studio().identity(name));
    }

    /**
     * Returns the ports to list: all of the machine, and of the stand-ins those in use, the looper and unplugged ones.
     */
    private Set<String> names(List<String> inputs, List<String> outputs) {
        Set<String> names = new LinkedHashSet<>();
        Stream.concat(inputs.stream(), outputs.stream())
                .filter(name -> !PortId.isStandIn(name) && !OwnPorts.isOwn(name))
                .sorted()
                .forEach(names::add);
        Stream.concat(
                        desk.session().sources().stream().map(Source::port),
                        desk.session().instruments().stream().map(Instrument::port))
                .filter(name -> PortId.isStandIn(name))
                .forEach(names::add);
        names.add(StandIns.LOOPER);
        return names;
    }

    private void show(Set<String> names, List<String> inputs, List<String> outputs) {
        Map<List<Object>, VBox> before = new HashMap<>(lines);
        lines.clear();
        List<Node> nodes = new ArrayList<>();
        nodes.add(Cards.line(Cards.heading(say("ports-panel.ports")), (Node) ask));
        if (names.stream().noneMatch(name -> PortId.isMachine(name))) {
            nodes.add(wrapped(say("ports-panel.no-midi-devices-connected-stand")));
        }
        Set<String> hidden = desk.preferences().get().hiddenPorts();
        int hiddenHere = 0;
        for (String name : names) {
            boolean isHidden = hidden.contains(name);
            hiddenHere += isHidden ? 1 : 0;
            if (!isHidden || showsHidden) {
                List<Object> state = state(name, inputs, outputs);
                VBox line = before.get(state);
                if (line == null) {
                    line = line(name, ways(name, inputs.contains(name), outputs.contains(name)), isHidden);
                }
                lines.put(state, line);
                nodes.add(line);
            }
        }
        if (hiddenHere > 0) {
            Button more = Cards.button(
                    "show-hidden",
                    showsHidden
                            ? say("ports-panel.hide-hidden-ports")
                            : say("ports-panel.show-hidden-ports", hiddenHere),
                    () -> {
                        showsHidden = !showsHidden;
                        show();
                    });
            more.getStyleClass().add("link");
            nodes.add(more);
        }
        if (!desk.programs().server().isRunning()) {
            nodes.add(wrapped(virtualPorts(System.getProperty("os.name", ""))));
        }
        Cards.rebuild(list, nodes);
    }

    private static Label wrapped(String text) {
        Label label = Cards.soft(text);
        label.setWrapText(true);
        return label;
    }

    /** Explains how to create the virtual ports of the system. */
    static String virtualPorts(String system) {
        String name = system.toLowerCase(Locale.ROOT);
        if (name.startsWith("mac")) {
            return say("ports-panel.to-connect-programs-with-each");
        }
        return name.startsWith("windows")
                ? say("ports-panel.to-connect-programs-with-each-2")
                : say("ports-panel.to-connect-programs-with-each-3");
    }

    private Set<String> ways(String name, boolean in, boolean out) {
        StandIn device = desk.standIns().standIn(name).orElse(null);
        if (device != null && device.faults().contains(Fault.ECHOES)) {
            // In and out go without saying.
            return Set.of(say("ports-panel.echoes"));
        }
        Set<String> ways = new LinkedHashSet<>();
        if (device == null ? in : plays(name)) {
            ways.add(say("ports-panel.in"));
        }
        if (device == null ? out : hears(name)) {
            ways.add(say("common.out"));
        }
        if (isSequencer(name)) {
            ways.add(say("common.clock"));
        }
        return ways;
    }

    private VBox line(String name, Set<String> ways, boolean isHidden) {
        StandIn device = desk.standIns().standIn(name).orElse(null);
        boolean sequencer = isSequencer(name);
        Label label = new Label(SessionFormatter.port(name, desk.session()));
        label.getStyleClass().add("strong");
        label.setMinWidth(40);
        label.setWrapText(true);
        HBox ends = new HBox(4, Cards.soft(String.join(" · ", ways)));
        ends.getStyleClass().add("card-line");
        ends.setMinWidth(Region.USE_PREF_SIZE);
        HBox head;
        VBox line = new VBox(4);
        String id = name.replaceAll("[^a-zA-Z0-9]+", "-");
        if (device != null) {
            ToggleButton plug =
                    new ToggleButton(device.isPlugged() ? say("ports-panel.plugged") : say("ports-panel.unplugged"));
            plug.setId("plug-" + id);
            plug.getStyleClass().add("switch");
            plug.setAccessibleText(say("ports-panel.cable-of", label.getText()));
            plug.setMinWidth(Region.USE_PREF_SIZE);
            plug.setSelected(device.isPlugged());
            plug.setOnAction(event -> device.plug(plug.isSelected()));
            Button more = Cards.button(
                    "faults-" + id, unfolded.contains(name) ? say("common.less") : say("ports-panel.more"), () -> {
                        if (!unfolded.remove(name)) {
                            unfolded.add(name);
                        }
                        show();
                    });
            more.getStyleClass().add("link");
            more.setAccessibleText(say("ports-panel.options-of-the-stand-in", label.getText()));
            ends.getChildren().add(more);
            HBox left = new HBox(8, plug, label);
            left.getStyleClass().add("card-line");
            head = Cards.line(left, (Node) ends);
        } else {
            Button hide = Cards.button(
                    "hide-" + id,
                    isHidden ? say("common.show-2") : say("ports-panel.hide"),
                    () -> desk.preferences().change(settings -> settings.withHidden(name, !isHidden)));
            hide.getStyleClass().add("link");
            ends.getChildren().add(hide);
            head = Cards.line(label, (Node) ends);
        }
        line.getChildren().add(head);
        desk.devices().trouble(name).ifPresent(why -> line.getChildren().add(Cards.trouble(why)));
        desk.studio()
                .identity(name)
                .ifPresent(answer -> line.getChildren()
                        .add(wrapped(say(
                                "common.identified-as-maker-model-version",
                                answer.maker(),
                                answer.model(),
                                answer.version()))));
        if (device != null && unfolded.contains(name)) {
            line.getChildren().add(behaviour(device, id, sequencer));
        }
        line.getStyleClass().add("port-line");
        line.setId("port-" + id);
        return line;
    }

    private boolean plays(String name) {
        return name.equals(StandIns.LOOPER)
                || desk.session().sources().stream()
                        .anyMatch(source -> source.port().equals(name));
    }

    private boolean hears(String name) {
        return name.equals(StandIns.LOOPER)
                || isSequencer(name)
                || desk.session().instruments().stream()
                        .anyMatch(instrument -> instrument.port().equals(name));
    }

    private boolean isSequencer(String name) {
        return desk.session().sources().stream()
                .anyMatch((Source source) ->
                        source.kind() == SourceKind.SEQUENCER && source.port().equals(name));
    }

    /** Returns the faults of a stand-in, and for a sequencer the choice of its clock. */
    private VBox behaviour(StandIn device, String id, boolean sequencer) {
        VBox box = new VBox(3);
        box.getStyleClass().add("behaviour");
        if (sequencer) {
            PatternSequencer patterns = device.sequencer();
            CheckBox follows = new CheckBox(say("ports-panel.follows-incoming-midi-clock"));
            follows.setId("follows-" + id);
            follows.setSelected(patterns.follows());
            follows.setOnAction(event -> patterns.setFollows(follows.isSelected()));
            box.getChildren().add(follows);
        }
        box.getChildren().add(Cards.soft(say("ports-panel.simulate-a-fault-it")));
        for (Fault fault : Fault.values()) {
            CheckBox check = new CheckBox(fault.words());
            check.setId("fault-" + id + "-" + fault.name().toLowerCase(Locale.ROOT));
            check.setSelected(device.faults().contains(fault));
            check.setOnAction(event -> device.misbehave(fault, check.isSelected()));
            box.getChildren().add(check);
        }
        return box;
    }
}
