package dibble.files;

import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Session files: a zip with {@code session.json}, takes and tracks, or a bare {@code session.json}. What is not whole is
 * not taken for whole: it is refused by name, and can be opened as far as it is there.
 */
public final class SessionFile {
    /** The most that a container may unpack to: 512 MiB. */
    static final long MOST_BYTES = 512L << 20;

    /** The most that {@code session.json} may unpack to: 32 MiB. */
    static final long MOST_JSON_BYTES = 32L << 20;

    private static final String SESSION = Container.SESSION;

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
     * Opens a session.
     *
     * @throws DamagedSessionException where something that it names is missing or damaged
     * @throws SessionFormatException where it is none, with one line that says what and where
     * @throws IOException where the file cannot be read
     */
    public static Opened read(Path path) throws IOException {
        if (!isContainer(path)) {
            try (InputStream in = new BufferedInputStream(Files.newInputStream(path))) {
                checkBegin(in);
                return assemble(Map.of(SESSION, Container.limited(in, SESSION, MOST_JSON_BYTES)));
            }
        }
        Container container = Container.read(path);
        List<String> damage = new ArrayList<>(container.damage());
        if (damage.isEmpty() && !container.entries().containsKey(SESSION)) {
            throw new SessionFormatException("no session: the container has no " + SESSION);
        }
        if (!container.entries().containsKey(SESSION)) {
            throw new DamagedSessionException(damage);
        }
        SessionReader.Read read = readSession(container.entries());
        addMissing(damage, read, container);
        if (!damage.isEmpty()) {
            throw new DamagedSessionException(damage);
        }
        return assemble(read, container.entries());
    }

    /**
     * Reads what is there of a damaged container. The file stays as it is.
     *
     * @throws IOException where not even the session itself is there
     */
    public static Salvaged salvage(Path path) throws IOException {
        Container container = Container.read(path);
        if (!container.entries().containsKey(SESSION)) {
            throw new DamagedSessionException(List.of(SESSION + " is not there"));
        }
        List<String> losses = new ArrayList<>(container.damage());
        SessionReader.Read read = readSession(container.entries());
        addMissing(losses, read, container);
        Opened opened = assemble(read, container.entries());
        return new Salvaged(opened.session(), opened.performance(), losses);
    }

    /** Adds what a session names and its container does not have, without what is known to be damaged. */
    private static void addMissing(List<String> damage, SessionReader.Read read, Container container) {
        read.files().stream()
                .filter(name -> !container.entries().containsKey(name))
                .filter(name -> damage.stream().noneMatch(known -> known.startsWith(name)))
                .forEach(name -> damage.add(name + " is missing"));
    }

    private static boolean isContainer(Path path) throws IOException {
        if (!Files.isRegularFile(path)) {
            throw new IOException("no such file: " + path);
        }
        try (InputStream in = Files.newInputStream(path)) {
            return in.read() == 'P' && in.read() == 'K';
        }
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
            throw new SessionFormatException("no session (expected a .dibble container, or a session.json)");
        }
    }

    private static SessionReader.Read readSession(Map<String, byte[]> entries) throws SessionFormatException {
        return SessionReader.read(SessionReader.parse(entries.get(SESSION), SESSION));
    }

    /** A session with the takes and tracks that are among some entries; what is not there is left out. */
    static Opened assemble(Map<String, byte[]> entries) throws SessionFormatException {
        return assemble(readSession(entries), entries);
    }

    private static Opened assemble(SessionReader.Read read, Map<String, byte[]> entries) throws SessionFormatException {
        List<Take> takes = new ArrayList<>();
        for (Map.Entry<String, String> take : read.takeFiles().entrySet()) {
            byte[] bytes = entries.get(take.getValue());
            if (bytes != null) {
                takes.add(TakeReader.read(
                        take.getKey(),
                        read.takeNames().get(take.getKey()),
                        bytes,
                        take.getValue(),
                        read.session().tempo()));
            }
        }
        List<Track> tracks = new ArrayList<>();
        for (Track track : read.session().tracks()) {
            tracks.add(track.withRegions(TrackFiles.read(read.trackFiles().get(track.id()), entries, takes)));
        }
        return new Opened(read.session().withTakes(takes).withTracks(tracks), read.performance());
    }

    /** Saves a session in one step: where this fails, the file is as it was. */
    public static void write(Path path, Session session, Performance performance) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(1 << 16);
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            // Takes are long and very regular: more effort makes them little smaller, and saving much slower.
            zip.setLevel(Deflater.BEST_SPEED);
            put(zip, SESSION, SessionWriter.bytes(session, performance));
            for (Take take : session.takes()) {
                zip.putNextEntry(new ZipEntry(SessionWriter.takeFile(take)));
                try (Handover packed = new Handover(zip)) {
                    TakeLines.write(take, packed);
                }
                zip.closeEntry();
            }
            for (Track track : session.tracks()) {
                for (Map.Entry<String, byte[]> file : TrackFiles.files(track).entrySet()) {
                    put(zip, file.getKey(), file.getValue());
                }
            }
        }
        AtomicFile.write(path, bytes.toByteArray());
    }

    /**
     * Saves a session that was read from a file in the form that the file has: a container, or a bare
     * {@code session.json}, whose takes and tracks lie elsewhere and are named there as before.
     */
    public static void update(Path path, Session session, Performance performance) throws IOException {
        byte[] before = Files.readAllBytes(path);
        if (before.length > 1 && before[0] == 'P' && before[1] == 'K') {
            write(path, session, performance);
        } else {
            AtomicFile.write(path, SessionWriter.bytes(session, performance, SessionReader.parse(before, SESSION)));
        }
    }

    private static void put(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(bytes);
        zip.closeEntry();
    }

    /** The bytes of a bare {@code session.json}, without takes and tracks' contents. */
    public static byte[] json(Session session, Performance performance) {
        return SessionWriter.bytes(session, performance);
    }

    /** Reads a bare {@code session.json} from bytes. */
    public static Opened readJson(byte[] bytes) throws SessionFormatException {
        return assemble(Map.of(SESSION, bytes));
    }
}
