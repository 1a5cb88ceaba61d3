package dibble.presentation;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** True if the system's own theme is dark, as its settings say. Asked of the system's own commands, once. */
public final class SystemTheme {
    private static final Logger LOG = LoggerFactory.getLogger(SystemTheme.class);
    private static final long PATIENCE_SECONDS = 2;

    private static volatile boolean dark;
    private static volatile boolean news;

    private SystemTheme() {}

    /** Returns true if the system's theme is dark, by its last answer. */
    public static boolean isDark() {
        return dark;
    }

    /** Asks the system. Takes a moment: not for the interface's thread. */
    public static void ask() {
        boolean before = dark;
        dark = isDark(System.getProperty("os.name", ""), SystemTheme::answer);
        news = dark != before;
    }

    /** Returns true if the system's answer differs from the assumed theme. Any thread. */
    public static boolean hasNews() {
        return news;
    }

    /** The same, once. */
    public static boolean takeNews() {
        boolean had = news;
        news = false;
        return had;
    }

    /** Returns the output of a command; empty on failure. */
    interface Answers {
        String of(List<String> command);
    }

    static boolean isDark(String system, Answers answers) {
        String name = system.toLowerCase(Locale.ROOT);
        if (name.startsWith("mac")) {
            return answers.of(List.of("defaults", "read", "-g", "AppleInterfaceStyle"))
                    .startsWith("Dark");
        }
        if (name.startsWith("windows")) {
            String key = "HKCU\\Software\\Microsoft\\Windows\\CurrentVersion\\Themes\\Personalize";
            return answers.of(List.of("reg", "query", key, "/v", "AppsUseLightTheme"))
                    .contains("0x0");
        }
        return answers.of(List.of("gsettings", "get", "org.gnome.desktop.interface", "color-scheme"))
                .contains("prefer-dark");
    }

    private static String answer(List<String> command) {
        try {
            Process process = new ProcessBuilder(command)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            if (process.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
                return new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            }
            process.destroyForcibly();
        } catch (IOException e) {
            LOG.debug("the system does not tell its theme: {}", e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return "";
    }
}
