package dibble.desktop.gear;

import dibble.checks.Finding;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.KeyboardPane;
import dibble.desktop.ui.LiveState;
import dibble.desktop.ui.Piano;
import dibble.desktop.ui.Words;
import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.standins.PatternSequencer;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import javafx.css.PseudoClass;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** A source: what it is, what it lets in, and when it was last heard. */
final class SourceCard extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass HEARD = PseudoClass.getPseudoClass("heard");
    private static final double WIDTH = 250;
    private static final double KEYS_HIGH = 18;
    private static final long JUST_NOW = TimeUnit.SECONDS.toNanos(2);

    private final Desk desk;
    private final Source source;
    private final Label mark = new Label("●");
    private final Label heard = new Label();

    private final ToggleButton run = new ToggleButton("Run");

    /** What it plays by itself, or null. */
    private final PatternSequencer patterns;

    /** The keys that it has; none for knobs. */
    private KeyboardPane keys;

    SourceCard(Desk desk, GearPresenter presenter, Source source, List<Finding> findings) {
        this.desk = desk;
        this.source = source;
        getStyleClass().add("gear-card");
        setId("source-" + source.id());
        setFocusTraversable(true);
        setAccessibleText("source " + source.name());
        mark.getStyleClass().add("heard-mark");
        Label name = Cards.strong(source.name());
        HBox when = new HBox(8, mark, heard);
        Label port = Cards.soft(Words.letIn(source));
        getChildren().addAll(Cards.line(name, Cards.soft(size())));
        if (!source.lanes().isEmpty()) {
            getChildren().add(lanes());
        } else if (source.kind() != SourceKind.CONTROLS && source.kind() != SourceKind.SEQUENCER) {
            boolean pads = source.kind() == SourceKind.PADS;
            KeyboardPane keyboard = new KeyboardPane(
                    (keys, width) -> pads ? Piano.pads(keys, 0, width) : Piano.row(keys, 0, width), false);
            keyboard.setKeys(source.keys(), desk.session().middleC());
            keyboard.setMouseTransparent(true);
            keyboard.setFocusTraversable(false);
            double width = Math.min(
                            1,
                            pads ? source.keys().size() / 20.0 : (source.keys().size() + 4) / 80.0)
                    * WIDTH;
            keyboard.setMinSize(width, KEYS_HIGH);
            keyboard.setMaxSize(width, KEYS_HIGH);
            keys = keyboard;
            getChildren().add(keyboard);
        }
        patterns = desk.patterns(source).orElse(null);
        if (patterns != null) {
            run.setId("run-" + source.id());
            run.getStyleClass().add("small");
            run.setOnAction(event -> {
                if (run.isSelected()) {
                    patterns.start();
                } else {
                    patterns.stop();
                }
            });
            getChildren().add(Cards.line(when, run));
        } else {
            getChildren().add(when);
        }
        getChildren().add(Cards.line(port, Cards.soft(ownSounds())));
        desk.devices().trouble(source.port()).ifPresent(why -> getChildren().add(Cards.trouble(why)));
        desk.studio()
                .identity(source.port())
                .ifPresent(answer -> getChildren()
                        .add(Cards.soft("answers: maker " + answer.maker() + ", model " + answer.model() + ", version "
                                + answer.version())));
        findings.forEach(finding -> getChildren().add(Cards.finding(desk, finding)));
        addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            requestFocus();
            presenter.select(source.id());
        });
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ENTER || event.getCode() == KeyCode.SPACE) {
                presenter.select(source.id());
                event.consume();
            } else if (event.isAltDown() && (event.getCode() == KeyCode.UP || event.getCode() == KeyCode.DOWN)) {
                presenter.moveSource(source.id(), event.getCode() == KeyCode.UP ? -1 : 1);
                event.consume();
            } else if (event.getCode() == KeyCode.DELETE) {
                presenter.deleteSource(source.id());
                event.consume();
            }
        });
    }

    /** A sequencer's lanes with their channels. */
    private FlowPane lanes() {
        FlowPane lanes = new FlowPane(6, 3);
        source.lanes().forEach(lane -> {
            Label label = new Label(lane.channel() + "  " + lane.name());
            label.getStyleClass().add("lane");
            lanes.getChildren().add(label);
        });
        return lanes;
    }

    private String size() {
        MiddleC middleC = desk.session().middleC();
        String keys = NoteNames.nameAndNumber(source.keys().low(), middleC) + " – "
                + NoteNames.nameAndNumber(source.keys().high(), middleC);
        return switch (source.kind()) {
            case KEYBOARD -> source.keys().size() + " keys · " + keys;
            case PADS -> source.keys().size() + " pads · " + keys;
            case PEDALS -> source.keys().size() + " pedals · " + keys;
            case SEQUENCER ->
                source.lanes().isEmpty()
                        ? "sequencer"
                        : "sequencer, " + source.lanes().size() + " lanes";
            case CONTROLS -> "knobs, sliders, pedals";
            default -> source.kind().name().toLowerCase(Locale.ROOT);
        };
    }

    private String ownSounds() {
        if (!source.localControl()) {
            return source.ownInstrument() == null ? "no sounds of its own" : "local control off";
        }
        return "sounds "
                + desk.session()
                        .instrument(source.ownInstrument())
                        .map(Instrument::name)
                        .orElse("something")
                + " itself";
    }

    void showSelected(boolean selected) {
        pseudoClassStateChanged(SELECTED, selected);
    }

    /** Says when it was last heard. */
    void follow(long now) {
        if (keys != null) {
            for (int key = source.keys().low(); key <= source.keys().high(); key++) {
                boolean down = desk.live().isDown(source.id(), key);
                if (down != keys.isDown(key)) {
                    keys.setDown(key, down, null);
                }
            }
            keys.drawIfStale();
        }
        if (patterns != null) {
            run.setSelected(patterns.isRunning());
            run.setText(patterns.isRunning() ? "Runs" : patterns.follows() ? "Wait for clock" : "Run");
        }
        LiveState.Last last = desk.live().last(source.id());
        String text = "not heard yet";
        if (last != null) {
            long ago = now - last.stamp();
            String when = ago < JUST_NOW ? "just now" : TimeUnit.NANOSECONDS.toSeconds(ago) + " s ago";
            text = "last heard: channel " + last.channel() + ", "
                    + (ago < TimeUnit.MINUTES.toNanos(2) ? when : TimeUnit.NANOSECONDS.toMinutes(ago) + " min ago");
        }
        if (!text.equals(heard.getText())) {
            heard.setText(text);
            mark.pseudoClassStateChanged(HEARD, last != null);
        }
    }
}
