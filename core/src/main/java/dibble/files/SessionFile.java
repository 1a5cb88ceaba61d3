package dibble.files;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Foreign;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionBuilder;
import dibble.work.Progress;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Session files: a zip with {@code session.json}, takes and tracks, or a bare {@code session.json}. What is not whole is
 * not taken for whole: it is refused by name, and can be opened as far as it is there.
 */
public final class SessionFile {
    /** The most that a container may unpack to: 512 MiB. */
    static final long MOST_BYTES = 512L << 20;

    /** The most that {@code session.json} may unpack to: 16 MiB. */
    static final long MOST_JSON_BYTES = 16L << 20;

    /** How far opening has come, of 1, when the container is unpacked. */
    private static final double UNPACKED = 0.3;

    private static final String SESSION = Container.SESSION;

    /** The folder of entries whose names are needed for others. */
    private static final String KEPT = "kept/";

    private SessionFile() {}

    /** What a file holds. */
    public record Opened(Session session, Performance performance) {}

    /**
     * What is there of a damaged session.
     *
     * @param losses what could not be read, a phrase each
     */
    public record Salvaged(Session session, Performance performance, List<String> losses) {}

    /**
     * Opens a session. What is no ordinary file, such as a pipe, is read to its end first.
     *
     * @throws DamagedSessionException where something that it names is missing or damaged
     * @throws SessionFormatException where it is none, with one line that says what and where
     * @throws IOException where the file cannot be read
     */
    public static Opened read(Path path) throws IOException {
        return read(path, Progress.NONE);
    }

    /** The same, for who waits for it. */
    public static Opened read(Path path, Progress progress) throws IOException {
        if (Files.exists(path) && AtomicFile.isStream(path)) {
            return Streams.ofFile(path, MOST_BYTES, file -> read(file, progress));
        }
        if (!isContainer(path)) {
            try (InputStream in = new BufferedInputStream(Files.newInputStream(path))) {
                checkBegin(in);
                return readJson(Container.limited(in, SESSION, MOST_JSON_BYTES));
            }
        }
        Container container = Container.read(path);
        progress.at(UNPACKED);
        List<String> damage = new ArrayList<>(container.damage());
        if (damage.isEmpty() && !container.entries().containsKey(SESSION)) {
            throw new SessionFormatException(say("session-file.not-a-session-the-file", SESSION));
        }
        if (!container.entries().containsKey(SESSION)) {
            throw new DamagedSessionException(damage);
        }
        SessionReader.Read read = readSession(container.entries());
        addMissing(damage, read, container);
        if (!damage.isEmpty()) {
            throw new DamagedSessionException(damage);
        }
        return assemble(read, container.entries(), null, progress.within(UNPACKED, 1));
    }

    /**
     * Reads what is there of a damaged container. The file stays as it is.
     *
     * @throws IOException where not even the session itself is there
     */
    public static Salvaged salvage(Path path) throws IOException {
        Container container = Container.read(path);
        if (!container.entries().containsKey(SESSION)) {
            throw new DamagedSessionException(List.of(say("session-file.is-missing", SESSION)));
        }
        List<String> losses = new ArrayList<>(container.damage());
        SessionReader.Read read = readSession(container.entries());
        addMissing(losses, read, container);
        Opened opened = assemble(read, container.entries(), losses);
        return new Salvaged(opened.session(), opened.performance(), losses);
    }

    /** Adds what a session names and its container does not have, without what is known to be damaged. */
    private static void addMissing(List<String> damage, SessionReader.Read read, Container container) {
        read.files().stream()
                .filter(name -> !container.entries().containsKey(name))
                .filter(name -> damage.stream().noneMatch(known -> known.startsWith(name)))
                .sorted()
                .forEach(name -> damage.add(say("common.is-missing", name)));
    }

    /** Whether a file is a container, rather than a bare {@code session.json}. */
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

    /** Whether a file is there and is a bare {@code session.json}. */
    public static boolean isBare(Path path) throws IOException {
        return path != null && Files.isRegularFile(path) && !isContainer(path);
    }

    /** A bare session begins as JSON objects do; what does not is told apart before a parser stumbles over it. */
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

    private static SessionReader.Read readSession(Map<String, byte[]> entries) throws SessionFormatException {
        return SessionReader.read(SessionReader.parse(entries.get(SESSION), SESSION));
    }

    private static Opened assemble(SessionReader.Read read, Map<String, byte[]> entries) throws SessionFormatException {
        return assemble(read, entries, null, Progress.NONE);
    }

    /**
     * A session with the takes and tracks that are among some entries; what is not there is left out.
     *
     * @param losses is given what cannot be read; null where that refuses the whole session
     */
    static Opened assemble(SessionReader.Read read, Map<String, byte[]> entries, List<String> losses)
            throws SessionFormatException {
        return assemble(read, entries, losses, Progress.NONE);
    }

    private static Opened assemble(
            SessionReader.Read read, Map<String, byte[]> entries, List<String> losses, Progress progress)
            throws SessionFormatException {
        List<Take> takes = new ArrayList<>();
        double all = entries.values().stream().mapToLong(bytes -> bytes.length).sum();
        double done = 0;
        for (SessionReader.SaidOfTake said : read.takes()) {
            byte[] bytes = entries.get(said.file());
            if (bytes != null) {
                Progress within = progress.within(done / all, (done + bytes.length) / all);
                done += bytes.length;
                unless(
                        losses,
                        () -> takes.add(
                                TakeReader.read(said, bytes, read.session().tempo(), within)));
            }
        }
        List<Track> tracks = new ArrayList<>();
        for (Track track : read.session().tracks()) {
            progress.at(done / all);
            TrackFiles.Said said = read.tracks().get(track.id());
            boolean there = unless(losses, () -> tracks.add(track.withRegions(TrackFiles.read(said, entries, takes))));
            if (!there) {
                tracks.add(track);
            }
        }
        Session session = new SessionBuilder(read.session())
                .takes(takes)
                .tracks(tracks)
                .foreign(foreign(read, entries))
                .build();
        return new Opened(session, read.performance());
    }

    /** What the session does not name. What has the name of something that will be saved gets another one. */
    private static Foreign foreign(SessionReader.Read read, Map<String, byte[]> entries) {
        Map<String, byte[]> others = new LinkedHashMap<>(entries);
        others.remove(SESSION);
        others.keySet().removeAll(read.files());
        if (others.isEmpty()) {
            return Foreign.NONE;
        }
        Set<String> own = new HashSet<>();
        read.takes().forEach(said -> own.add(SessionWriter.takeFile(said.id())));
        for (Track track : read.session().tracks()) {
            own.add(SessionWriter.BY_ID.clip(track));
            own.add(SessionWriter.BY_ID.prints(track));
        }
        Map<String, byte[]> kept = new LinkedHashMap<>();
        others.forEach((name, bytes) -> {
            String free = name;
            while (own.contains(free) || !free.equals(name) && others.containsKey(free)) {
                free = KEPT + free;
            }
            kept.put(free, bytes);
        });
        return new Foreign(kept);
    }

    private interface Part {
        void read() throws SessionFormatException;
    }

    /** Reads a part of a session; false where it cannot be read and that is a loss. */
    private static boolean unless(List<String> losses, Part part) throws SessionFormatException {
        try {
            part.read();
            return true;
        } catch (SessionFormatException e) {
            if (losses == null) {
                throw e;
            }
            losses.add(e.getMessage());
            return false;
        }
    }

    /**
     * Saves a session as a container, in one step.
     *
     * @throws IOException where that fails, or where it would be larger than what can be opened: the file is as it was
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
        checkReadable(json);
        AtomicFile.write(path, out -> {
            try (ContainerWriter container = new ContainerWriter(out)) {
                container.put(SESSION, SessionWriter.bytes(json), MOST_JSON_BYTES);
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
        });
    }

    /** What cannot be opened again is not saved over what can. */
    private static void checkReadable(ObjectNode json) throws IOException {
        try {
            SessionReader.read(json);
        } catch (SessionFormatException e) {
            throw new IOException(say("session-file.the-saved-file-could-not", e.getMessage()));
        }
    }

    /**
     * Saves a session that was read from a file in the form that the file has: a container, or a bare
     * {@code session.json}, whose takes and tracks lie elsewhere and are named there as before.
     */
    public static void update(Path path, Session session, Performance performance) throws IOException {
        if (isContainer(path)) {
            write(path, session, performance);
        } else {
            JsonNode before = SessionReader.parse(Files.readAllBytes(path), SESSION);
            ObjectNode json = SessionWriter.bare(session, performance, before);
            checkReadable(json);
            AtomicFile.write(path, SessionWriter.bytes(json));
        }
    }

    /** The bytes of a bare {@code session.json}, without takes and tracks' contents. */
    public static byte[] json(Session session, Performance performance) {
        return SessionWriter.bytes(SessionWriter.session(session, performance, SessionWriter.BY_ID));
    }

    /** Reads a bare {@code session.json} from bytes. */
    public static Opened readJson(byte[] bytes) throws SessionFormatException {
        Map<String, byte[]> alone = Map.of(SESSION, bytes);
        return assemble(readSession(alone), alone);
    }
}
