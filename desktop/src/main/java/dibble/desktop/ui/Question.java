package dibble.desktop.ui;

import javafx.scene.Node;
import javafx.scene.layout.VBox;

/** A question that is asked in place, where what it is about can be seen; Esc leaves it. */
public class Question extends VBox {
    protected Question(String id) {
        super(8);
        setId(id);
        getStyleClass().add("planting");
        FocusKeys.escape(this, this::close);
        Cards.show(this, false);
    }

    /** Asks. @param focus what has the focus first */
    protected void open(Node focus) {
        Cards.show(this, true);
        focus.requestFocus();
    }

    public boolean isOpen() {
        return isVisible();
    }

    /** Leaves it. */
    public void close() {
        Cards.show(this, false);
    }
}
