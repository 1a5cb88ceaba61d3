package dibble.desktop.levels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.LevelBar;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.levels.LevelsPresenter;
import dibble.sound.Meters;
import dibble.user.Settings;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The outputs with their meters, and how it is with the audio device. */
final class OutputsBar extends HBox {
    private static final double METER = 132;
    private static final double MAX_HEIGHT = 84;

    /** The delay of the mixer for a played note, in ms; the buffer of the device is added. */
    private static final int LATENCY = 12;

    private static final PseudoClass HOT = PseudoClass.getPseudoClass("hot");

    private final ViewContext desk;
    private final LevelsPresenter presenter;
    private final FlowPane outputs = new FlowPane(18, 6);
    private final Label status = Cards.soft("");
    private final Map<Integer, Output> shown = new HashMap<>();
    private Meters.Status seen;
    private Settings settings;

    /** One output: its name, which is a button, and its meter. */
    private final class Output extends VBox {
        private final int number;
        private final Button name;
        private final Region filling = new Region();
        private double width = -1;

        Output(int number) {
            super(3);
            this.number = number;
            name = Cards.button("output-name-" + number, "", this::rename);
            name.getStyleClass().add("link");
            filling.setManaged(false);
            filling.getStyleClass().add("output-filling");
            Pane meter = new Pane(filling);
            meter.getStyleClass().add("output-meter");
            Columns.fix(meter, METER);
            getChildren().addAll(name, meter);
        }

        private void rename() {
            desk.ask()
                    .askText(
                            say("levels-view.name-of-output", 2 * number - 1, 2 * number),
                            presenter.outputName(number),
                            say("levels-view.rename"),
                            List.of(),
                            (text, done) -> {
                                presenter.nameOutput(number, text);
                                done.run();
                            });
        }

        void show(List<String> who) {
            name.setText(presenter.output(number));
            boolean folded = number > desk.meters().status().pairs();
            name.setTooltip(new Tooltip(say(
                    "levels-view.output-has",
                    who.size(),
                    String.join(", ", who),
                    number > 1 && folded && !desk.meters().status().silent())));
        }

        void follow() {
            double peak = desk.meters().output(number).peak();
            double next = Math.round(LevelBar.share(peak) * METER);
            if (next != width) {
                width = next;
                filling.resizeRelocate(0, 0, next, 6);
                filling.pseudoClassStateChanged(HOT, peak > 0);
            }
        }
    }

    OutputsBar(ViewContext desk, LevelsPresenter presenter) {
        super(16);
        this.desk = desk;
        this.presenter = presenter;
        setId("outputs");
        getStyleClass().add("outputs-foot");
        setAlignment(Pos.CENTER_LEFT);
        Label title = Cards.strong(say("levels-view.outputs"));
        title.setMinWidth(USE_PREF_SIZE);
        // Two rows are seen at once; more of them are scrolled.
        ScrollPane scroll = Cards.scroll(outputs);
        outputs.heightProperty().subscribe(height -> {
            double rows = Math.min(MAX_HEIGHT, height.doubleValue() + 2);
            scroll.setMinHeight(rows);
            scroll.setPrefHeight(rows);
        });
        scroll.setMaxHeight(MAX_HEIGHT);
        HBox.setHgrow(scroll, Priority.ALWAYS);
        outputs.setAlignment(Pos.CENTER_LEFT);
        status.setId("audio-status");
        status.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(title, scroll, status);
    }

    void show() {
        List<Node> nodes = new ArrayList<>();
        presenter.outputs().forEach((number, who) -> {
            Output output = shown.computeIfAbsent(number, Output::new);
            output.show(who);
            nodes.add(output);
        });
        shown.values().retainAll(nodes);
        Button add = Cards.button("add-output", say("levels-view.add-output"), this::add);
        add.getStyleClass().add("link");
        nodes.add(add);
        Cards.put(outputs, nodes);
        settings = desk.preferences().get();
        seen = null;
    }

    private void add() {
        int number = presenter.freeOutput();
        presenter.nameOutput(number, say("levels-view.output-free", number));
    }

    void follow() {
        shown.values().forEach(Output::follow);
        Meters.Status now = desk.meters().status();
        if (!now.equals(seen)) {
            boolean other = seen != null && seen.pairs() != now.pairs();
            seen = now;
            status.setText(
                    now.silent()
                            ? say("levels-view.no-audio")
                            : say(
                                    "levels-view.audio-status",
                                    LATENCY + settings.audioMillis(),
                                    settings.audioRate() / 1000.0,
                                    now.dropouts()));
            if (other) {
                show();
            }
        }
    }
}
