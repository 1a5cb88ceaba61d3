package dibble.desktop.live;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import javafx.geometry.Orientation;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Wheels, sliders and pedals of the selected source, to move with the mouse or the arrow keys. */
final class OnScreenControls extends HBox {
    private static final int MIDDLE = 8192;
    private static final int BREATH = 2;
    private static final int WHEEL = 1;
    /** The first of the four general purpose controllers of the standard, 16 to 19. */
    private static final int GENERAL = 16;

    private static final int SUSTAIN = 64;
    private static final int SOFT = 67;
    private static final int HEEL = 80;
    private static final double SLIDER = 46;

    private final ViewContext desk;
    private final Supplier<Source> player;
    private SourceKind shown;

    /** @param player the source that they belong to */
    OnScreenControls(ViewContext desk, Supplier<Source> player) {
        super(6);
        this.desk = desk;
        this.player = player;
        setId("hand-controls");
        setAlignment(Pos.CENTER_LEFT);
        setMinWidth(USE_PREF_SIZE);
    }

    /** Shows the controls of a kind of source; moved controls of the previous one are released. */
    void show(SourceKind kind) {
        if (kind == shown) {
            return;
        }
        shown = kind;
        List<Node> nodes = new ArrayList<>();
        switch (kind) {
            case KEYBOARD ->
                nodes.addAll(List.of(
                        bend(),
                        slider(say("hand-controls.wheel"), WHEEL),
                        slider(say("hand-controls.slider"), GENERAL),
                        pedal(say("hand-controls.pedal"), SUSTAIN)));
            case PEDALS ->
                nodes.addAll(
                        List.of(slider(say("hand-controls.breath"), BREATH), pedal(say("hand-controls.heel"), HEEL)));
            case PADS ->
                nodes.add(slider(say("hand-controls.pressure"), ShortMessage.CHANNEL_PRESSURE, this::pressure));
            case CONTROLS ->
                nodes.addAll(List.of(
                        slider(say("hand-controls.breath"), BREATH),
                        slider(say("hand-controls.foot"), 4),
                        general(0),
                        general(1),
                        general(2),
                        general(3),
                        pedal(say("hand-controls.pedal"), SUSTAIN),
                        pedal(say("hand-controls.soft"), SOFT)));
            default -> {
                // A sequencer has no controls.
            }
        }
        Cards.rebuild(this, nodes);
        setVisible(!nodes.isEmpty());
        setManaged(!nodes.isEmpty());
    }

    private void play(IntFunction<Integer> message) {
        Source source = player.get();
        if (source != null) {
            desk.play(source, message.apply(source.playsOn()));
        }
    }

    private void pressure(int value) {
        play(channel -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, value, 0));
    }

    private Node general(int place) {
        return slider(say("hand-controls.cc", GENERAL + place), GENERAL + place);
    }

    private Node slider(String name, int number) {
        return slider(name, number, value -> play(channel -> ShortMessage.controller(channel, number, value)));
    }

    private static Node slider(String name, int id, java.util.function.IntConsumer taker) {
        Slider slider = new Slider(0, 127, 0);
        slider.setOrientation(Orientation.VERTICAL);
        slider.setId("hand-" + id);
        slider.setAccessibleText(name);
        slider.setBlockIncrement(8);
        slider.valueProperty().subscribe((before, now) -> {
            if (before.intValue() != now.intValue()) {
                taker.accept(now.intValue());
            }
        });
        return named(name, slider);
    }

    /** Springs back when it is let go. */
    private Node bend() {
        Slider slider = new Slider(0, 2 * MIDDLE - 1, MIDDLE);
        slider.setOrientation(Orientation.VERTICAL);
        slider.setId("hand-bend");
        slider.setAccessibleText(say("common.pitch-bend"));
        slider.setBlockIncrement(1024);
        slider.valueProperty().subscribe((before, now) -> {
            if (before.intValue() != now.intValue()) {
                int value = now.intValue();
                play(channel -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, value & 0x7F, value >> 7));
            }
        });
        slider.setOnMouseReleased(event -> slider.setValue(MIDDLE));
        slider.focusedProperty().subscribe(focused -> {
            if (!focused) {
                slider.setValue(MIDDLE);
            }
        });
        return named(say("hand-controls.bend"), slider);
    }

    private Node pedal(String name, int number) {
        ToggleButton pedal = new ToggleButton(say("hand-controls.up"));
        pedal.setId("hand-" + number);
        pedal.setAccessibleText(name);
        pedal.setMinWidth(52);
        pedal.setOnAction(event -> {
            pedal.setText(pedal.isSelected() ? say("hand-controls.down") : say("hand-controls.up"));
            int value = pedal.isSelected() ? 127 : 0;
            play(channel -> ShortMessage.controller(channel, number, value));
        });
        return named(name, pedal);
    }

    private static VBox named(String name, Node control) {
        Label label = new Label(name);
        label.getStyleClass().add("hand-name");
        if (control instanceof Slider slider) {
            slider.setPrefHeight(SLIDER);
            slider.setMinHeight(SLIDER);
            slider.setMaxHeight(SLIDER);
        }
        VBox box = new VBox(0, label, control);
        box.setAlignment(Pos.TOP_CENTER);
        box.setMinHeight(64);
        box.setMaxHeight(64);
        return box;
    }

    /** Releases pedals and returns sliders and wheels to neutral, since another source is selected. */
    void rest() {
        for (Node box : getChildren()) {
            Node control = ((VBox) box).getChildren().get(1);
            if (control instanceof ToggleButton pedal && pedal.isSelected()) {
                pedal.fire();
            } else if (control instanceof Slider slider) {
                slider.setValue(slider.getId().equals("hand-bend") ? MIDDLE : 0);
            }
        }
    }
}
