package dibble.desktop.ui;

import java.util.List;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;

/** What can be done with a thing, in a menu at the pointer; the menu key opens it too. */
public final class ContextItems {
    private ContextItems() {}

    /**
     * Gives a node such a menu.
     *
     * @param items made each time it opens, so that they fit the thing as it is then; none open nothing
     */
    public static void on(Node node, Supplier<List<MenuItem>> items) {
        node.setOnContextMenuRequested(event -> {
            List<MenuItem> made = items.get();
            if (!made.isEmpty()) {
                ContextMenu menu = new ContextMenu(made.toArray(new MenuItem[0]));
                menu.setId("context");
                menu.setAutoHide(true);
                menu.show(node.getScene().getWindow(), event.getScreenX(), event.getScreenY());
            }
            event.consume();
        });
    }
}
