package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.presentation.app.Page;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Whatever takes the focus or a click says what it is, in every view, to those who do not see it. */
class AccessibilityTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private int controls;

    private void walk(Node node, List<String> unnamed) {
        if (!node.isVisible() || !node.isManaged() && !(node instanceof Control)) {
            return;
        }
        boolean control = node instanceof Control
                && !(node instanceof Label)
                && !(node instanceof ScrollPane)
                && !(node instanceof ScrollBar);
        controls += control ? 1 : 0;
        if ((control || node.isFocusTraversable())
                && !(node instanceof ScrollPane)
                && name(node).isBlank()) {
            unnamed.add(node.getClass().getSimpleName() + " #" + node.getId() + " " + node.getStyleClass());
        }
        // What is inside a control is its own affair.
        if (node instanceof Parent parent && !control) {
            parent.getChildrenUnmodifiable().forEach(child -> walk(child, unnamed));
        }
        if (node instanceof ScrollPane scroll && scroll.getContent() != null) {
            walk(scroll.getContent(), unnamed);
        }
    }

    private static String name(Node node) {
        if (node.getAccessibleText() != null) {
            return node.getAccessibleText();
        }
        return node instanceof Labeled labeled && labeled.getText() != null ? labeled.getText() : "";
    }

    private void assertNamed(String where) {
        List<String> unnamed = new ArrayList<>();
        controls = 0;
        interact(() -> walk(window, unnamed));
        assertThat(unnamed).as(where).isEmpty();
        assertThat(controls).as(where).isGreaterThan(20);
    }

    @Test
    void everyControlHasAName() {
        interact(() -> desk().selection().zoneAlone("drums"));
        until(() -> lookup("#zone-note-map").tryQuery().isPresent());
        interact(() -> ((ToggleButton) lookup("#zone-note-map").query()).fire());
        until(() -> lookup("#note-map-notes-53").tryQuery().isPresent());
        assertNamed("keys");
        interact(() -> window.show(Page.GEAR));
        until(() -> lookup("#gear").tryQuery().isPresent());
        interact(() -> ((Button) lookup("#face-of-yarrow").query()).fire());
        interact(() -> ((Button) lookup("#faults-stand-in-teasel").query()).fire());
        assertNamed("gear, ports");
        interact(() -> desk().selection().part().set("yarrow/organ"));
        until(() -> lookup("#gear-more").tryQuery().isPresent());
        interact(() -> ((Button) lookup("#gear-more").query()).fire());
        until(() -> lookup("#keyswitches-add").tryQuery().isPresent());
        assertNamed("gear, a part");
        interact(() -> {
            desk().selection().part().set(null);
            desk().selection().parts().clear();
            desk().selection().source().set("teasel");
        });
        until(() -> lookup("#lane-add").tryQuery().isPresent());
        assertNamed("gear, a source");
        for (Page page : List.of(Page.TAKES, Page.SETTINGS)) {
            interact(() -> window.show(page));
            assertNamed(page.name());
        }
    }

    @Test
    void everyControlOfChannelsControlsScenesAndChecksHasAName() {
        interact(() -> {
            ((ToggleButton) lookup("#show-passed").query()).fire();
            ((ToggleButton) lookup("#show-why").query()).fire();
            window.show(Page.CHANNELS);
        });
        until(() -> lookup("#arrival-tansy-2").tryQuery().isPresent());
        interact(() -> {
            ((Button) lookup("#join-plant-open").query()).fire();
            desk().selection().zoneAlone("marimba");
        });
        until(() -> lookup("#way-low").query().isVisible());
        assertNamed("channels");
        interact(() -> {
            window.show(Page.CONTROLS);
            desk().selection().control().set("fade");
        });
        until(() -> lookup("#control-name").tryQuery().isPresent());
        for (String make : List.of("#add-fade", "#add-many")) {
            interact(() -> ((Button) lookup(make).query()).fire());
            assertNamed("controls " + make);
        }
        interact(() -> window.show(Page.SCENES));
        until(() -> lookup("#scene-sound-celesta").tryQuery().isPresent());
        interact(() -> ((ToggleButton) lookup("#scene-sound-celesta").query()).fire());
        assertNamed("scenes");
        interact(() -> ((ToggleButton) lookup("#scene-large").query()).fire());
        assertNamed("a scene, large");
        interact(() -> window.show(Page.CHECKS));
        until(() -> lookup("#intended-0").tryQuery().isPresent());
        assertNamed("checks");
    }

    /** A screen reader is told what a thing is and whether it is chosen. */
    @Test
    void whatIsChosenIsTold() {
        Node band = lookup("#zone-celesta").query();
        assertThat(band.getAccessibleRole()).isEqualTo(AccessibleRole.LIST_ITEM);
        assertThat(WindowTest.plain(band.getAccessibleRoleDescription())).isEqualTo("zone");
        assertThat(band.queryAccessibleAttribute(AccessibleAttribute.SELECTED)).isEqualTo(false);
        interact(() -> desk().selection().zoneAlone("celesta"));
        until(() -> Boolean.TRUE.equals(band.queryAccessibleAttribute(AccessibleAttribute.SELECTED)));
    }

    /** With Tab alone one gets round the view and back. */
    @Test
    void theFocusGoesRound() {
        for (Page page : List.of(Page.KEYS, Page.GEAR, Page.CHANNELS, Page.CONTROLS)) {
            interact(() -> window.show(page));
            List<Node> seen = new ArrayList<>();
            for (int i = 0; i < 60; i++) {
                type(KeyCode.TAB);
                seen.add(window.getScene().getFocusOwner());
            }
            assertThat(seen.stream().distinct().count()).as(page.name()).isGreaterThan(20);
        }
    }
}
