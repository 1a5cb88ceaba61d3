package dibble.desktop.app;

import dibble.desktop.ui.Theme;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import javafx.application.Platform;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import javafx.stage.Window;

/** The toolkit and the one stage of a test JVM. Tests put their scenes onto the stage one after another. */
final class Toolkit {
    private static final double WIDTH = 1280;
    private static final double HEIGHT = 800;

    private static final Queue<Throwable> UNCAUGHT = new ConcurrentLinkedQueue<>();
    private static final StackPane ROOT = new StackPane();
    private static Stage stage;

    private Toolkit() {}

    /** Starts the toolkit once, with no network. Any thread but the interface thread. */
    static synchronized void start() {
        if (stage != null) {
            return;
        }
        NoNetwork.begin();
        CountDownLatch started = new CountDownLatch(1);
        Platform.startup(started::countDown);
        try {
            started.await();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        Platform.setImplicitExit(false);
        Hand.onFx(() -> {
            Thread.currentThread().setUncaughtExceptionHandler((thread, thrown) -> UNCAUGHT.add(thrown));
            Theme.loadFonts();
            stage = new Stage();
            stage.setScene(new Scene(ROOT, WIDTH, HEIGHT));
        });
    }

    /**
     * Shows some content on the stage. Scene and root stay the same, since the toolkit remembers the styles of all nodes by
     * them. On the interface thread.
     */
    static Stage show(Parent content) {
        ROOT.getChildren().setAll(content);
        stage.show();
        return stage;
    }

    /** Hides menus and tooltips. On the interface thread. */
    static void closePopups() {
        new ArrayList<>(Window.getWindows())
                .stream().filter(window -> window != stage).forEach(Window::hide);
    }

    /** Returns the uncaught exceptions of the interface thread since the last call. */
    static List<Throwable> uncaught() {
        List<Throwable> all = new ArrayList<>(UNCAUGHT);
        UNCAUGHT.clear();
        return all;
    }
}
