package dibble.journals;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.disk.Container;
import dibble.disk.FileStamp;
import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.files.Damage;
import dibble.files.IoWords;
import dibble.files.SessionContent;
import dibble.files.SessionReader;
import dibble.files.TakeReader;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.work.Progress;
import java.io.IOException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
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
 * Unsaved edits and recordings left by a process that crashed. They stay until all of them are opened and journaled
 * again, or discarded.
 *
 * @param folder the folder
 * @param file the path of the session's file, or empty if it had none
 * @param stamp the version of that file that the session comes from
 * @param when the time of the last write
 * @param recordings the files of recordings that are in no session, the oldest first
 */
public record RecoverableWork(Path folder, String file, FileStamp stamp, Instant when, List<Path> recordings) {
    private static final Logger LOG = LoggerFactory.getLogger(RecoverableWork.class);

    /** The folder for work that could not be recovered completely, which is not offered again. */
    private static final String ASIDE = "not-brought-back";

    public RecoverableWork {
        recordings = List.copyOf(recordings);
    }

    /**
     * The recovered work.
     *
     * @param losses a phrase for each part that was lost
     */
    public record RecoveredWork(Session session, Performance performance, List<String> losses) {}

    /** Returns all recoverable work in the user's folder, the newest first, except folders in use. */
    public static List<RecoverableWork> find(Path userFolder) {
        Path parent = userFolder.resolve(SessionJournal.FOLDER);
        List<RecoverableWork> found = new ArrayList<>();
        if (Files.isDirectory(parent)) {
            try {
                FolderLock.within(parent, () -> lookThrough(parent, found));
            } catch (IOException | DirectoryIteratorException e) {
                LOG.warn("{} could not be read: {}", parent, e.getMessage(), e);
            }
        }
        found.sort(Comparator.comparing(RecoverableWork::when).reversed());
        return found;
    }

    private static List<RecoverableWork> lookThrough(Path parent, List<RecoverableWork> found) throws IOException {
        try (DirectoryStream<Path> folders = Files.newDirectoryStream(parent, Files::isDirectory)) {
            for (Path folder : folders) {
                if (!FolderLock.isInUse(folder)) {
                    look(folder, found);
                }
            }
        }
        return found;
    }

    private static void look(Path folder, List<RecoverableWork> found) {
        try {
            boolean hasSession = Files.exists(folder.resolve(SessionJournal.SESSION));
            About about = About.of(folder);
            List<Path> recordings = new ArrayList<>();
            Instant when = Instant.EPOCH;
            for (Path file : files(folder)) {
                String name = file.getFileName().toString();
                if (name.matches(TakeJournal.PATTERN) && Files.size(file) > 0 && !about.kept.contains(name)) {
                    recordings.add(file);
                }
                Instant written = Files.getLastModifiedTime(file).toInstant();
                when = written.isAfter(when) && !name.equals(FolderLock.LOCK) ? written : when;
            }
            if (!hasSession && Files.isDirectory(folder.resolve("takes"))) {
                // It was cut off before the session was written that they belong to.
                recordings.addAll(files(folder.resolve("takes")));
            }
            if (recordings.isEmpty() && !hasSession) {
                deleteEmpty(folder);
                return;
            }
            recordings.sort(Comparator.comparing(RecoverableWork::number));
            found.add(new RecoverableWork(folder, about.file, about.stamp, when, recordings));
        } catch (IOException | DirectoryIteratorException e) {
            LOG.warn("{} could not be read: {}", folder, e.getMessage(), e);
        }
    }

    /** Deletes a folder without journaled work; files of others stay. */
    private static void deleteEmpty(Path folder) throws IOException {
        boolean content;
        try (Stream<Path> all = Files.walk(folder)) {
            content = all.filter(Files::isRegularFile)
                    .map(Path::toFile)
                    .anyMatch(file -> file.length() > 0 && !file.getName().startsWith(".dibble-"));
        }
        if (content) {
            LOG.warn("{} has files in it that are none of a journal's, and stays", folder);
        } else {
            delete(folder);
        }
    }

    private static List<Path> files(Path folder) throws IOException {
        List<Path> files = new ArrayList<>();
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder, Files::isRegularFile)) {
            all.forEach(files::add);
        }
        return files;
    }

    private static Integer number(Path recording) {
        return Integer.valueOf(recording.getFileName().toString().replaceAll("\\D", ""));
    }

    /** The journal's own fields. */
    private record About(String file, FileStamp stamp, List<String> kept) {
        static About of(Path folder) {
            JsonNode session = json(folder.resolve(SessionJournal.SESSION));
            // Earlier versions had these fields in a separate file.
            JsonNode own = session.has(SessionJournal.JOURNAL)
                    ? session.path(SessionJournal.JOURNAL)
                    : json(folder.resolve("about.json"));
            List<String> kept = new ArrayList<>();
            own.path(SessionJournal.KEPT).forEach(name -> kept.add(name.asText()));
            // Earlier versions did not say it.
            FileStamp stamp = own.has(SessionJournal.FILE_TIME)
                    ? new FileStamp(
                            own.path(SessionJournal.FILE_TIME).asLong(),
                            own.path(SessionJournal.FILE_SIZE).asLong())
                    : FileStamp.UNKNOWN;
            return new About(own.path(SessionJournal.FILE).asText(""), stamp, kept);
        }

        /** Cut off before it was written, or damaged, which is said when it is opened: then it says nothing. */
        private static JsonNode json(Path file) {
            try {
                return SessionReader.parse(Files.readAllBytes(file), file.toString());
            } catch (IOException e) {
                return MissingNode.getInstance();
            }
        }
    }

    /**
     * Reads the session with its edits, and each recording as a take, printed as it was heard.
     *
     * @throws IOException if the work is gone, or opened by another process
     */
    public RecoveredWork open() throws IOException {
        return FolderLock.within(folder.getParent(), () -> {
            if (!Files.isDirectory(folder)) {
                throw new IOException(say("unfinished.it-was-recovered-or-discarded"));
            }
            if (FolderLock.isInUse(folder)) {
                throw new IOException(say("unfinished.another-dibble-has-it-open"));
            }
            List<String> losses = new ArrayList<>();
            SessionContent opened = session(losses);
            Session session = opened.session();
            for (Path recording : recordings) {
                session = with(recording, session, opened.performance(), losses);
            }
            return new RecoveredWork(session, opened.performance(), losses);
        });
    }

    private SessionContent session(List<String> losses) {
        Path json = folder.resolve(SessionJournal.SESSION);
        if (Files.exists(json)) {
            try {
                JsonNode node = SessionReader.parse(Files.readAllBytes(json), SessionJournal.SESSION);
                if (node instanceof ObjectNode object) {
                    object.remove(SessionJournal.JOURNAL);
                }
                SessionReader.Read read = SessionReader.read(node);
                return SessionContent.assemble(read, entries(read, losses), losses, Progress.NONE);
            } catch (IOException e) {
                losses.add(say("unfinished.the-edits", IoWords.of(e)));
            }
        }
        if (!file.isEmpty()) {
            try {
                return SessionFile.read(Path.of(file));
            } catch (IOException e) {
                losses.add(file + ": " + IoWords.of(e));
            }
        }
        return new SessionContent(Session.empty(say("unfinished.recovered-session")), Performance.NEW);
    }

    private Session with(Path recording, Session session, Performance performance, List<String> losses) {
        String name = recording.getFileName().toString();
        String id = TakeEdits.freshTakeId(session);
        try {
            TakeReader.Recovered recovered = TakeReader.readJournal(
                    id,
                    say("common.take", id.substring(id.indexOf('-') + 1)),
                    Files.readAllBytes(recording),
                    name,
                    session.tempo());
            losses.addAll(recovered.losses());
            Take take = recovered.take();
            if (take.log().size() == 0) {
                return session;
            }
            // The routing at the start is lost with the first line; the session's routing replaces it.
            boolean routed = !take.marks().isEmpty() && take.marks().get(0).position() == 0;
            List<Take.Mark> marks = new ArrayList<>(take.marks());
            if (!routed) {
                marks.add(0, new Take.Mark(0, 0, session.routing(performance)));
            }
            return TakeEdits.keep(session, performance, TakeEdits.closed(take.withMarks(marks)));
        } catch (IOException e) {
            losses.add(name + ": " + IoWords.of(e));
            return session;
        } catch (RuntimeException e) {
            // Whatever is wrong with it, it costs no other recording.
            LOG.warn("{} could not be printed", recording, e);
            losses.add(say("unfinished.could-not-be-printed", name));
            return session;
        }
    }

    private Map<String, byte[]> entries(SessionReader.Read read, List<String> losses) {
        Map<String, byte[]> entries = new HashMap<>();
        for (String name : read.files()) {
            try {
                entries.put(name, Files.readAllBytes(folder.resolve(name)));
            } catch (NoSuchFileException e) {
                losses.add(new Damage(name, Damage.Kind.MISSING).text());
            } catch (IOException e) {
                losses.add(name + ": " + IoWords.of(e));
            }
        }
        Path foreign = folder.resolve(SessionJournal.FOREIGN);
        if (Files.exists(foreign)) {
            try {
                Container container = Container.read(foreign);
                container.damage().forEach(damage -> losses.add(damage.text()));
                entries.putAll(container.entries());
            } catch (IOException e) {
                losses.add(SessionJournal.FOREIGN + ": " + IoWords.of(e));
            }
        }
        return entries;
    }

    /** Discards the work, unless another process has it open. */
    public void discard() {
        try {
            FolderLock.within(folder.getParent(), () -> {
                if (Files.isDirectory(folder) && !FolderLock.isInUse(folder)) {
                    delete(folder);
                }
                return folder;
            });
        } catch (IOException e) {
            LOG.warn("{} could not be removed: {}", folder, e.getMessage(), e);
        }
    }

    /**
     * Puts it where it is not offered any more, and stays: something in it could not be brought back.
     *
     * @return where it is then
     */
    public Path putAside() {
        try {
            return FolderLock.within(folder.getParent(), () -> {
                Path aside = folder.getParent().resolveSibling(ASIDE);
                Files.createDirectories(aside);
                return Files.move(folder, aside.resolve(folder.getFileName()));
            });
        } catch (IOException e) {
            LOG.warn("{} could not be put aside: {}", folder, e.getMessage(), e);
            return folder;
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
