package dibble.desktop.app;

import dibble.demo.LamplightersRound;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.Theme;
import dibble.files.IoWords;
import dibble.presentation.SystemTheme;
import dibble.presentation.app.Page;
import dibble.presentation.app.SingleInstance;
import dibble.presentation.app.WindowPlacement;
import dibble.session.Performance;
import dibble.user.ErrorLog;
import dibble.user.Memory;
import dibble.user.Settings;
import dibble.user.UserFolder;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.scene.image.Image;
import javafx.stage.Screen;
import javafx.stage.Stage;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The application: one window on one workbench. */
public final class DibbleApp extends Application {
    private static final Logger LOG = LoggerFactory.getLogger(DibbleApp.class);

    /** For measuring and for warming up: the window is closed again when it has been seen. */
    private static final String ENDS_WHEN_SHOWN = "dibble.ends-when-shown";

    /** For measurements: the view that is shown while the demo is idle. */
    private static final String RESTS = "dibble.rests";

    private static final int[] ICONS = {16, 24, 32, 48, 64, 128, 256};

    private Workbench workbench;
    private SingleInstance bell;
    private volatile MainWindow window;

    @Override
    public void start(Stage stage) {
        ErrorLog errors = new ErrorLog(UserFolder.path());
        Thread.setDefaultUncaughtExceptionHandler((thread, e) -> unexpected(errors, thread, e));
        Settings settings = Settings.read(UserFolder.path());
        Theme.begin(Palette.of(settings.theme()));
        Theme.loadFonts();
        List<String> arguments = getParameters().getRaw();
        boolean demo = !arguments.isEmpty() && arguments.get(0).equals("demo");
        workbench = demo
                ? Workbench.sounding(LamplightersRound.session(), LamplightersRound.performance())
                : Workbench.sounding(Workbench.newSession(settings), Performance.NEW);
        window = new MainWindow(workbench, () -> {
            remember(stage);
            workbench.desk().jobs().afterAll(() -> {
                stage.close();
                Platform.exit();
            });
        });
        Scene scene = new Scene(new ScaledPane(window, workbench.desk().preferences()), 1280, 800);
        workbench.desk().theme().dress(scene);
        stage.titleProperty().bind(window.title());
        stage.setMinWidth(ScaledPane.MIN_WIDTH);
        stage.setMinHeight(ScaledPane.MIN_HEIGHT);
        stage.setScene(scene);
        stage.setOnCloseRequest(event -> {
            event.consume();
            window.close();
        });
        stage.focusedProperty().subscribe(focused -> {
            if (!focused) {
                window.lostFocus();
            }
        });
        window.onShowLog(() -> showLog(errors));
        window.open();
        if (remembers()) {
            place(stage, workbench.desk().preferences().memory().window());
        }
        stage.show();
        if (remembers()) {
            bell = demo ? null : SingleInstance.hang(UserFolder.path());
            window.onRing(bell, () -> {
                stage.setIconified(false);
                stage.toFront();
            });
        }
        if (Boolean.getBoolean(ENDS_WHEN_SHOWN)) {
            new StartupProbe(window).start();
        } else {
            workbench.desk().pulse().once(() -> {
                dress(stage);
                begin(arguments, demo, scene);
            });
        }
    }

    /** Returns true for a user's window; off-screen windows and measured ones write no memory. */
    private static boolean remembers() {
        return !Main.isOffScreen() && System.getProperty(RESTS) == null;
    }

    private void remember(Stage stage) {
        if (!remembers()) {
            return;
        }
        boolean whole = stage.isMaximized() || stage.isFullScreen();
        Memory.Place before = workbench.desk().preferences().memory().window();
        Memory.Place now = new Memory.Place(stage.getX(), stage.getY(), stage.getWidth(), stage.getHeight(), false);
        Memory.Place kept = !whole || before == null
                ? now
                : new Memory.Place(before.x(), before.y(), before.width(), before.height(), true);
        workbench
                .desk()
                .preferences()
                .remember(memory -> memory.withWindow(kept).withView(window.page()));
    }

    /** Restores the place of the window as far as it is on a screen now, or else moves it onto the screen. */
    private static void place(Stage stage, Memory.Place was) {
        List<WindowPlacement.Area> screens =
                Screen.getScreens().stream().map(DibbleApp::area).toList();
        WindowPlacement.Area place = Optional.ofNullable(was)
                .flatMap(it -> WindowPlacement.fit(it, screens))
                .orElseGet(() -> WindowPlacement.first(area(Screen.getPrimary())));
        stage.setMinWidth(Math.min(ScaledPane.MIN_WIDTH, place.width()));
        stage.setMinHeight(Math.min(ScaledPane.MIN_HEIGHT, place.height()));
        stage.setX(place.x());
        stage.setY(place.y());
        stage.setWidth(place.width());
        stage.setHeight(place.height());
        stage.setMaximized(was != null && was.maximized());
    }

    private static WindowPlacement.Area area(Screen screen) {
        Rectangle2D bounds = screen.getVisualBounds();
        return new WindowPlacement.Area(bounds.getMinX(), bounds.getMinY(), bounds.getWidth(), bounds.getHeight());
    }

    private void askTheSystem() {
        Thread asking = new Thread(SystemTheme::ask, "dibble-theme");
        asking.setDaemon(true);
        asking.start();
    }

    private void showLog(ErrorLog errors) {
        getHostServices().showDocument(errors.file().toUri().toString());
    }

    /** Completes the window after the start. */
    private void dress(Stage stage) {
        for (int size : ICONS) {
            stage.getIcons()
                    .add(new Image(DibbleApp.class.getResourceAsStream("/dibble/desktop/icon/icon-" + size + ".png")));
        }
        askTheSystem();
    }

    private void begin(List<String> arguments, boolean demo, Scene scene) {
        workbench.prepareSound(!Main.isOffScreen());
        if (demo && Main.isOffScreen()) {
            Path folder = Path.of(arguments.size() > 1 ? arguments.get(1) : "dibble-demo");
            new OffScreenDemo(workbench, window, scene, folder).start();
            return;
        }
        String rests = System.getProperty(RESTS);
        if (rests != null) {
            window.show(Page.valueOf(rests));
        } else if (demo) {
            workbench.perform();
        } else if (!arguments.isEmpty()) {
            window.open(Path.of(arguments.get(0)));
        }
        window.recovery().offer();
        if (!demo && remembers()) {
            window.welcome();
        }
    }

    private void unexpected(ErrorLog errors, Thread thread, Throwable mistake) {
        LOG.error("a mistake in Dibble itself, in {}: {}", thread.getName(), mistake.toString(), mistake);
        try {
            errors.add(thread.getName(), mistake);
        } catch (IOException e) {
            LOG.error("{} cannot be written: {}", errors.file(), IoWords.of(e), e);
        }
        if (window != null) {
            window.noteMistake(errors.file(), () -> showLog(errors));
        }
    }

    @Override
    public void stop() {
        if (bell != null) {
            bell.close();
        }
        window.dispose();
        workbench.close();
    }
}
