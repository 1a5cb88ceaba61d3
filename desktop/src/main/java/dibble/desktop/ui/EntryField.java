package dibble.desktop.ui;

import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/**
 * A text field that edits a value. Uncommitted text survives every refresh; Enter, Tab and the loss of the focus commit it, Esc
 * restores the value. The owner commits the field before it shows another object, and before anything is saved or left.
 */
public class EntryField extends TextField {
    private Runnable commit = () -> {};
    private Object subject;

    /** The value, as text: Esc restores it. */
    private String value = "";

    private boolean pending;
    private boolean showing;
    private int entry;

    /**
     * Creates an empty field.
     *
     * @param name its name for screen readers
     */
    public EntryField(String id, String name) {
        setId(id);
        setAccessibleText(name);
        textProperty().subscribe(this::changed);
        setOnAction(event -> commit());
        focusedProperty().subscribe((was, is) -> {
            if (was && !is) {
                commitPending();
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE && pending) {
                restore();
                event.consume();
            }
        });
    }

    /** Sets what commits the text. It may show another text then. */
    public void onCommit(Runnable action) {
        commit = action;
    }

    /** Sets the object whose value the field edits, by which its typing is carried over where a list is built again. */
    public EntryField of(Object edited) {
        subject = edited;
        return this;
    }

    private void changed() {
        if (showing || !isFocused()) {
            value = getText();
            pending = false;
        } else {
            pending = !getText().equals(value);
        }
    }

    /** Returns whether the field has uncommitted text. */
    public boolean isPending() {
        return pending;
    }

    /** Shows a value. Uncommitted text stays. */
    public void show(String text) {
        if (pending) {
            value = text;
        } else if (!text.equals(getText())) {
            showing = true;
            setText(text);
            showing = false;
        }
    }

    /** Returns the number of the entry: it grows with each that is committed or restored. */
    int entry() {
        return entry;
    }

    /** Restores the value and discards uncommitted text. */
    public void restore() {
        pending = false;
        entry++;
        show(value);
    }

    /** Commits the text. */
    public final void commit() {
        pending = false;
        entry++;
        boolean was = showing;
        showing = true;
        try {
            commit.run();
        } finally {
            showing = was;
            value = getText();
        }
    }

    /** Commits uncommitted text, if there is any. */
    public final void commitPending() {
        if (pending) {
            commit();
        }
    }

    /**
     * The uncommitted text of a field, with its selection.
     *
     * @param text the text; null for none
     */
    record Typing(String text, int anchor, int caret) {}

    /** Returns the uncommitted text and clears it, since the field is about to be replaced. */
    Typing suspend() {
        Typing typing = new Typing(pending ? getText() : null, getAnchor(), getCaretPosition());
        pending = false;
        return typing;
    }

    /** Takes over the uncommitted text of a field that this one replaces, if both edit the same value. */
    void resume(EntryField before, Typing typing) {
        requestFocus();
        if (typing.text != null && Objects.equals(subject, before.subject)) {
            setText(typing.text);
            pending = true;
        }
        selectRange(typing.anchor, typing.caret);
    }

    /** Returns the field that has the focus and uncommitted text; null for none. */
    static EntryField pendingIn(Scene scene) {
        return scene != null && scene.getFocusOwner() instanceof EntryField field && field.pending ? field : null;
    }

    /** Commits the field within a node, before the node shows another object. */
    public static void commitWithin(Node node) {
        EntryField field = pendingIn(node.getScene());
        if (field != null && Cards.isWithin(field, node)) {
            field.commitPending();
        }
    }
}
