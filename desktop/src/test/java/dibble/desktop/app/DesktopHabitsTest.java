package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.desktop.ui.Palette;
import dibble.disk.SessionFile;
import dibble.gear.Source;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.presentation.Command;
import dibble.presentation.app.Page;
import dibble.presentation.help.HelpTopic;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.text.Parts;
import dibble.user.Settings;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.ContextMenuEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.layout.Pane;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is expected of any desktop application: menus, recent files, dropped files, settings, help. */
class DesktopHabitsTest extends WindowTest {
    @TempDir
    private Path folder;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    @BeforeEach
    void asAtFirst() {
        onFx(() -> desk().preferences().change(settings -> Settings.PLAIN));
    }

    private Path saved(String name) throws Exception {
        Path file = folder.resolve(name + ".dibble");
        SessionFile.write(file, Session.empty(name), Performance.NEW);
        return file;
    }

    private void waitFor(String id) {
        until(() -> lookup(id).tryQuery().filter(Node::isVisible).isPresent());
    }

    private static MenuItem item(Menu menu, String id) {
        return menu.getItems().stream()
                .filter(item -> id.equals(item.getId()))
                .findFirst()
                .orElseThrow();
    }

    /** The menu key; off-screen no system tells of it. */
    private void contextMenu(String id) {
        onFx(() -> {
            Node node = lookup(id).query();
            Point2D at = node.localToScreen(5, 5);
            node.fireEvent(new ContextMenuEvent(
                    ContextMenuEvent.CONTEXT_MENU_REQUESTED, 5, 5, at.getX(), at.getY(), true, null));
        });
    }

    @Test
    void whatWasOpenedIsAmongTheRecentSessions() throws Exception {
        Path one = saved("one");
        onFx(() -> window.drop(List.of(one)));
        until(() -> desk().session().name().equals("one"));
        Path two = saved("two");
        onFx(() -> window.files().openAsked(two));
        until(() -> desk().session().name().equals("two"));
        clickOn("#menu-file");
        waitFor("#menu-recent");
        Menu file = ((MenuBar) lookup("#menus").query()).getMenus().get(0);
        onFx(() -> ((Menu) item(file, "menu-recent")).getItems().get(1).fire());
        until(() -> desk().session().name().equals("one"));
        // Also where a session is bare.
        clickOn("#view-gear");
        waitFor("#bare-recent-1");
        clickOn("#bare-recent-1");
        until(() -> desk().session().name().equals("two"));
    }

    @Test
    void aFileThatIsNamedAtTheStartIsShownWhereOneWorksAndTheNextIsAskedAboutByItsName() throws Exception {
        onFx(() -> {
            window.files().begin(() -> window.show(Page.GEAR));
        });
        Path round = folder.resolve("round.dibble");
        SessionFile.write(round, LamplightersRound.session(), Performance.NEW);
        onFx(() -> window.open(round));
        until(() -> window.page().equals("KEYS"));
        Path other = saved("other");
        onFx(() -> {
            desk().document().edit("name", session -> session.withName("mine"));
            window.open(other);
        });
        until(() -> desk().ask().isAsking());
        assertThat(text("#ask-text")).isEqualTo("Save changes to mine before opening other.dibble?");
        clickOn(labelled("Don’t save"));
        until(() -> desk().session().name().equals("other"));
        // Who was at work already stays where they were.
        assertThat(window.page()).isEqualTo("KEYS");
    }

    @Test
    void aMidiFileThatIsDroppedIsImportedAndAnythingElseIsRefusedInOneLine() throws Exception {
        MidiTrack notes = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(480, ShortMessage.noteOff(0, 60, 64))
                .build();
        Path file = folder.resolve("Tune.MID");
        Files.write(file, MidiFileWriter.write(new MidiFile(1, 480, List.of(notes))));
        Path third = Files.copy(file, folder.resolve("Third tune.mid"));
        onFx(() -> window.drop(List.of(file, third)));
        until(() -> desk().session().sources().stream()
                .map(Source::name)
                .toList()
                .containsAll(List.of("Tune", "Third tune")));
        // As a double-click does it, with the next start.
        Path second = Files.copy(file, folder.resolve("Second tune.mid"));
        onFx(() -> window.open(second));
        until(() -> desk().session().sources().stream()
                .anyMatch(source -> source.name().equals("Second tune")));
        onFx(() -> window.drop(List.of(folder.resolve("letter.txt"))));
        until(() ->
                lookup("#ask-told").tryQuery().isPresent() && text("#ask-told").startsWith("letter.txt cannot be"));
    }

    @Test
    void aboutListsWhatShipsWithItsLicence() {
        onFx(() -> desk().commands().find("about").orElseThrow().action().run());
        waitFor("#parts");
        List<String> texts = ((Pane) lookup("#parts").query())
                .getChildren().stream().map(it -> ((Label) it).getText()).toList();
        assertThat(texts)
                .containsSequence(
                        "commonmark",
                        Parts.all().stream()
                                .filter(part -> part.name().equals("commonmark"))
                                .findFirst()
                                .orElseThrow()
                                .version(),
                        "BSD-2-Clause");
        assertThat(Parts.all())
                .allSatisfy(part ->
                        assertThat(part.licences()).as(part.name()).isNotEmpty().doesNotContain(""))
                .extracting(Parts.Part::name)
                .contains("javafx-graphics", "jackson-databind", "jna")
                .doesNotContain("dibble-core", "mockito-core")
                .doesNotHaveDuplicates();
    }

    @Test
    void theEditMenuHasWhatTheViewCanDoAndSaysWhatIsUndone() {
        clickOn("#zone-marimba");
        type(KeyCode.RIGHT);
        until(() -> desk().document().isChanged());
        clickOn("#menu-edit");
        waitFor("#menu-undo");
        assertThat(plain(((Labeled) lookup("#menu-undo").lookup(".label").query()).getText()))
                .isEqualTo("Undo: Keys");
        assertThat(lookup("#menu-cut-zone").tryQuery()).isPresent();
        clickOn("#menu-undo");
        until(() -> !desk().document().isChanged());
    }

    /** What has been in a menu is a letter again where somebody types. */
    @Test
    void aMenuThatWasOpenTakesNoLetters() {
        clickOn("#zone-marimba");
        clickOn("#menu-edit");
        waitFor("#menu-cut-zone");
        type(KeyCode.ESCAPE);
        until(() -> lookup("#menu-cut-zone").tryQuery().isEmpty());
        TextField name = lookup("#inspector-name").query();
        onFx(() -> {
            name.requestFocus();
            name.selectAll();
        });
        type(KeyCode.S);
        settle();
        assertThat(window.getScene().getAccelerators()).doesNotContainKey(KeyCombination.keyCombination("S"));
        assertThat(name.getText()).isEqualTo("s");
        assertThat(lookup(".ghost").tryQuery().filter(Node::isVisible)).isEmpty();
    }

    @Test
    void aZonesContextMenuDoesWhatItSays() {
        contextMenu("#zone-marimba");
        waitFor("#context-on");
        clickOn("#context-on");
        until(() -> !desk().session().zone("marimba").orElseThrow().enabled());
        contextMenu("#zone-marimba");
        waitFor("#context-delete");
        clickOn("#context-delete");
        until(() -> desk().session().zone("marimba").isEmpty());
    }

    @Test
    void settingsHoldAtOnceAndWhatIsOutOfRangeIsRefusedInOneLine() {
        clickOn("#menu-edit");
        waitFor("#menu-settings");
        clickOn("#menu-settings");
        waitFor("#theme-contrast");
        clickOn("#theme-contrast");
        until(() -> desk().theme().palette() == Palette.CONTRAST);
        TextField buffer = lookup("#audio-buffer").query();
        onFx(() -> {
            buffer.requestFocus();
            buffer.setText("4");
        });
        type(KeyCode.ENTER);
        until(() ->
                lookup("#ask-told").tryQuery().isPresent() && text("#ask-told").contains("expected 5 to 200"));
        assertThat(desk().preferences().get().audioMillis()).isEqualTo(25);
        until(() -> ((TextField) lookup("#audio-buffer").query()).getText().equals("25"));
        onFx(() -> {
            TextField now = lookup("#audio-buffer").query();
            now.requestFocus();
            now.setText("60");
        });
        type(KeyCode.ENTER);
        until(() -> desk().preferences().get().audioMillis() == 60);
        ComboBox<?> device = lookup("#audio-device").query();
        assertThat((Object) device.getValue()).isNotNull();
    }

    @Test
    void helpShowsThePageOfTheViewAndItsLinksLeadOn() {
        clickOn("#menu-help");
        waitFor("#menu-help .label");
        clickOn(labelled("Help on this view"));
        waitFor("#help-content");
        until(() -> lookup("#help-content").lookup(".hyperlink").tryQuery().isPresent());
        assertThat(lookup("#help-keys").query().getPseudoClassStates().toString())
                .contains("selected");
        Hyperlink link = lookup("#help-content").lookup(".hyperlink").<Hyperlink>queryAll().stream()
                .filter(it -> it.getText().equals("Controls"))
                .findFirst()
                .orElseThrow();
        onFx(link::fire);
        until(() -> lookup("#help-controls")
                .query()
                .getPseudoClassStates()
                .toString()
                .contains("selected"));
    }

    @Test
    void everyKeyThatTheHelpNamesIsOneOfACommand() {
        Set<String> ids =
                new TreeSet<>(desk().commands().all().stream().map(Command::id).toList());
        Pattern key = Pattern.compile("`key:([a-z0-9-]+)`");
        for (HelpTopic topic : HelpTopic.values()) {
            Matcher named = key.matcher(topic.text());
            while (named.find()) {
                assertThat(ids).as(topic.id()).contains(named.group(1));
            }
        }
    }
}
