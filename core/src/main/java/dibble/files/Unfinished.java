package dibble.files;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dibble.edits.TakeEdits;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What an earlier run left behind because it was ended in the middle: a session with unsaved edits, recordings that were
 * going on. Stays where it is until it is opened and saved, or thrown away.
 *
 * @param folder where it is
 * @param file the path of the session's file, or empty where it had none
 * @param when something was last written there
 * @param recordings the files of recordings that were not ended, the oldest first
 */
public record Unfinished(Path folder, String file, Instant when, List<Path> recordings) {
    private static final Logger LOG = LoggerFactory.getLogger(Unfinished.class);
    private static final ObjectMapper JSON = new ObjectMapper();

    public Unfinished {
        recordings = List.copyOf(recordings);
    }

    /** All that is unfinished in the user's folder, the newest first; what somebody has in use is left out. */
    public static List<Unfinished> find(Path userFolder) {
        Path parent = userFolder.resolve(SessionJournal.FOLDER);
        List<Unfinished> found = new ArrayList<>();
        if (!Files.isDirectory(parent)) {
            return found;
        }
        try (DirectoryStream<Path> folders = Files.newDirectoryStream(parent, Files::isDirectory)) {
            for (Path folder : folders) {
                if (!SessionJournal.isInUse(folder)) {
                    look(folder, found);
                }
            }
        } catch (IOException e) {
            LOG.warn("{} could not be read: {}", parent, e.getMessage());
        }
        found.sort(Comparator.comparing(Unfinished::when).reversed());
        return found;
    }

    private static void look(Path folder, List<Unfinished> found) throws IOException {
        List<Path> recordings = new ArrayList<>();
        Instant when = Instant.EPOCH;
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder)) {
            for (Path file : files) {
                Instant written = Files.getLastModifiedTime(file).toInstant();
                String name = file.getFileName().toString();
                if (name.matches(TakeJournal.PATTERN) && Files.size(file) > 0) {
                    recordings.add(file);
                }
                when = written.isAfter(when) && !name.equals(SessionJournal.LOCK) ? written : when;
            }
        }
        if (recordings.isEmpty() && !Files.exists(folder.resolve(SessionJournal.SESSION))) {
            delete(folder);
            return;
        }
        recordings.sort(Comparator.comparingInt(Unfinished::number));
        String file = "";
        try {
            JsonNode about = JSON.readTree(folder.resolve(SessionJournal.ABOUT).toFile());
            file = about.path("file").asText("");
        } catch (IOException e) {
            // It was cut off before that was written: the session has no file then.
        }
        found.add(new Unfinished(folder, file, when, recordings));
    }

    private static int number(Path recording) {
        return Integer.parseInt(recording.getFileName().toString().replaceAll("\\D", ""));
    }

    /**
     * Reads it: the session with its edits, and each recording as a take, printed as it was heard.
     *
     * @throws IOException where the session cannot be read
     */
    public SessionFile.Opened open() throws IOException {
        SessionFile.Opened opened = Files.exists(folder.resolve(SessionJournal.SESSION))
                ? SessionFile.assemble(entries())
                : file.isEmpty()
                        ? new SessionFile.Opened(Session.empty("Recovered session"), Performance.NEW)
                        : SessionFile.read(Path.of(file));
        Session session = opened.session();
        for (Path recording : recordings) {
            String id = TakeEdits.freshTakeId(session);
            Take take = TakeReader.readJournal(
                    id,
                    "Take " + id.substring(id.indexOf('-') + 1),
                    Files.readAllBytes(recording),
                    recording.getFileName().toString(),
                    session.tempo());
            // It was written twice where the end came between the one and the other.
            boolean there = session.takes().stream()
                    .anyMatch(other -> other.length() == take.length()
                            && other.log().size() == take.log().size());
            if (take.log().size() > 0 && !there) {
                session = TakeEdits.keep(session, opened.performance(), TakeEdits.closed(take));
            }
        }
        return new SessionFile.Opened(session, opened.performance());
    }

    private Map<String, byte[]> entries() throws IOException {
        Map<String, byte[]> entries = new HashMap<>();
        try (Stream<Path> files = Files.walk(folder, 2)) {
            for (Path path : (Iterable<Path>) files.filter(Files::isRegularFile)::iterator) {
                entries.put(folder.relativize(path).toString().replace('\\', '/'), Files.readAllBytes(path));
            }
        }
        return entries;
    }

    /** Throws it away. */
    public void discard() {
        try {
            delete(folder);
        } catch (IOException e) {
            LOG.warn("{} could not be removed: {}", folder, e.getMessage());
        }
    }

    static void delete(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path path : (Iterable<Path>) files.sorted(Comparator.reverseOrder())::iterator) {
                Files.deleteIfExists(path);
            }
        }
    }
}
