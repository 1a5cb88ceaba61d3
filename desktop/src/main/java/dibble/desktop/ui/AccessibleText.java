package dibble.desktop.ui;

import javafx.css.PseudoClass;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;

/** What a screen reader is told of things that are no controls of the toolkit: what they are, and whether they are chosen. */
public final class AccessibleText {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");

    private AccessibleText() {}

    /**
     * Has a node told as one of many that can be chosen. Its text is its accessible text; a change of it is told by itself.
     *
     * @param what it is, in a word or two
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

    /** What a node answers to {@link AccessibleAttribute#SELECTED}; null for everything else. */
    public static Object answer(Node node, AccessibleAttribute attribute) {
        return attribute == AccessibleAttribute.SELECTED
                ? node.getPseudoClassStates().contains(SELECTED)
                : null;
    }
}
