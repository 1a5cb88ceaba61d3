package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.presentation.Command;
import dibble.session.Session;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Keys and commands are found without a manual. */
class CommandListTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private ListView<Command> list() {
        return lookup("#commands").queryListView();
    }

    private void open() {
        push(KeyCode.SHIFT, KeyCode.SLASH);
        until(() -> lookup("#command-list").query().isVisible());
    }

    @Test
    void aCommandIsFoundByAPartOfItsNameAndDone() {
        open();
        assertThat(list().getItems()).extracting(Command::id).contains("save", "cut-zone", "call-scene-3");
        write("large sc");
        until(() -> list().getItems().size() == 1);
        assertThat(list().getSelectionModel().getSelectedItem().id()).isEqualTo("scene-large");
        push(KeyCode.ENTER);
        until(() -> lookup("#large-now").tryQuery().isPresent());
        assertThat(lookup("#command-list").query().isVisible()).isFalse();
    }

    @Test
    void whatDoesNotApplyIsNotDoneAndEscLeaves() {
        String scene = desk().session().activeScene(desk().performance());
        open();
        write("to scene 12");
        until(() -> list().getItems().size() == 1);
        push(KeyCode.ENTER);
        assertThat(lookup("#command-list").query().isVisible()).isTrue();
        push(KeyCode.ESCAPE);
        until(() -> !lookup("#command-list").query().isVisible());
        assertThat(desk().session().activeScene(desk().performance())).isEqualTo(scene);
    }

    @Test
    void theArrowsChooseAmongWhatIsFound() {
        open();
        write("export");
        until(() -> list().getItems().size() == 5);
        push(KeyCode.DOWN);
        push(KeyCode.DOWN);
        assertThat(list().getSelectionModel().getSelectedIndex()).isEqualTo(2);
        push(KeyCode.ESCAPE);
    }

    @Test
    void theWindowIsCalledByItsSessionAndSaysWhatIsToBeSaved() {
        until(() -> plain(window.title().get()).equals("The Lamplighter’s Round – Dibble"));
        onFx(() -> desk().document().edit("name", session -> session.withName("Evening")));
        until(() -> plain(window.title().get()).equals("Evening * – Dibble"));
        onFx(() -> desk().document().markSaved(desk().session(), desk().performance()));
        until(() -> plain(window.title().get()).equals("Evening – Dibble"));
    }
}
