package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.session.Session;
import dibble.studio.Transport;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Keys go to what has the focus first, and what is held with them counts. */
class WindowKeysTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private String scene() {
        return desk().session().activeScene(desk().performance());
    }

    @Test
    void functionKeysCallScenesWhereNothingElseWantsThem() {
        String first = scene();
        clickOn("#zone-celesta");
        type(KeyCode.F2);
        until(() -> lookup("#zone-name").tryQuery().isPresent());
        assertThat(scene()).isEqualTo(first);
        type(KeyCode.ESCAPE);
        until(() -> lookup("#zone-name").tryQuery().isEmpty());

        for (KeyCode held : new KeyCode[] {KeyCode.ALT, KeyCode.CONTROL, KeyCode.SHIFT}) {
            press(held).type(KeyCode.F3).release(held);
            assertThat(scene()).as(held.getName()).isEqualTo(first);
        }
        type(KeyCode.F3);
        until(() -> scene().equals(desk().session().scenes().get(2).id()));
    }

    @Test
    void spaceSelectsTheCardThatHasTheFocusAndPlaysNothing() {
        clickOn("#view-gear");
        until(() -> lookup("#source-tansy").tryQuery().isPresent());
        onFx(() -> lookup("#source-tansy").query().requestFocus());
        type(KeyCode.SPACE);
        until(() -> "tansy".equals(desk().selection().source().get()));
        assertThat(workbench.studio().transport()).isEqualTo(Transport.STOPPED);
    }

    @Test
    void recordPressedAgainEndsTheRecording() {
        clickOn("#view-takes");
        press(KeyCode.CONTROL).type(KeyCode.R).release(KeyCode.CONTROL);
        until(() -> workbench.studio().transport() == Transport.RECORDING);
        press(KeyCode.CONTROL).type(KeyCode.R).release(KeyCode.CONTROL);
        until(() -> workbench.studio().transport() == Transport.STOPPED);
        clickOn("#record");
        until(() -> workbench.studio().transport() == Transport.RECORDING);
        clickOn("#record");
        until(() -> workbench.studio().transport() == Transport.STOPPED);
    }

    @Test
    void aMistakeOfDibblesOwnIsSaidWithItsLog() {
        AtomicBoolean shown = new AtomicBoolean();
        onFx(() -> window.tellMistake(Path.of("/logs/errors.log"), () -> shown.set(true)));
        assertThat(lookup("#ask-told").queryAs(Label.class).getText()).contains("/logs/errors.log", "save it");
        clickOn("Show it");
        until(shown::get);
    }
}
