package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.desktop.ui.ViewContext;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** The real window, driven as by a hand; instruments are fake ports. */
abstract class WindowTest extends Hand {
    private static final Pattern NOTES = Pattern.compile(", ([\\d,]+) notes?$");

    private static final boolean WATCHES_STALLS = Boolean.getBoolean("dibble.stalls");

    final FakePort port = new FakePort();

    @TempDir
    static Path userFolder;

    final AtomicBoolean quit = new AtomicBoolean();
    private final StallWatch stalls = new StallWatch();
    Workbench workbench;
    MainWindow window;

    abstract Session session();

    /** Returns true if it fails where something stands still on the interface's thread; a measurement only measures. */
    boolean isWatched() {
        return true;
    }

    @BeforeEach
    final void openWindow() {
        Toolkit.start();
        onFx(this::start);
        settle();
    }

    /** Makes what the window shows. On the interface thread. */
    Workbench workbench() {
        return Workbench.alone(session(), Performance.NEW, name -> port, userFolder);
    }

    /** Shows the window. On the interface thread. */
    void start() {
        workbench = workbench();
        window = new MainWindow(workbench, () -> quit.set(true));
        Stage stage = Toolkit.show(new ScaledPane(window, workbench.desk().preferences()));
        workbench.desk().theme().dress(stage.getScene());
        stage.setOnCloseRequest(event -> {
            event.consume();
            window.close();
        });
        window.open();
        stage.toFront();
        stage.requestFocus();
        // The start has its own measure.
        if (WATCHES_STALLS && isWatched()) {
            workbench.desk().pulse().once(stalls::begin);
        }
    }

    @AfterEach
    final void closeWindow() {
        letGo();
        List<String> stood = stalls.end();
        settle();
        // After two frames the views show the session as it is.
        settle();
        List<String> strays =
                MarkedTexts.areShown() ? onFx(() -> MarkedTexts.strays(window, desk().session())) : List.of();
        interact(() -> {
            Toolkit.closePopups();
            window.dispose();
            workbench.close();
        });
        assertThat(stood).as("stalls of the interface thread").isEmpty();
        assertThat(strays).as("texts that are in no bundle").isEmpty();
        assertThat(NoNetwork.asked()).as("sockets that were asked for").isEmpty();
        assertThat(Toolkit.uncaught()).as("uncaught exceptions").isEmpty();
    }

    ViewContext desk() {
        return workbench.desk();
    }

    /** Where a key of a source's keyboard on the ruler is on the screen, low enough to hit any key. */
    Point2D key(String source, int key) {
        return keyIn(
                lookup("#keys-" + source).query(),
                key,
                desk().session().source(source).orElseThrow().keys().low(),
                desk().session().source(source).orElseThrow().keys().high());
    }

    private static Point2D keyIn(Node keyboard, int key, int low, int high) {
        Bounds bounds = keyboard.localToScreen(keyboard.getBoundsInLocal());
        double column = bounds.getWidth() / (high - low + 1);
        return new Point2D(bounds.getMinX() + (key - low + 0.5) * column, bounds.getMinY() + bounds.getHeight() * 0.3);
    }

    /** Presses and releases a key with the mouse. */
    void playKey(String source, int key) {
        moveTo(key(source, key)).press(MouseButton.PRIMARY);
        until(() -> desk().live().isDown(source, key));
        release(MouseButton.PRIMARY);
        until(() -> !desk().live().isDown(source, key));
    }

    /** Drags a part from the sounds onto a key's column of a source. */
    void dragPart(String part, String source, int key) {
        moveTo("#part-" + part).press(MouseButton.PRIMARY);
        Point2D aim = key(source, key);
        moveTo(aim.add(0, -20));
        moveTo(aim);
        release(MouseButton.PRIMARY);
    }

    /** Chooses one of a box by its words. */
    @SuppressWarnings("unchecked")
    void choose(String box, String words) {
        ComboBox<Object> choice = lookup(box).queryAs(ComboBox.class);
        interact(() -> choice.setValue(choice.getItems().stream()
                .filter(item -> plain(item.toString()).equals(words))
                .findFirst()
                .orElseThrow()));
    }

    /** How many notes the row of a track shows. */
    int drawnNotes(Track track) {
        Matcher count = NOTES.matcher(accessible("#track-" + track.id()));
        return count.find() ? Integer.parseInt(count.group(1).replace(",", "")) : 0;
    }

    /** What a label or button says, without marks. */
    String text(String selector) {
        return plain(lookup(selector).queryLabeled().getText());
    }

    /** What the ask bar tells, without marks; empty where it tells nothing. */
    String told() {
        return lookup("#ask-told")
                .<Label>tryQuery()
                .map(label -> plain(label.getText()))
                .orElse("");
    }

    /** What is read aloud of a node, without marks. */
    String accessible(String selector) {
        return plain(lookup(selector).query().getAccessibleText());
    }

    /** Returns whether a node is a button or label that says this. */
    static Predicate<Node> labelled(String text) {
        return node -> node instanceof Labeled labeled && text.equals(plain(labeled.getText()));
    }

    /** A text without the marks that it has in the marked language. */
    static String plain(String text) {
        return MarkedTexts.off(text);
    }
}
