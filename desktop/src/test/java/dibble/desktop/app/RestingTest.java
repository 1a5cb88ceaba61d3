package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.midi.ShortMessage;
import dibble.presentation.app.Page;
import dibble.session.Session;
import dibble.standins.StandIn;
import javafx.geometry.Point2D;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;

/** While nothing moves no frame is drawn; what is played, changed or touched is seen all the same. */
class RestingTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private void untilItRests() {
        until(() -> !desk().pulse().isAwake());
    }

    @Test
    void itRestsWhereNothingMovesInEveryView() {
        for (Page page : Page.values()) {
            onFx(() -> window.show(page));
            until(() -> desk().pulse().stillFrames() > 15);
        }
        untilItRests();
        for (int i = 0; i < 10; i++) {
            frame();
            assertThat(onFx(desk().pulse()::isAwake)).isFalse();
        }
    }

    @Test
    void aKeyThatIsPlayedWakesItAndIsSeen() {
        untilItRests();
        StandIn larkspur = desk().standIns().standIn("stand-in:larkspur").orElseThrow();
        larkspur.play(ShortMessage.noteOn(0, 60, 80));
        until(() -> desk().live().isDown("larkspur", 60));
        larkspur.play(ShortMessage.noteOff(0, 60, 64));
        until(() -> !desk().live().isDown("larkspur", 60));
    }

    @Test
    void anEditWhileItRestsIsShown() {
        untilItRests();
        onFx(() -> desk().document().edit("name", session -> session.withName("Another")));
        until(() -> text("#session-name").equals("Another"));
    }

    @Test
    void aNumberIsDraggedAndScrolledAsOneStepEach() {
        onFx(() -> desk().selection().zoneAlone("celesta"));
        until(() -> lookup("#velocity-high").tryQuery().isPresent());
        // Makes room, whatever the language.
        onFx(() -> lookup("#fold-sounds").queryAs(ButtonBase.class).fire());
        settle();
        TextField field = lookup("#velocity-high").query();
        Point2D at = point(field).query();
        moveTo(at).press(MouseButton.PRIMARY).moveTo(at.add(0, 20)).moveTo(at.add(0, 40));
        assertThat(desk().document().undoName()).isEmpty();
        release(MouseButton.PRIMARY);
        until(() -> high() == 117);
        onFx(() -> desk().document().undo());
        assertThat(high()).isEqualTo(127);
        assertThat(desk().document().undoName()).isEmpty();
        // The wheel turns it while it has the focus; elsewhere the panel is scrolled.
        until(() -> field.getText().equals("127"));
        onFx(field::requestFocus);
        onFx(() -> {
            for (int i = 0; i < 3; i++) {
                field.fireEvent(wheel(-40));
            }
        });
        until(() -> high() == 124);
        onFx(() -> desk().document().undo());
        assertThat(high()).isEqualTo(127);
        push(KeyCode.ESCAPE);
    }

    private int high() {
        return desk().session().zone("celesta").orElseThrow().velocity().high();
    }

    private static javafx.scene.input.ScrollEvent wheel(double by) {
        return new javafx.scene.input.ScrollEvent(
                javafx.scene.input.ScrollEvent.SCROLL,
                0,
                0,
                0,
                0,
                false,
                false,
                false,
                false,
                true,
                false,
                0,
                by,
                0,
                by,
                javafx.scene.input.ScrollEvent.HorizontalTextScrollUnits.NONE,
                0,
                javafx.scene.input.ScrollEvent.VerticalTextScrollUnits.NONE,
                0,
                0,
                null);
    }
}
