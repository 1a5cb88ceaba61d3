package dibble.desktop.ui;

import javafx.css.PseudoClass;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;

/**
 * Descriptions for a screen reader of nodes that are not controls of the toolkit: their role, and whether they are
 * selected.
 */
public final class AccessibleText {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");

    private AccessibleText() {}

    /**
     * Describes a node as a selectable item. Its text is its accessible text; the toolkit reports changes of it.
     *
     * @param what its role, in a word or two
     */
    public static void item(Node node, String what) {
        node.setAccessibleRole(AccessibleRole.LIST_ITEM);
        node.setAccessibleRoleDescription(what);
        node.getPseudoClassStates().addListener((javafx.collections.SetChangeListener<PseudoClass>) change -> {
            if (SELECTED.equals(change.getElementAdded()) || SELECTED.equals(change.getElementRemoved())) {
                node.notifyAccessibleAttributeChanged(AccessibleAttribute.SELECTED);
            }
        });
    }

    /** Returns a node's answer to {@link AccessibleAttribute#SELECTED}; null for other attributes. */
    public static Object answer(Node node, AccessibleAttribute attribute) {
        return attribute == AccessibleAttribute.SELECTED
                ? node.getPseudoClassStates().contains(SELECTED)
                : null;
    }
}
