package dibble.desktop.controls;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.EntryField;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.NumberScrubber;
import dibble.midi.ControllerNames;
import dibble.midi.MiddleC;
import dibble.midi.ParameterNames;
import dibble.routing.ControlKind;
import java.util.function.IntConsumer;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** The number of a controller or a parameter with its name, or a key; nothing for kinds that have none. */
final class NumberOrKey extends HBox {
    private final EntryField number;
    private final NoteField key;
    private final Label name = Cards.soft("");
    private final IntConsumer taker;
    private int shown;
    private int most = 127;

    /**
     * @param name the name of the number
     * @param taker receives another number, up to the maximum of the kind
     */
    NumberOrKey(String id, String name, IntConsumer taker) {
        super(8);
        this.taker = taker;
        number = Cards.field(id, say("number-or-key.controller", name), this::commit);
        number.setPrefColumnCount(3);
        NumberScrubber.number(number, 0, 127);
        number.setMinWidth(54);
        key = new NoteField(say("number-or-key.key", name));
        key.setId(id + "-key");
        key.setPrefColumnCount(5);
        key.setOnNote(note -> {
            if (note != shown) {
                taker.accept(note);
            }
        });
        getStyleClass().add("card-line");
        getChildren().addAll(number, key, this.name);
    }

    private void commit() {
        String text = number.getText().strip();
        int value = text.matches("\\d{1,5}") ? Integer.parseInt(text) : -1;
        if (value < 0 || value > most) {
            number.setText(String.valueOf(shown));
        } else if (value != shown) {
            taker.accept(value);
        }
    }

    void show(ControlKind kind, int value, MiddleC middleC) {
        shown = value;
        most = kind.mostNumber();
        boolean isKey = kind == ControlKind.NOTE || kind == ControlKind.KEY_PRESSURE;
        Cards.show(number, kind.isNumbered() && !isKey);
        Cards.show(key, isKey);
        Cards.show(name, !isKey);
        number.show(String.valueOf(value));
        if (isKey) {
            key.setNote(value, middleC);
        }
        name.setText(
                switch (kind) {
                    case CONTROLLER, CONTROLLER_14 ->
                        ControllerNames.name(value).orElse("");
                    case RPN -> ParameterNames.name(value).orElse("");
                    case NRPN, NOTE, KEY_PRESSURE -> "";
                    case PITCH_BEND, CHANNEL_PRESSURE, PROGRAM_CHANGE, SCENE -> say("number-or-key.no-number");
                });
    }
}
