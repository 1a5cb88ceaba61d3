package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.presentation.app.SingleInstance;
import dibble.text.Texts;
import dibble.user.UserFolder;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.logging.Level;
import java.util.logging.Logger;
import javafx.application.Application;

/** Starts the application; off-screen where there is no display. Does not extend it, so that it runs on the class path. */
public final class Main {
    /** The exit code that asks the launcher to start again off-screen: the display turned out to be none. */
    static final int NO_DISPLAY = 75;

    private static final String OFF_SCREEN = "dibble.offscreen";

    /** Loggers of the toolkit whose messages do not concern users. Referenced, so that their level stays. */
    private static final List<Logger> QUIET = List.of(
            Logger.getLogger("javafx"), Logger.getLogger("java.util.prefs"), Logger.getLogger("com.sun.javafx"));

    private Main() {}

    /** Opens the window; without a display it draws the demo in memory, and nothing else can be done. */
    public static void main(String[] args) {
        // Files have one format everywhere; the display follows the user's locale.
        Texts.writeAs(Locale.getDefault(Locale.Category.FORMAT));
        Locale.setDefault(Locale.ROOT);
        QUIET.forEach(logger -> logger.setLevel(Level.SEVERE));
        boolean offScreen = Boolean.getBoolean(OFF_SCREEN) || !hasDisplay(System.getenv());
        if (offScreen) {
            if (args.length == 0 || !args[0].equals("demo")) {
                System.err.println(say("main.dibble-no-display-found-dibble"));
                System.exit(2);
            }
            goOffScreen();
        }
        boolean demo = args.length > 0 && args[0].equals("demo");
        if (!offScreen && !demo) {
            SingleInstance.Answer answer =
                    SingleInstance.ring(UserFolder.path(), args.length > 0 ? absolute(args[0]) : "");
            if (answer == SingleInstance.Answer.HEARD) {
                System.out.println(say("main.dibble-already-running-shown-in"));
                return;
            }
            if (answer == SingleInstance.Answer.SILENT) {
                System.err.println(say("main.dibble-does-not-answer"));
            }
        }
        try {
            Application.launch(DibbleApp.class, args);
        } catch (UnsupportedOperationException e) {
            // The display that the environment names is not there, or its libraries are missing.
            System.exit(NO_DISPLAY);
        }
    }

    private static String absolute(String file) {
        try {
            return Path.of(file).toAbsolutePath().toString();
        } catch (InvalidPathException e) {
            return file;
        }
    }

    /** Draws the window in memory, as on a machine without a display. */
    static void goOffScreen() {
        System.setProperty(OFF_SCREEN, "true");
        System.setProperty("glass.platform", "Monocle");
        System.setProperty("monocle.platform", "Headless");
        System.setProperty("prism.order", "sw");
        System.setProperty("prism.text", "t2k");
        System.setProperty("java.awt.headless", "true");
    }

    static boolean isOffScreen() {
        return Boolean.getBoolean(OFF_SCREEN);
    }

    /**
     * Returns true if a window can be expected: elsewhere than on Linux always; there, with a display that can be
     * there.
     */
    static boolean hasDisplay(Map<String, String> environment) {
        if (!System.getProperty("os.name").toLowerCase(Locale.ROOT).contains("linux")) {
            return true;
        }
        String display = environment.getOrDefault("DISPLAY", "");
        if (display.isEmpty()) {
            return false;
        }
        String number = display.replaceAll("^:(\\d+).*", "$1");
        boolean local = display.startsWith(":");
        return !local || Files.exists(Path.of("/tmp/.X11-unix/X" + number));
    }
}
