package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;

/** Waits for a key of any source, and says what for. */
final class KeyWait extends Label {
    /** Takes the next key that is pressed. */
    @FunctionalInterface
    interface Taker {
        void pressed(String source, int key);
    }

    private Taker taker;

    KeyWait() {
        setId("waiting");
        getStyleClass().add("ghost");
        setVisible(false);
        StackPane.setAlignment(this, Pos.TOP_CENTER);
    }

    void waitFor(String what, Taker next) {
        taker = next;
        setText(say("key-wait.esc-cancels", what));
        setVisible(true);
    }

    /** Waits no longer. */
    void leave() {
        taker = null;
        setVisible(false);
    }

    /** Returns true if a question waited for this key. */
    boolean take(String source, int key) {
        Taker now = taker;
        if (now != null) {
            leave();
            now.pressed(source, key);
        }
        return now != null;
    }
}
