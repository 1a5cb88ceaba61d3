package dibble.user;

import static dibble.text.CoreText.say;

import dibble.files.WholeFile;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;

/** The folder for the user's data. */
public final class UserFolder {
    /** The system property that names another folder. */
    public static final String PROPERTY = "dibble.data";

    private static final int MAX_BYTES = 16 << 20;

    private UserFolder() {}

    /** Reads an existing file; rejects one that is not regular, or too large. */
    static byte[] bytes(Path file) throws IOException {
        return WholeFile.read(
                file,
                MAX_BYTES,
                size -> new IOException(say("user-folder.too-large", file.getFileName(), size, MAX_BYTES)));
    }

    /** The folder on this machine; it need not be there yet. */
    public static Path path() {
        return path(System.getProperties(), System.getenv());
    }

    static Path path(Properties properties, Map<String, String> environment) {
        String named = properties.getProperty(PROPERTY, "");
        if (!named.isBlank()) {
            return Path.of(named);
        }
        Path home = Path.of(properties.getProperty("user.home", "."));
        String system = properties.getProperty("os.name", "").toLowerCase(Locale.ROOT);
        if (system.startsWith("mac")) {
            return home.resolve("Library/Application Support/Dibble");
        }
        if (system.startsWith("windows")) {
            return within(environment, "APPDATA", home.resolve("AppData/Roaming"))
                    .resolve("Dibble");
        }
        return within(environment, "XDG_DATA_HOME", home.resolve(".local/share"))
                .resolve("dibble");
    }

    private static Path within(Map<String, String> environment, String variable, Path otherwise) {
        String value = environment.getOrDefault(variable, "");
        return value.isBlank() ? otherwise : Path.of(value);
    }
}
