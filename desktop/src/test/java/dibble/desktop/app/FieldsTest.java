package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.Transport;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Fields with uncommitted text, and the keys that belong to them. */
class FieldsTest extends WindowTest {
    @Override
    Session session() {
        return InterruptedDragsTest.demoWithNotes();
    }

    private Zone zone(String id) {
        return desk().document().kept().session().zone(id).orElseThrow();
    }

    private TextField field(String id) {
        return lookup(id).queryAs(TextField.class);
    }

    private void startTyping(String id, String text) {
        until(() -> lookup(id).tryQuery().filter(Node::isVisible).isPresent());
        interact(() -> {
            field(id).requestFocus();
            field(id).setText(text);
        });
    }

    private void showMarimba() {
        clickOn("#zone-marimba");
        until(() -> lookup("#inspector-name").tryQuery().isPresent());
    }

    @Test
    void typingSurvivesARefreshAndEscapeRestoresTheValue() {
        showMarimba();
        startTyping("#inspector-name", "Wood");
        interact(() -> desk().document().edit("other", session -> session.withName("edited by another hand")));
        settle();
        interact(() -> desk().callScene("snow"));
        settle();
        assertThat(field("#inspector-name").getText()).isEqualTo("Wood");
        type(KeyCode.ESCAPE);
        assertThat(field("#inspector-name").getText()).isNotEqualTo("Wood");
        type(KeyCode.TAB);
        assertThat(zone("marimba").name())
                .isEqualTo(session().zone("marimba").orElseThrow().name());
    }

    @Test
    void typingGoesToTheObjectThatItWasBegunFor() {
        showMarimba();
        startTyping("#inspector-name", "Wood");
        interact(() -> desk().selection().zoneAlone("celesta"));
        until(() -> zone("marimba").name().equals("Wood"));
        settle();
        assertThat(zone("celesta").name())
                .isEqualTo(session().zone("celesta").orElseThrow().name());
        startTyping("#inspector-name", "Lost");
        interact(() -> workbench.open(session(), Performance.NEW));
        settle();
        interact(() -> window.requestFocus());
        settle();
        assertThat(desk().session()).isEqualTo(session());
    }

    @Test
    void pathBeingTypedInTheSettingsSurvivesASceneChange() {
        push(KeyCode.CONTROL, KeyCode.COMMA);
        startTyping("#session-folder", "/somewhere/else");
        interact(() -> {
            desk().callScene("snow");
            desk().document().edit("other", session -> session.withName("edited"));
            desk().preferences().change(settings -> settings.withHidden("stand-in:larkspur", true));
        });
        settle();
        settle();
        assertThat(field("#session-folder").getText()).isEqualTo("/somewhere/else");
        assertThat(field("#session-folder").isFocused()).isTrue();
        type(KeyCode.ESCAPE);
        assertThat(field("#session-folder").getText()).isEmpty();
    }

    @Test
    void undoAndRedoInAFieldLeaveTheSessionAlone() {
        interact(() -> {
            desk().document().edit("one", session -> session.withName("one"));
            desk().document().undo();
        });
        showMarimba();
        startTyping("#inspector-name", "Wood");
        push(KeyCode.CONTROL, KeyCode.Y);
        push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
        assertThat(desk().document().redoName()).contains("one");
        type(KeyCode.ESCAPE);
    }

    @Test
    void tempoKeepsItsFractionWhenTheWheelTurnsIt() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        startTyping("#tempo", "96.5");
        type(KeyCode.ENTER);
        until(() -> desk().session().tempo().bpm(0) == 96.5);
        interact(() -> {
            Node tempo = lookup("#tempo").query();
            tempo.requestFocus();
            tempo.fireEvent(InterruptedDragsTest.scroll(tempo, 40));
        });
        assertThat(field("#tempo").getText()).isEqualTo("97.5");
        push(KeyCode.CONTROL, KeyCode.S);
        until(() -> desk().document().kept().session().tempo().bpm(0) == 97.5);
        type(KeyCode.ESCAPE);
    }

    @Test
    void spacePlaysAfterAClickOnAButtonAndPressesOneThatTheKeyboardHasReached() {
        clickOn("#hear-tansy");
        until(() -> desk().performance().unheard().contains("tansy"));
        type(KeyCode.SPACE);
        until(() -> workbench.studio().transport() == Transport.PLAYING);
        assertThat(desk().performance().unheard()).contains("tansy");
        type(KeyCode.SPACE);
        until(() -> workbench.studio().transport() == Transport.STOPPED);
        type(KeyCode.TAB);
        interact(() -> lookup("#hear-tansy").query().requestFocus());
        type(KeyCode.SPACE);
        until(() -> !desk().performance().unheard().contains("tansy"));
    }

    @Test
    void spaceTapsTheBeatAfterAClickOnTap() {
        push(KeyCode.CONTROL, KeyCode.DIGIT5);
        until(() -> lookup("#track-celesta").tryQuery().isPresent());
        interact(() -> lookup("#track-celesta").query().requestFocus());
        push(KeyCode.ENTER);
        until(() -> lookup("#note-area").query().isFocused());
        push(KeyCode.CONTROL, KeyCode.B);
        until(() -> lookup("#beat-tap").query().isVisible());
        clickOn("#beat-tap");
        until(() -> workbench.studio().transport() == Transport.PLAYING);
        press(KeyCode.SPACE);
        press(KeyCode.SPACE);
        release(KeyCode.SPACE);
        until(() -> text("#beat-tap").contains("1"));
        assertThat(workbench.studio().transport()).isEqualTo(Transport.PLAYING);
        interact(() -> workbench.studio().stop());
        until(() -> workbench.studio().transport() == Transport.STOPPED);
    }

    @Test
    void typedKeyIsReleasedWhereverTheFocusWent() {
        clickOn("#zone-marimba");
        until(() -> lookup("#inspector-name").tryQuery().isPresent());
        interact(() -> lookup("#keys-play").queryAs(ToggleButton.class).setSelected(true));
        press(KeyCode.Q);
        until(() -> workbench.studio().soundingCount() > 0);
        interact(() -> field("#inspector-name").requestFocus());
        press(KeyCode.CONTROL);
        release(KeyCode.Q);
        release(KeyCode.CONTROL);
        until(() -> workbench.studio().soundingCount() == 0);
    }

    @Test
    void escapeEndsAPendingSplitWhateverHasTheFocus() {
        clickOn("#zone-marimba");
        type(KeyCode.S);
        until(() -> lookup("#waiting").query().isVisible());
        type(KeyCode.ESCAPE);
        until(() -> !lookup("#waiting").query().isVisible());
        type(KeyCode.S);
        until(() -> lookup("#waiting").query().isVisible());
        interact(() -> lookup("#record").query().requestFocus());
        type(KeyCode.ESCAPE);
        until(() -> !lookup("#waiting").query().isVisible());
        assertThat(desk().session()).isEqualTo(session());
    }
}
