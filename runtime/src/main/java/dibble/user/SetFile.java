package dibble.user;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.disk.AtomicFile;
import dibble.files.Fields;
import dibble.files.SessionFormatException;
import dibble.files.SessionReader;
import dibble.files.SessionWriter;
import dibble.files.WholeFile;
import dibble.session.SessionSet;
import java.io.IOException;
import java.nio.file.Path;

/** A {@link SessionSet} as JSON: {@code "format": "dibble-set"}, in a file {@code NAME.dibbleset}. */
public final class SetFile {
    /** The extension of set files. */
    public static final String ENDING = ".dibbleset";

    private static final String FORMAT = "dibble-set";
    private static final int MAX_BYTES = 1 << 24;

    private SetFile() {}

    /**
     * Reads a set.
     *
     * @throws IOException with one line where it cannot be read
     */
    public static SessionSet read(Path path) throws IOException {
        byte[] bytes = WholeFile.read(
                path, MAX_BYTES, size -> new SessionFormatException(say("set-file.too-large", path.getFileName())));
        return read(bytes, path.getFileName().toString());
    }

    static SessionSet read(byte[] bytes, String file) throws SessionFormatException {
        JsonNode node = SessionReader.parse(bytes, file);
        if (!node.isObject() || !FORMAT.equals(node.path("format").asText())) {
            throw new SessionFormatException(say("set-file.not-a-set", file, FORMAT));
        }
        return Fields.of(node, file).make(SetFile::set);
    }

    private static SessionSet set(Fields f) throws SessionFormatException {
        f.text("format");
        f.number("version", 1, 1);
        return new SessionSet(
                f.text("name", ""),
                f.list("sessions", SessionSet.MAX, SetFile::entry),
                f.number("next", 0, 127),
                f.number("previous", 0, 127),
                f.extras());
    }

    private static SessionSet.Entry entry(Fields f) throws SessionFormatException {
        return new SessionSet.Entry(f.required("file"), f.text("notes", ""), f.decimal("tempo", 5, 999), f.extras());
    }

    /** Writes a set, whole or not at all. */
    public static void write(SessionSet set, Path path) throws IOException {
        AtomicFile.write(path, write(set));
    }

    static byte[] write(SessionSet set) {
        ObjectNode node = JsonNodeFactory.instance.objectNode();
        node.put("format", FORMAT).put("version", 1).put("name", set.name());
        ArrayNode sessions = node.putArray("sessions");
        for (SessionSet.Entry entry : set.entries()) {
            ObjectNode to = sessions.addObject().put("file", entry.file()).put("notes", entry.notes());
            if (entry.tempo() != null) {
                to.put("tempo", entry.tempo());
            }
            Fields.putAll(to, entry.extras());
        }
        if (set.next() != null) {
            node.put("next", set.next());
        }
        if (set.previous() != null) {
            node.put("previous", set.previous());
        }
        Fields.putAll(node, set.extras());
        return SessionWriter.bytes(node);
    }
}
