package dibble.desktop.ui;

import java.util.function.Consumer;
import java.util.function.IntConsumer;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** The keys of a card or row that has the focus: the same for all. */
public final class FocusKeys {
    private FocusKeys() {}

    /** Enter and Space choose it; with the event, since some choose several with Ctrl or Shift. */
    public static void choose(Node node, Consumer<KeyEvent> choose) {
        on(node, event -> {
            boolean chooses = event.getCode() == KeyCode.ENTER || event.getCode() == KeyCode.SPACE;
            if (chooses) {
                choose.accept(event);
            }
            return chooses;
        });
    }

    /** Enter opens it; with the event, since Ctrl or Shift may open it beside others. */
    public static void open(Node node, Consumer<KeyEvent> open) {
        on(node, event -> {
            boolean opens = event.getCode() == KeyCode.ENTER;
            if (opens) {
                open.accept(event);
            }
            return opens;
        });
    }

    /** Delete and Backspace take it away. */
    public static void delete(Node node, Runnable delete) {
        on(node, event -> {
            boolean deletes = event.getCode() == KeyCode.DELETE || event.getCode() == KeyCode.BACK_SPACE;
            if (deletes) {
                delete.run();
            }
            return deletes;
        });
    }

    /** Alt and the arrows up and down move it by a place: -1 or 1. */
    public static void move(Node node, IntConsumer move) {
        on(node, event -> {
            boolean up = event.getCode() == KeyCode.UP;
            boolean moves = event.isAltDown() && (up || event.getCode() == KeyCode.DOWN);
            if (moves) {
                move.accept(up ? -1 : 1);
            }
            return moves;
        });
    }

    /** Esc leaves it. */
    public static void escape(Node node, Runnable leave) {
        on(node, event -> {
            boolean leaves = event.getCode() == KeyCode.ESCAPE;
            if (leaves) {
                leave.run();
            }
            return leaves;
        });
    }

    private interface Taker {
        boolean take(KeyEvent event);
    }

    /** Nodes within may be text fields or buttons, which handle their keys themselves, except Esc. */
    private static void on(Node node, Taker taker) {
        node.addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            boolean own = event.getTarget() == node || event.getCode() == KeyCode.ESCAPE;
            if (own && taker.take(event)) {
                event.consume();
            }
        });
    }
}
