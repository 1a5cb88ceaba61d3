package dibble.desktop.ui;

import dibble.session.Document;
import dibble.session.Gesture;
import javafx.beans.value.ChangeListener;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.stage.Window;

/**
 * The pointer of a window. Each press of the primary button belongs to one handler, and ends once: the button is released, or
 * the press is cancelled by Esc, by another button, by the window losing the focus, or because its node has left the window.
 * A press that edits is a {@link Gesture} of the document, so that undo and another session cancel it as well.
 */
public final class Pointer {
    /** Follows a press from its begin to its end. */
    public interface Handler {
        /** Returns whether the press begins something that is dragged. */
        boolean press(MouseEvent event);

        /** Follows the pointer. */
        void drag(MouseEvent event, Gesture gesture);

        /** Ends the press where the button is released. The gesture is left where this does not finish it. */
        void release(MouseEvent event, Gesture gesture);

        /** Forgets the press: it was cancelled. */
        void cancel();

        /** Returns whether the press goes on where something else edits the session meanwhile. */
        default boolean followsEdits() {
            return true;
        }
    }

    /** A press that has not ended; its gesture is null where it does not edit. */
    private static final class Press {
        final Node node;
        final Handler handler;
        Gesture gesture;

        Press(Node node, Handler handler) {
            this.node = node;
            this.handler = handler;
        }
    }

    private final Document document;
    private final ChangeListener<Scene> leaves = (of, before, now) -> cancel();
    private Press now;
    private boolean cancelled;

    /** @param document the document whose gestures the presses are */
    public Pointer(Document document) {
        this.document = document;
    }

    /** Gives presses on a node to a handler that edits. */
    public void edits(Node node, Handler handler) {
        install(node, handler, true);
    }

    /** Gives presses on a node to a handler that edits nothing, such as a key that sounds. */
    public void plays(Node node, Handler handler) {
        install(node, handler, false);
    }

    private void install(Node node, Handler handler, boolean edits) {
        node.addEventHandler(MouseEvent.MOUSE_PRESSED, event -> press(event, node, handler, edits));
        node.addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
            if (isOf(node, handler)) {
                handler.drag(event, now.gesture);
                event.consume();
            }
        });
        node.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            if (isOf(node, handler) && event.getButton() == MouseButton.PRIMARY) {
                Gesture gesture = now.gesture;
                end();
                handler.release(event, gesture);
                if (gesture != null) {
                    gesture.leave();
                }
                event.consume();
            }
        });
    }

    private boolean isOf(Node node, Handler handler) {
        return now != null && now.node == node && now.handler == handler;
    }

    private void press(MouseEvent event, Node node, Handler handler, boolean edits) {
        if (event.getButton() != MouseButton.PRIMARY) {
            return;
        }
        cancel();
        if (!handler.press(event)) {
            return;
        }
        Press press = new Press(node, handler);
        if (edits) {
            press.gesture = document.begin(end -> drop(press));
            if (!handler.followsEdits()) {
                press.gesture.bind();
            }
        }
        now = press;
        node.sceneProperty().addListener(leaves);
        event.consume();
    }

    /** Returns whether a press lasts. */
    public boolean isDown() {
        return now != null;
    }

    /** Cancels the press that lasts. */
    public void cancel() {
        Press press = now;
        if (press != null) {
            if (press.gesture != null && press.gesture.isOpen()) {
                document.cancelGesture();
            }
            drop(press);
        }
    }

    private void drop(Press press) {
        if (now == press) {
            end();
            press.handler.cancel();
        }
    }

    private void end() {
        now.node.sceneProperty().removeListener(leaves);
        now = null;
    }

    /** Watches the content of a window for what cancels a press. */
    public void watch(Node content) {
        content.addEventFilter(MouseEvent.MOUSE_PRESSED, event -> {
            cancelled = isDown();
            if (cancelled) {
                cancel();
                event.consume();
            }
        });
        content.addEventFilter(ContextMenuEvent.CONTEXT_MENU_REQUESTED, event -> {
            // The button that cancelled a press opens no menu.
            if (cancelled) {
                event.consume();
            }
        });
        content.addEventFilter(MouseEvent.MOUSE_MOVED, event -> {
            // A pointer moves without a button only where the release went to another window.
            cancel();
        });
        content.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE && isDown()) {
                cancel();
                event.consume();
            }
        });
        content.sceneProperty()
                .flatMap(Scene::windowProperty)
                .flatMap(Window::focusedProperty)
                .subscribe(focused -> {
                    if (Boolean.FALSE.equals(focused)) {
                        cancel();
                    }
                });
    }
}
