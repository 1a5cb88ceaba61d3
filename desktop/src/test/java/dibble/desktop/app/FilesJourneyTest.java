package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.session.Session;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Saving, opening and closing as a user does it; nothing is lost. */
class FilesJourneyTest extends WindowTest {
    @TempDir
    private Path folder;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private void shortcut(KeyCode... keys) {
        press(KeyCode.CONTROL);
        press(keys).release(keys);
        release(KeyCode.CONTROL);
    }

    private void answer(Path path) {
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        onFx(() -> {
            TextField field = lookup("#ask-field").query();
            field.setText(path.toString());
            field.requestFocus();
        });
        type(KeyCode.ENTER);
    }

    @Test
    void closingAsksInPlaceAndWhatIsSavedIsOpenedAgain() throws Exception {
        onFx(window::close);
        assertThat(quit).isTrue();
        quit.set(false);

        clickOn("#zone-marimba");
        type(KeyCode.RIGHT);
        until(() -> desk().document().isChanged());
        onFx(window::close);
        until(() -> desk().ask().isAsking());
        assertThat(quit).isFalse();
        clickOn(labelled("Cancel"));
        until(() -> !desk().ask().isAsking());

        Path file = folder.resolve("round.dibble");
        shortcut(KeyCode.S);
        answer(file);
        until(() -> Files.exists(file));
        until(() -> !desk().document().isChanged());
        assertThat(SessionFile.read(file).session().zone("marimba"))
                .isEqualTo(desk().session().zone("marimba"));

        // Another file is replaced only when that is said.
        Path other = folder.resolve("other.dibble");
        Files.writeString(other, "precious");
        press(KeyCode.CONTROL, KeyCode.SHIFT).type(KeyCode.S).release(KeyCode.SHIFT, KeyCode.CONTROL);
        answer(other);
        until(() -> lookup(labelled("Replace")).tryQuery().isPresent());
        clickOn(labelled("Cancel"));
        assertThat(Files.readString(other)).isEqualTo("precious");

        // A broken file, and one that is not there: one line, and the session stays.
        Path broken = folder.resolve("broken.dibble");
        Files.writeString(broken, "{\"format\":\"dibble-session\",\"version\":1,\"name\":5}");
        Session before = desk().session();
        shortcut(KeyCode.O);
        answer(broken);
        until(() -> told().contains("broken.dibble: $.name"));
        shortcut(KeyCode.O);
        answer(folder.resolve("none.dibble"));
        until(() -> told().contains("no such file"));
        assertThat(desk().session()).isSameAs(before);

        shortcut(KeyCode.N);
        until(() -> plain(desk().session().name()).equals("New session"));
        // What is bare begins with its gear.
        until(() -> lookup("#bare-split").tryQuery().isPresent());
        shortcut(KeyCode.O);
        answer(file);
        until(() -> desk().session().name().equals(before.name()));
        assertThat(desk().session().zones()).isEqualTo(before.zones());

        // Changed again, and closed without saving.
        clickOn("#view-keys");
        until(() -> lookup("#zone-marimba").tryQuery().isPresent());
        clickOn("#zone-marimba");
        type(KeyCode.RIGHT);
        until(() -> desk().document().isChanged());
        onFx(window::close);
        until(() -> desk().ask().isAsking());
        clickOn(labelled("Don’t save"));
        until(quit::get);
    }

    @Test
    void whatIsToldTakesNoQuestionAwayAndCanBeReadAgain() throws Exception {
        shortcut(KeyCode.O);
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        onFx(() -> lookup("#ask-field").<TextField>queryAs(TextField.class).setText("half a na"));
        onFx(() -> {
            desk().ask().tell("The first thing.");
            desk().ask().tell("The second thing.");
        });
        assertThat(lookup("#ask-field").queryAs(TextField.class).getText()).isEqualTo("half a na");
        assertThat(told()).isEqualTo("The second thing.");
        clickOn(labelled("1 earlier"));
        until(() -> told().equals("The first thing."));
        clickOn(labelled("Close"));
        until(() -> told().isEmpty());
        // What cannot be opened leaves the question, to be mended.
        type(KeyCode.TAB);
        answer(folder.resolve("none.dibble"));
        until(() -> told().contains("no such file"));
        assertThat(lookup("#ask-field").tryQuery()).isPresent();
        clickOn(labelled("Cancel"));
        clickOn(labelled("Close"));
        until(() -> !desk().ask().isAsking());
        shortcut(KeyCode.SHIFT, KeyCode.I);
        until(() -> told().contains("no such file"));
        clickOn(labelled("2 earlier"));
        until(() -> told().equals("The second thing."));
        clickOn(labelled("Later"));
        until(() -> told().contains("no such file"));
    }
}
