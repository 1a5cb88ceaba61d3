package dibble.desktop.ui;

import dibble.presentation.Navigator;
import dibble.presentation.Navigator.Thing;
import dibble.presentation.RelatedItems;
import dibble.presentation.Subscription;
import java.util.Set;
import java.util.function.Supplier;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.Parent;

/**
 * Highlights the objects related to the one under the pointer in all visible views: zones, ribbons, parts, tracks,
 * sources.
 */
public final class HoverHighlight {
    private static final PseudoClass LIT = PseudoClass.getPseudoClass("lit");

    private HoverHighlight() {}

    /**
     * Assigns an object to a node: the pointer over the node highlights related ones.
     *
     * @param id returns the id when it is needed, since a node can show another object later
     */
    public static void on(ViewContext desk, Node node, Navigator.Kind kind, Supplier<String> id) {
        Supplier<Thing> thing = () -> new Thing(kind, id.get());
        node.getProperties().put(HoverHighlight.class, thing);
        node.hoverProperty().subscribe((before, over) -> {
            if (over) {
                desk.selection().lit().set(thing.get());
            } else if (thing.get().equals(desk.selection().lit().get())) {
                desk.selection().lit().set(null);
            }
        });
    }

    /** Starts highlighting within a node. */
    public static Subscription within(ViewContext desk, Parent root) {
        return desk.selection().lit().follow(thing -> {
            Set<Thing> related = thing == null
                    ? Set.of()
                    : RelatedItems.to(thing, desk.session(), desk.routing().zones());
            show(root, related);
        });
    }

    private static void show(Node node, Set<Thing> related) {
        if (node.getProperties().get(HoverHighlight.class) instanceof Supplier<?> thing) {
            node.pseudoClassStateChanged(LIT, related.contains(thing.get()));
        }
        if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> show(child, related));
        }
    }
}
