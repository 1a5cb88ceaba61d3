package dibble.text;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Properties;

/** The version of Dibble. */
public final class Version {
    /** The version, such as {@code 0.1.0}. */
    public static final String NUMBER = read();

    private Version() {}

    private static String read() {
        Properties properties = new Properties();
        try (InputStream in = Version.class.getResourceAsStream("version.properties")) {
            properties.load(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return properties.getProperty("version");
    }
}
