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
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/**
 * Session files: a zip with {@code session.json}, takes and tracks, or a bare {@code session.json}. Nothing in a file
 * is believed: what it unpacks to is counted against limits while it is unpacked, and entries are taken into memory
 * only by the names that the format knows, so that none can leave its folder.
 */
public final class SessionFile {
    /** The most that a container may unpack to: 512 MiB. */
    static final long MOST_BYTES = 512L << 20;

    /** The most that {@code session.json} may unpack to: 32 MiB. */
    static final long MOST_JSON_BYTES = 32L << 20;

    private static final int MOST_ENTRIES = 20_000;
    private static final String SESSION = "session.json";

    private SessionFile() {}

    /** What a file holds. */
    public record Opened(Session session, Performance performance) {}

    /**
     * Opens a session.
     *
     * @throws SessionFormatException where it is none, with one line that says what and where
     * @throws IOException where the file cannot be read
     */
    public static Opened read(Path path) throws IOException {
        if (!Files.isRegularFile(path)) {
            throw new IOException("no such file: " + path);
        }
        try (InputStream in = new BufferedInputStream(Files.newInputStream(path))) {
            in.mark(2);
            boolean zip = in.read() == 'P' && in.read() == 'K';
            in.reset();
            if (!zip) {
                checkBegin(in);
            }
            Map<String, byte[]> entries = zip ? unzip(in) : Map.of(SESSION, limited(in, SESSION, MOST_JSON_BYTES));
            return assemble(entries);
        } catch (ZipException e) {
            throw new SessionFormatException("damaged container: " + e.getMessage());
        } catch (java.io.EOFException e) {
            throw new SessionFormatException("damaged container: it ends too early");
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

    private static Map<String, byte[]> unzip(InputStream in) throws IOException {
        Map<String, byte[]> entries = new HashMap<>();
        long left = MOST_BYTES;
        try (ZipInputStream zip = new ZipInputStream(in)) {
            int seen = 0;
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                if (++seen > MOST_ENTRIES) {
                    throw new SessionFormatException("more than " + MOST_ENTRIES + " entries in the container");
                }
                String name = entry.getName();
                if (!isKnown(name)) {
                    left -= passOver(zip, left);
                } else {
                    byte[] bytes = limited(zip, name, name.equals(SESSION) ? MOST_JSON_BYTES : left);
                    left -= bytes.length;
                    if (entries.put(name, bytes) != null) {
                        throw new SessionFormatException(name + " twice in the container");
                    }
                }
            }
        } catch (IllegalArgumentException e) {
            throw new SessionFormatException("damaged container: an entry's name is not readable");
        }
        if (!entries.containsKey(SESSION)) {
            throw new SessionFormatException("no session: the container has no " + SESSION);
        }
        return entries;
    }

    /** Unpacks an entry that nobody wants, which takes time too: it counts like the others. */
    private static long passOver(InputStream in, long most) throws IOException {
        byte[] block = new byte[1 << 16];
        long total = 0;
        for (int n = in.read(block); n >= 0; n = in.read(block)) {
            total += n;
            if (total > most) {
                throw new SessionFormatException("the container unpacks to more than " + (MOST_BYTES >> 20) + " MiB");
            }
        }
        return total;
    }

    private static boolean isKnown(String name) {
        return name.equals(SESSION)
                || name.matches("takes/[a-z0-9-]+\\.jsonl")
                || name.matches("(tracks|prints)/[a-z0-9-]+\\.mid");
    }

    private static byte[] limited(InputStream in, String name, long most) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] block = new byte[1 << 16];
        for (int n = in.read(block); n >= 0; n = in.read(block)) {
            if (out.size() + (long) n > most) {
                throw new SessionFormatException(name + " is larger than " + (most >> 20) + " MiB");
            }
            out.write(block, 0, n);
        }
        return out.toByteArray();
    }

    static Opened assemble(Map<String, byte[]> entries) throws SessionFormatException {
        SessionReader.Read read = SessionReader.read(SessionReader.parse(entries.get(SESSION), SESSION));
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
