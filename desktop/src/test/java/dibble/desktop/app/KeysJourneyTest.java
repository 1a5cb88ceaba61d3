package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.desktop.ui.Palette;
import dibble.midi.Range;
import dibble.routing.Zone;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;

/** Hands on the Keys view of the demo. */
class KeysJourneyTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private Zone zone(String id) {
        return desk().session().zone(id).orElseThrow();
    }

    private Bounds band(String id) {
        Node node = lookup("#zone-" + id).query();
        return node.localToScreen(node.getBoundsInLocal());
    }

    @Test
    void bandsAreDraggedResizedNudgedRenamedAndDeletedEachInOneStep() {
        Bounds band = band("marimba");
        double column = (band.getWidth() - 16) / 32;
        Point2D middle = new Point2D(band.getCenterX(), band.getCenterY());
        moveTo(middle).press(MouseButton.PRIMARY);
        moveTo(middle.add(3 * column, 0));
        until(() -> zone("marimba").keys().equals(new Range(56, 87)));
        moveTo(middle.add(5 * column, 0));
        release(MouseButton.PRIMARY);
        until(() -> zone("marimba").keys().equals(new Range(58, 89)));

        // Its upper end, by the grip.
        band = band("marimba");
        Point2D end = new Point2D(band.getMaxX() - 9, band.getCenterY());
        moveTo(end).press(MouseButton.PRIMARY).moveTo(end.add(-4 * column, 0)).release(MouseButton.PRIMARY);
        until(() -> zone("marimba").keys().equals(new Range(58, 85)));
        push(KeyCode.CONTROL, KeyCode.Z);
        until(() -> zone("marimba").keys().equals(new Range(58, 89)));
        push(KeyCode.CONTROL, KeyCode.Z);
        until(() -> zone("marimba").keys().equals(new Range(53, 84)));
        assertThat(desk().document().undoName()).isEmpty();

        // A drag that Esc leaves is no step.
        band = band("marimba");
        middle = new Point2D(band.getCenterX(), band.getCenterY());
        moveTo(middle).press(MouseButton.PRIMARY).moveTo(middle.add(3 * column, 0));
        until(() -> !zone("marimba").keys().equals(new Range(53, 84)));
        type(KeyCode.ESCAPE);
        until(() -> zone("marimba").keys().equals(new Range(53, 84)));
        release(MouseButton.PRIMARY);
        assertThat(desk().document().undoName()).isEmpty();

        // By keyboard: the band has the focus.
        type(KeyCode.RIGHT);
        until(() -> zone("marimba").keys().equals(new Range(54, 85)));
        press(KeyCode.ALT).type(KeyCode.LEFT).release(KeyCode.ALT);
        until(() -> zone("marimba").keys().equals(new Range(54, 84)));
        type(KeyCode.ENTER);
        until(() -> lookup("#zone-name").tryQuery().isPresent());
        onFx(() -> ((TextField) lookup("#zone-name").query()).setText("Wood"));
        type(KeyCode.ENTER);
        until(() -> zone("marimba").name().equals("Wood"));
        clickOn("#zone-marimba");
        type(KeyCode.DELETE);
        until(() -> desk().session().zone("marimba").isEmpty());
        press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        until(() -> desk().session().zone("marimba").isPresent());
    }

    @Test
    void aLayerSoundsBothAndKeysOfTheComputerPlayThem() {
        int before = desk().session().zones().size();
        dragPart("sorrel-kalimba", "tansy", 60);
        until(() -> lookup("#drop-question").query().isVisible());
        clickOn("#on-top");
        until(() -> desk().session().zones().size() == before + 1);
        clickOn("#learn-keys");
        playKey("tansy", 60);
        playKey("tansy", 72);
        String id = desk().selection().zone().get();
        until(() -> zone(id).keys().equals(new Range(60, 72)));

        clickOn("#keys-play");
        port.messages.clear();
        // The lower row begins at C3; Z is its C, and the upper row's Q is the C above: 60.
        press(KeyCode.Q);
        until(() -> desk().live().isDown("tansy", 60));
        release(KeyCode.Q);
        until(() -> !desk().live().isDown("tansy", 60));
        assertThat(port.notes()).containsExactly("4:72", "3:60");
        until(() -> accessible("#sentence") != null);
        assertThat(accessible("#sentence"))
                .contains("Tansy 32", "C4 60", "Marimba, C5 72 on Sorrel 4", "Kalimba, C4 60 on Sorrel 3");

        // Not heard: nothing leaves, and the live line says why.
        clickOn("#hear-tansy");
        port.messages.clear();
        press(KeyCode.Q).release(KeyCode.Q);
        until(() -> accessible("#sentence").contains("Hear is off"));
        assertThat(port.notes()).isEmpty();
    }

    @Test
    void everyControlHasANameInBothThemesAndViews() {
        for (Palette palette : Palette.values()) {
            onFx(() -> desk().theme().paletteProperty().set(palette));
            clickOn("#zone-marimba");
            assertNamed();
            clickOn("#view-takes");
            assertNamed();
            clickOn("#view-keys");
        }
    }

    private void assertNamed() {
        List<String> nameless = new ArrayList<>();
        collectNameless(window, nameless);
        assertThat(nameless).isEmpty();
    }

    private static void collectNameless(Node node, List<String> nameless) {
        if (!node.isVisible()) {
            return;
        }
        boolean named = node.getAccessibleText() != null
                || node instanceof Labeled labeled
                        && labeled.getText() != null
                        && !labeled.getText().isBlank();
        boolean scrollPane = node instanceof javafx.scene.control.ScrollPane;
        if (node.isFocusTraversable() && !named && !scrollPane) {
            nameless.add(node.toString());
        }
        if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> collectNameless(child, nameless));
        }
    }
}
