package dibble.files;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.UnknownEntries;
import dibble.work.Progress;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The content of a session file: the session, and the performance that was saved with it. */
public record SessionContent(Session session, Performance performance) {
    /** The name of the entry that has everything but takes and tracks. */
    public static final String SESSION = "session.json";

    /** The most that a container may unpack to: 512 MiB. */
    public static final long MAX_BYTES = 512L << 20;

    /** The most that {@code session.json} may unpack to: 16 MiB. */
    public static final long MAX_JSON_BYTES = 16L << 20;

    /** The folder of entries whose names are needed for others. */
    private static final String KEPT = "kept/";

    /** Reads the entry {@link #SESSION} of a container. */
    public static SessionReader.Read readSession(Map<String, byte[]> entries) throws SessionFormatException {
        return SessionReader.read(SessionReader.parse(entries.get(SESSION), SESSION));
    }

    /**
     * Returns a session with those takes and tracks that are among some entries.
     *
     * @param losses receives what cannot be read; null where that refuses the whole session
     * @param progress follows the reading
     */
    public static SessionContent assemble(
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
        Session session = read.session()
                .with()
                .takes(takes)
                .tracks(tracks)
                .foreign(foreign(read, entries))
                .build();
        return new SessionContent(session, read.performance());
    }

    /**
     * Returns the entries that the session does not name. An entry is renamed if its name is needed for a saved file.
     */
    private static UnknownEntries foreign(SessionReader.Read read, Map<String, byte[]> entries) {
        Map<String, byte[]> others = new LinkedHashMap<>(entries);
        others.remove(SESSION);
        others.keySet().removeAll(read.files());
        if (others.isEmpty()) {
            return UnknownEntries.NONE;
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
        return new UnknownEntries(kept);
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

    /** Prevents saving a session that cannot be opened again over one that can. */
    public static void checkReadable(ObjectNode json) throws IOException {
        try {
            SessionReader.read(json);
        } catch (SessionFormatException e) {
            throw new IOException(say("session-file.the-saved-file-could-not", e.getMessage()));
        }
    }

    /** The bytes of a bare {@code session.json}, without takes and tracks' contents. */
    public static byte[] json(Session session, Performance performance) {
        return SessionWriter.bytes(SessionWriter.session(session, performance, SessionWriter.BY_ID));
    }

    /** Reads a bare {@code session.json} from bytes. */
    public static SessionContent readJson(byte[] bytes) throws SessionFormatException {
        Map<String, byte[]> alone = Map.of(SESSION, bytes);
        return assemble(readSession(alone), alone, null, Progress.NONE);
    }
}
