package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.checks.Finding;
import dibble.presentation.Choice;
import java.util.List;
import java.util.function.Consumer;
import javafx.collections.ObservableList;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Pieces that cards and panels are made of. */
public final class Cards {
    /** The distance from a panel's edge in which it can be dragged. */
    private static final double EDGE = 5;

    private Cards() {}

    /** Words of less weight. */
    public static Label soft(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("soft");
        return label;
    }

    /** Returns a finding with its fix. */
    public static VBox finding(ViewContext desk, Finding finding) {
        Label text = new Label(finding.text());
        text.setWrapText(true);
        VBox line = new VBox(6, text);
        line.getStyleClass().add("finding");
        finding.mend()
                .ifPresent(mend -> line.getChildren()
                        .add(button(
                                "mend-" + finding.code(),
                                mend.words(),
                                () -> desk.findings().mend(finding))));
        return line;
    }

    /** Says why a port could not be opened. */
    public static Label trouble(String why) {
        Label label = new Label(say("cards.its-port-is-not-open", why));
        label.setWrapText(true);
        label.getStyleClass().add("missing");
        return label;
    }

    /** A name. */
    public static Label strong(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("strong");
        return label;
    }

    /** Returns a heading with a sentence about the content below it. */
    public static Label heading(String text, String about) {
        Label label = heading(text);
        label.setTooltip(new Tooltip(about));
        return label;
    }

    /** A heading. */
    public static Label heading(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("heading");
        return label;
    }

    /** Two things at the ends of a line; where there is no room for both, the left one is cut. */
    public static HBox line(Node left, Label right) {
        right.setMinWidth(Region.USE_PREF_SIZE);
        return line(left, (Node) right);
    }

    /** A line with something at either end. */
    public static HBox line(Node left, Node right) {
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox line = new HBox(8, left, space, right);
        line.getStyleClass().add("card-line");
        return line;
    }

    /** Things in a line, and in another below where there is no room for all. */
    public static FlowPane flow(Node... nodes) {
        FlowPane flow = new FlowPane(8, 4, nodes);
        flow.setRowValignment(VPos.CENTER);
        flow.setAlignment(Pos.CENTER_LEFT);
        return flow;
    }

    /** Returns a pane that scrolls vertically only. */
    public static ScrollPane scroll(Node content) {
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("rows");
        // It would take Space to turn a page; here Space plays and stops.
        scroll.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.SPACE && event.getTarget() == scroll && scroll.getParent() != null) {
                event.consume();
                scroll.getParent().fireEvent(event.copyFor(scroll.getParent(), scroll.getParent()));
            }
        });
        return scroll;
    }

    /**
     * The panel at the right of a view. Its left edge is dragged to make it wider; the width comes back with the next run.
     *
     * @param width how wide it is at first, and at least
     */
    public static ScrollPane side(ViewContext desk, String id, Node content, double width) {
        ScrollPane side = scroll(content);
        side.getStyleClass().setAll("scroll-pane", "side");
        side.setMinWidth(width);
        side.setPrefWidth(desk.preferences().memory().sizes().getOrDefault(id, width));
        side.setMaxWidth(width * 2);
        boolean[] drags = new boolean[1];
        side.addEventFilter(
                MouseEvent.MOUSE_MOVED, event -> side.setCursor(event.getX() < EDGE ? Cursor.H_RESIZE : null));
        side.addEventFilter(MouseEvent.MOUSE_PRESSED, event -> {
            drags[0] = event.getX() < EDGE;
            if (drags[0]) {
                event.consume();
            }
        });
        side.addEventFilter(MouseEvent.MOUSE_DRAGGED, event -> {
            if (drags[0]) {
                side.setPrefWidth(Math.max(width, Math.min(width * 2, side.getWidth() - event.getX())));
                event.consume();
            }
        });
        side.addEventFilter(MouseEvent.MOUSE_RELEASED, event -> {
            if (drags[0]) {
                drags[0] = false;
                desk.preferences().remember(memory -> memory.withSize(id, side.getPrefWidth()));
                event.consume();
            }
        });
        return side;
    }

    /** Shows or hides a node, with its space. */
    public static void show(Node node, boolean on) {
        node.setVisible(on);
        node.setManaged(on);
    }

    /** Replaces the children of a pane. The focus moves to the node with the id of the focused one. */
    public static void rebuild(Pane pane, List<? extends Node> nodes) {
        keepFocus(pane, () -> pane.getChildren().setAll(nodes));
    }

    /**
     * Replaces the children of a pane, most of which are unchanged: these stay, since removing and adding a node is
     * expensive.
     */
    public static void put(Pane pane, List<? extends Node> nodes) {
        ObservableList<Node> there = pane.getChildren();
        if (there.equals(nodes)) {
            return;
        }
        keepFocus(pane, () -> {
            if (there.size() == nodes.size() && !there.isEmpty()) {
                replace(there, nodes);
            } else {
                there.setAll(nodes);
            }
        });
    }

    private static void replace(ObservableList<Node> there, List<? extends Node> nodes) {
        for (int i = 0; i < nodes.size(); i++) {
            if (there.get(i) != nodes.get(i)) {
                // A child that changed places is missing for a moment unless all are set at once.
                if (there.contains(nodes.get(i))) {
                    there.setAll(nodes);
                    return;
                }
                there.set(i, nodes.get(i));
            }
        }
    }

    /**
     * Keeps the focus during any change of a pane's content. Typing continues in the field that replaces the focused
     * one.
     */
    public static void keepFocus(Pane pane, Runnable change) {
        Node focused = pane.getScene() == null ? null : pane.getScene().getFocusOwner();
        String id = isWithin(focused, pane) ? focused.getId() : null;
        if (id == null) {
            change.run();
            return;
        }
        EntryField before = focused instanceof EntryField field ? field : null;
        EntryField.Typing typing = before == null ? null : before.suspend();
        change.run();
        Node same = within(pane, id);
        if (before != null && same instanceof EntryField after) {
            after.resume(before, typing);
        } else if (same != null && same != focused) {
            same.requestFocus();
        }
    }

    /** Returns true if a node is a pane, or anywhere in it. */
    static boolean isWithin(Node node, Node pane) {
        Node at = node;
        while (at != null && at != pane) {
            at = at.getParent();
        }
        return at != null;
    }

    private static Node within(Parent pane, String id) {
        for (Node node : pane.getChildrenUnmodifiable()) {
            Node found = id.equals(node.getId()) ? node : node instanceof Parent inner ? within(inner, id) : null;
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    /** A box of choices. */
    public static <T> ComboBox<Choice<T>> box(String id, String name) {
        ComboBox<Choice<T>> box = new ComboBox<>();
        box.setId(id);
        box.setAccessibleText(name);
        box.getStyleClass().add("gear-choice");
        return box;
    }

    /** Does something at a click of the primary button: others open menus, and change nothing. */
    public static void onClick(Node node, Consumer<MouseEvent> action) {
        node.setOnMouseClicked(event -> {
            if (event.getButton() == MouseButton.PRIMARY) {
                action.accept(event);
            }
        });
    }

    /** A button as wide as its words. */
    public static Button button(String id, String text, Runnable action) {
        Button button = new Button(text);
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }

    /** An entry of a menu. */
    public static MenuItem item(String id, String text, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setId(id);
        item.setOnAction(event -> action.run());
        return item;
    }

    /** A text field that edits a value. */
    public static EntryField field(String id, String name, Runnable commit) {
        EntryField field = new EntryField(id, name);
        field.onCommit(commit);
        return field;
    }
}
