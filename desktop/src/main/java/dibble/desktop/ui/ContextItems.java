package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntConsumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;

/** The context menu of an object, at the pointer; the menu key opens it too. */
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

    /**
     * The same for a thing that has a place among others: Up, Down and Delete come last.
     *
     * @param move moves it by a place: -1 or 1
     */
    public static void on(Node node, Supplier<List<MenuItem>> items, IntConsumer move, Runnable delete) {
        on(node, () -> {
            List<MenuItem> all = new ArrayList<>(items.get());
            all.add(Cards.item("context-up", say("common.up"), () -> move.accept(-1)));
            all.add(Cards.item("context-down", say("common.down"), () -> move.accept(1)));
            all.add(Cards.item("context-delete", say("common.delete"), delete));
            return all;
        });
    }
}
