package dibble.desktop.ui;

import javafx.scene.Node;
import javafx.scene.layout.VBox;

/** A question that is asked in place, next to its object; Esc cancels it. The focus returns to the previous node. */
public class Question extends VBox {
    private Node before;

    protected Question(String id) {
        super(8);
        setId(id);
        getStyleClass().add("planting");
        FocusKeys.escape(this, this::close);
        Cards.show(this, false);
    }

    /**
     * Opens the question.
     *
     * @param focus the node that receives the focus
     */
    protected void open(Node focus) {
        if (!isOpen()) {
            before = getScene() == null ? null : getScene().getFocusOwner();
        }
        Cards.show(this, true);
        focus.requestFocus();
    }

    /** Returns true if it is asked now. */
    public boolean isOpen() {
        return isVisible();
    }

    /** Leaves it. */
    public void close() {
        boolean hadFocus = getScene() != null && Cards.isWithin(getScene().getFocusOwner(), this);
        Cards.show(this, false);
        if (hadFocus && before != null && before.getScene() == getScene()) {
            before.requestFocus();
        }
        before = null;
    }
}
