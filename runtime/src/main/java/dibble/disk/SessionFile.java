package dibble.disk;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.files.Damage;
import dibble.files.DamagedSessionException;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.files.SessionReader;
import dibble.files.SessionWriter;
import dibble.files.TakeLines;
import dibble.files.TrackFiles;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.work.Progress;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Session files: a zip with {@code session.json}, takes and tracks, or a bare {@code session.json}. A damaged file is
 * rejected with its damage, and can be salvaged.
 */
public final class SessionFile {
    /** The progress of opening after the container is unpacked, of 1. */
    private static final double UNPACKED = 0.3;

    private SessionFile() {}

    /**
     * The intact part of a damaged session.
     *
     * @param losses a phrase for each part that could not be read
     */
    public record Salvaged(Session session, Performance performance, List<String> losses) {}

    /**
     * Opens a session. A file that is not regular, such as a pipe, is read to its end first.
     *
     * @throws DamagedSessionException if a part that it names is missing or damaged
     * @throws SessionFormatException if it is not a session, with one line that names the problem and its place
     * @throws IOException if the file cannot be read
     */
    public static SessionContent read(Path path) throws IOException {
        return read(path, Progress.NONE);
    }

    /** The same, for who waits for it. */
    public static SessionContent read(Path path, Progress progress) throws IOException {
        if (Files.exists(path) && AtomicFile.isStream(path)) {
            return Streams.ofFile(path, SessionContent.MAX_BYTES, file -> read(file, progress));
        }
        if (!isContainer(path)) {
            try (InputStream in = new BufferedInputStream(Files.newInputStream(path))) {
                checkBegin(in);
                return SessionContent.readJson(
                        Container.limited(in, SessionContent.SESSION, SessionContent.MAX_JSON_BYTES));
            }
        }
        Container container = Container.read(path);
        progress.at(UNPACKED);
        if (container.damage().isEmpty() && !container.entries().containsKey(SessionContent.SESSION)) {
            throw new SessionFormatException(say("session-file.not-a-session-the-file", SessionContent.SESSION));
        }
        if (!container.entries().containsKey(SessionContent.SESSION)) {
            throw new DamagedSessionException(container.damage());
        }
        SessionReader.Read read = SessionContent.readSession(container.entries());
        List<Damage> damage = damage(read, container);
        if (!damage.isEmpty()) {
            throw new DamagedSessionException(damage);
        }
        return SessionContent.assemble(read, container.entries(), null, progress.within(UNPACKED, 1));
    }

    /**
     * Reads the intact part of a damaged container. The file is unchanged.
     *
     * @throws IOException if not even the session itself is intact
     */
    public static Salvaged salvage(Path path) throws IOException {
        Container container = Container.read(path);
        if (!container.entries().containsKey(SessionContent.SESSION)) {
            throw new DamagedSessionException(List.of(new Damage(SessionContent.SESSION, Damage.Kind.MISSING)));
        }
        SessionReader.Read read = SessionContent.readSession(container.entries());
        List<String> losses = new ArrayList<>();
        damage(read, container).forEach(damage -> losses.add(damage.text()));
        SessionContent opened = SessionContent.assemble(read, container.entries(), losses, Progress.NONE);
        return new Salvaged(opened.session(), opened.performance(), losses);
    }

    /** Returns the damage of a container, with the entries that its session names and that are not there. */
    private static List<Damage> damage(SessionReader.Read read, Container container) {
        Set<String> damaged = container.damage().stream().map(Damage::entry).collect(Collectors.toSet());
        Stream<Damage> missing = read.files().stream()
                .filter(name -> !container.entries().containsKey(name) && !damaged.contains(name))
                .sorted()
                .map(name -> new Damage(name, Damage.Kind.MISSING));
        return Stream.concat(container.damage().stream(), missing).toList();
    }

    /** Returns true if a file is a container, rather than a bare {@code session.json}. */
    public static boolean isContainer(Path path) throws IOException {
        if (Files.isDirectory(path)) {
            throw new IOException(say("common.is-a-folder-expected-a", path));
        }
        if (!Files.isRegularFile(path)) {
            throw new NoSuchFileException(path.toString());
        }
        try (InputStream in = Files.newInputStream(path)) {
            return in.read() == 'P' && in.read() == 'K';
        }
    }

    /** Returns true if a file is there and is a bare {@code session.json}. */
    public static boolean isBare(Path path) throws IOException {
        return path != null && Files.isRegularFile(path) && !isContainer(path);
    }

    /** Checks that a bare session begins like a JSON object, before a parser reports an obscure error. */
    private static void checkBegin(InputStream in) throws IOException {
        in.mark(64);
        int first = in.read();
        for (int i = 0; i < 60 && Character.isWhitespace(first); i++) {
            first = in.read();
        }
        in.reset();
        if (first != '{') {
            throw new SessionFormatException(say("session-file.not-a-session-expected-a"));
        }
    }

    /**
     * Saves a session as a container, atomically.
     *
     * @throws IOException on failure, or if it would be too large to be opened; the file is unchanged then
     */
    public static void write(Path path, Session session, Performance performance) throws IOException {
        write(path, session, performance, Progress.NONE);
    }

    /** The same, for who waits for it. */
    public static void write(Path path, Session session, Performance performance, Progress progress)
            throws IOException {
        double all = 1
                + session.takes().stream().mapToLong(take -> take.log().size()).sum()
                + session.tracks().size();
        ObjectNode json = SessionWriter.session(session, performance, SessionWriter.BY_ID);
        SessionContent.checkReadable(json);
        AtomicFile.Content content = out -> {
            try (ContainerWriter container = new ContainerWriter(out)) {
                container.put(SessionContent.SESSION, SessionWriter.bytes(json), SessionContent.MAX_JSON_BYTES);
                double done = 1;
                for (Take take : session.takes()) {
                    progress.at(done / all);
                    container.put(SessionWriter.BY_ID.take(take), to -> TakeLines.write(take, to));
                    done += take.log().size();
                }
                for (Track track : session.tracks()) {
                    progress.at(done++ / all);
                    container.putAll(TrackFiles.files(track, SessionWriter.BY_ID));
                }
                container.putForeign(session.foreign());
            }
        };
        AtomicFile.write(path, content, progress);
    }

    /**
     * Saves a session that was read from a file in the form that the file has: a container, or a bare
     * {@code session.json}, whose takes and tracks lie elsewhere and are named there as before.
     */
    public static void update(Path path, Session session, Performance performance) throws IOException {
        update(path, session, performance, Progress.NONE);
    }

    /** Saves a session in the form that its file has. */
    public static void update(Path path, Session session, Performance performance, Progress progress)
            throws IOException {
        if (isContainer(path)) {
            write(path, session, performance, progress);
        } else {
            JsonNode before = SessionReader.parse(Files.readAllBytes(path), SessionContent.SESSION);
            ObjectNode json = SessionWriter.bare(session, performance, before);
            SessionContent.checkReadable(json);
            byte[] bytes = SessionWriter.bytes(json);
            AtomicFile.write(path, out -> out.write(bytes), progress);
        }
    }
}
