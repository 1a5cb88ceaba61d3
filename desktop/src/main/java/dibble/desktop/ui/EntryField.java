package dibble.desktop.ui;

import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/**
 * A text field that edits a value. What is typed stays whatever is refreshed around it; Enter, Tab and the loss of the focus
 * commit it, Esc restores the value. Before its object changes, and before anything is saved or left, the owner commits
 * it.
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

    /** Returns whether something was typed that is not committed. */
    public boolean isPending() {
        return pending;
    }

    /** Shows a value. What is being typed stays. */
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

    /** Shows the value again, without what was typed. */
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

    /** Commits what was typed, if there is anything. */
    public final void commitPending() {
        if (pending) {
            commit();
        }
    }

    /**
     * What is being typed.
     *
     * @param text the text; null where nothing is typed that is not committed
     */
    record Typing(String text, int anchor, int caret) {}

    /** Returns what is being typed, and leaves the field without committing it: it is about to be replaced. */
    Typing suspend() {
        Typing typing = new Typing(pending ? getText() : null, getAnchor(), getCaretPosition());
        pending = false;
        return typing;
    }

    /** Goes on with what was being typed in a field that this one replaces, if both edit the same value. */
    void resume(EntryField before, Typing typing) {
        requestFocus();
        if (typing.text != null && Objects.equals(subject, before.subject)) {
            setText(typing.text);
            pending = true;
        }
        selectRange(typing.anchor, typing.caret);
    }

    /** Returns the field in which something is typed now that is not committed; null for none. */
    static EntryField pendingIn(Scene scene) {
        return scene != null && scene.getFocusOwner() instanceof EntryField field && field.pending ? field : null;
    }

    /** Commits what is being typed within a node, before that shows another object. */
    public static void commitWithin(Node node) {
        EntryField field = pendingIn(node.getScene());
        if (field != null && Cards.isWithin(field, node)) {
            field.commitPending();
        }
    }
}
