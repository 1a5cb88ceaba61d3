package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import java.util.List;
import java.util.function.IntConsumer;
import javafx.css.PseudoClass;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;

/**
 * A field for a note. It takes a name, a number, arrow keys, or, once it was asked to, the next key that is played. It is asked by
 * Ctrl+K or in its menu.
 */
public final class NoteField extends EntryField {
    private static final PseudoClass LISTENING = PseudoClass.getPseudoClass("listening");

    private static final KeyCombination LISTEN = KeyCombination.keyCombination("Shortcut+K");

    private MiddleC middleC = MiddleC.C4;
    private int note;
    private boolean listening;
    private IntConsumer onNote = note -> {};

    /** @param name the accessible name */
    public NoteField(String name) {
        super(null, name);
        getStyleClass().add("note-field");
        setPrefColumnCount(6);
        onCommit(() -> {
            NoteNames.parse(getText(), middleC).ifPresent(this::choose);
            setText(NoteNames.nameAndNumber(note, middleC));
        });
        setTooltip(new Tooltip(say("note-field.about", LISTEN.getDisplayText())));
        NumberScrubber.on(
                this,
                0,
                127,
                () -> NoteNames.parse(getText(), middleC).orElse(note),
                number -> setText(NoteNames.nameAndNumber(number, middleC)));
        focusedProperty().subscribe(focused -> {
            if (!focused) {
                listen(false);
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        ContextItems.on(
                this, () -> List.of(Cards.item("note-field-listen", say("note-field.listen"), () -> listen(true))));
    }

    private void key(KeyEvent event) {
        int step = event.isShiftDown() ? 12 : 1;
        if (LISTEN.match(event)) {
            listen(!listening);
        } else if (listening && event.getCode() == KeyCode.ESCAPE) {
            listen(false);
        } else if (event.getCode() == KeyCode.UP) {
            take(note + step);
        } else if (event.getCode() == KeyCode.DOWN) {
            take(note - step);
        } else {
            return;
        }
        event.consume();
    }

    /** Makes it take the next key that is played, or no longer wait for one. */
    public void listen(boolean on) {
        if (on) {
            requestFocus();
        }
        listening = on;
        pseudoClassStateChanged(LISTENING, on);
    }

    /** Takes a key that is played, where the field was asked to. */
    public void played(int key) {
        if (listening) {
            listen(false);
            take(key);
        }
    }

    /** Sets the receiver of chosen notes. */
    public void setOnNote(IntConsumer consumer) {
        onNote = consumer;
    }

    /** Shows a note 0-127. */
    public void setNote(int value, MiddleC naming) {
        note = value;
        middleC = naming;
        show(NoteNames.nameAndNumber(note, middleC));
    }

    /** The note that it shows, 0-127. */
    public int note() {
        return note;
    }

    /** Takes a note as if it had been typed. */
    public void take(int value) {
        restore();
        choose(value);
    }

    private void choose(int value) {
        if (value >= 0 && value <= 127 && value != note) {
            note = value;
            show(NoteNames.nameAndNumber(note, middleC));
            onNote.accept(value);
        }
    }
}
