package dibble.desktop.ui;

import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import java.util.function.IntConsumer;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;

/** A field for a note: takes a name, a number, arrow keys, or the next key pressed while it has the focus. */
public final class NoteField extends TextField {
    private MiddleC middleC = MiddleC.C4;
    private int note;
    private IntConsumer onNote = note -> {};

    /** @param name what it is for, as it is read aloud */
    public NoteField(String name) {
        setAccessibleText(name);
        getStyleClass().add("note-field");
        setPrefColumnCount(6);
        focusedProperty().subscribe((was, is) -> {
            if (was && !is) {
                commit();
            }
        });
        setOnAction(event -> commit());
        Turning.on(
                this,
                0,
                127,
                () -> NoteNames.parse(getText(), middleC).orElse(note),
                number -> setText(NoteNames.nameAndNumber(number, middleC)));
        setOnKeyPressed(event -> {
            int step = event.isShiftDown() ? 12 : 1;
            if (event.getCode() == KeyCode.UP) {
                take(note + step);
                event.consume();
            } else if (event.getCode() == KeyCode.DOWN) {
                take(note - step);
                event.consume();
            } else if (event.getCode() == KeyCode.ESCAPE) {
                show();
                event.consume();
            }
        });
    }

    /** Is told each note that the player chooses. */
    public void setOnNote(IntConsumer consumer) {
        onNote = consumer;
    }

    /** Shows a note 0-127. */
    public void setNote(int value, MiddleC naming) {
        note = value;
        middleC = naming;
        Cards.showIn(this, NoteNames.nameAndNumber(note, middleC));
    }

    /** The note that it shows, 0-127. */
    public int note() {
        return note;
    }

    /** Takes a note as if it had been typed. */
    public void take(int value) {
        if (value >= 0 && value <= 127 && value != note) {
            note = value;
            show();
            onNote.accept(value);
        }
    }

    private void commit() {
        NoteNames.parse(getText(), middleC).ifPresent(this::take);
        show();
    }

    private void show() {
        setText(NoteNames.nameAndNumber(note, middleC));
    }
}
