package dibble.user;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.json.JsonMapper;
import dibble.files.AtomicFile;
import dibble.midi.MiddleC;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What a user has set once for all sessions.
 *
 * @param middleC how new sessions name the octaves
 * @param night whether the window is dark
 * @param large whether text and targets are made for a distance
 * @param letters where the letters are on the computer's keyboard
 * @param hiddenPorts the names of ports that are not to be listed
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Settings(MiddleC middleC, boolean night, boolean large, Letters letters, Set<String> hiddenPorts) {
    /** What holds until something is set. */
    public static final Settings PLAIN = new Settings(MiddleC.C4, false, false, Letters.QWERTY, Set.of());

    private static final String FILE = "settings.json";
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Logger LOG = LoggerFactory.getLogger(Settings.class);

    /** Layouts of letters, by their upper row. */
    public enum Letters {
        QWERTY,
        QWERTZ,
        AZERTY
    }

    public Settings {
        middleC = middleC == null ? MiddleC.C4 : middleC;
        letters = letters == null ? Letters.QWERTY : letters;
        hiddenPorts = hiddenPorts == null ? Set.of() : Set.copyOf(hiddenPorts);
    }

    public Settings withMiddleC(MiddleC naming) {
        return new Settings(naming, night, large, letters, hiddenPorts);
    }

    public Settings withNight(boolean on) {
        return new Settings(middleC, on, large, letters, hiddenPorts);
    }

    public Settings withLarge(boolean on) {
        return new Settings(middleC, night, on, letters, hiddenPorts);
    }

    public Settings withLetters(Letters layout) {
        return new Settings(middleC, night, large, layout, hiddenPorts);
    }

    /** The same with a port hidden, or listed again. */
    public Settings withHidden(String port, boolean hidden) {
        Set<String> ports = new TreeSet<>(hiddenPorts);
        if (hidden) {
            ports.add(port);
        } else {
            ports.remove(port);
        }
        return new Settings(middleC, night, large, letters, ports);
    }

    /** The settings in a folder; plain ones where there are none, or where the file cannot be read. */
    public static Settings read(Path folder) {
        Path file = folder.resolve(FILE);
        if (!Files.isRegularFile(file)) {
            return PLAIN;
        }
        try {
            return JSON.readValue(Files.readAllBytes(file), Settings.class);
        } catch (JacksonException e) {
            LOG.warn("{} is damaged and was passed over: {}", file, e.getOriginalMessage());
        } catch (IOException e) {
            LOG.warn("{} could not be read: {}", file, e.getMessage());
        }
        return PLAIN;
    }

    /** Writes them into a folder, which is made where it is not there. What another version keeps in the file stays. */
    public void write(Path folder) throws IOException {
        Files.createDirectories(folder);
        Path file = folder.resolve(FILE);
        Map<String, Object> all = new java.util.TreeMap<>(others(file));
        all.putAll(JSON.convertValue(this, new TypeReference<Map<String, Object>>() {}));
        AtomicFile.write(file, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(all));
    }

    private static Map<String, Object> others(Path file) throws IOException {
        try {
            return Files.isRegularFile(file)
                    ? JSON.readValue(Files.readAllBytes(file), new TypeReference<Map<String, Object>>() {})
                    : Map.of();
        } catch (JacksonException e) {
            return Map.of();
        }
    }
}
