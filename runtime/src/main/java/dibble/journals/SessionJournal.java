package dibble.journals;

import static dibble.text.CoreText.say;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.disk.AtomicFile;
import dibble.disk.ContainerWriter;
import dibble.disk.FileStamp;
import dibble.files.IoWords;
import dibble.files.SessionWriter;
import dibble.files.TakeLines;
import dibble.files.TrackFiles;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Kept;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.UnknownEntries;
import dibble.time.Clock;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The journal of unsaved work in the user's folder, for recovery after a crash: the session a moment after each edit,
 * and recordings in progress. Each state of a take or a track is a separate file that is never rewritten. {@code
 * session.json} names the files of the present state and is replaced atomically, so that a reader always finds a whole
 * session. The folder is locked while the journal is open, and deleted when there is no unsaved work. {@link
 * RecoverableWork} finds abandoned folders.
 */
public final class SessionJournal implements AutoCloseable {
    /** The folder of unfinished things, in the user's. */
    static final String FOLDER = "unfinished";

    static final String SESSION = "session.json";
    static final String FOREIGN = "foreign.zip";

    /** The field for the journal's own data in the session, and its fields. */
    static final String JOURNAL = "journal";

    static final String FILE = "file";
    static final String FILE_TIME = "fileTime";
    static final String FILE_SIZE = "fileSize";
    static final String KEPT = "kept";

    /** The folders of states that are separate files. */
    private static final List<String> FOLDERS = List.of("takes", "tracks", "prints");

    private static final Logger LOG = LoggerFactory.getLogger(SessionJournal.class);
    private static final long SETTLE_MILLIS = 150;
    private static final long RETRY_MILLIS = 2_000;

    /** A state to write; a newer one replaces an older one that was not written yet. */
    private record State(Session session, Performance performance, String file, FileStamp stamp) {}

    /** The files of a track's content. */
    private record Written(Regions regions, String clip, String prints) {}

    private final Path parent;
    private final AtomicReference<State> next = new AtomicReference<>();
    private final ScheduledThreadPoolExecutor writer;
    private final TakeJournal takes;
    private FolderLock.Held held;
    private volatile String trouble;
    private final DiskWait wait;

    /** Writer thread: the files in the folder, by their content. */
    private final Map<Take, String> writtenTakes = new IdentityHashMap<>();

    private final Map<String, Written> writtenTracks = new HashMap<>();
    private UnknownEntries writtenForeign = UnknownEntries.NONE;
    private int number;

    /** @param userFolder the user's folder; null where nothing is to be kept */
    public SessionJournal(Path userFolder) {
        this(userFolder, Clock.SYSTEM);
    }

    SessionJournal(Path userFolder, Clock clock) {
        wait = new DiskWait(clock);
        parent = userFolder == null ? null : userFolder.resolve(FOLDER);
        takes = new TakeJournal(this::folderForRecording, this::run);
        writer = writer(wait);
        writer.setExecuteExistingDelayedTasksAfterShutdownPolicy(false);
    }

    /** Returns an executor of one thread that watches how long each of its tasks waits for the disk. */
    private static ScheduledThreadPoolExecutor writer(DiskWait wait) {
        return new ScheduledThreadPoolExecutor(1, task -> {
            Thread thread = new Thread(task, "dibble-journal");
            thread.setDaemon(true);
            return thread;
        }) {
            @Override
            protected void beforeExecute(Thread thread, Runnable task) {
                wait.begin();
            }

            @Override
            protected void afterExecute(Runnable task, Throwable failure) {
                wait.end();
            }
        };
    }

    /** The journal of recordings. */
    public TakeJournal takes() {
        return takes;
    }

    /** Why nothing can be kept now; null where all is well. */
    public String trouble() {
        if (wait.isLong()) {
            return say("session-journal.the-disk-does-not-answer", parent);
        }
        return trouble == null ? takes.trouble() : trouble;
    }

    private Path folderForRecording() {
        try {
            return folder();
        } catch (IOException e) {
            // The recording reports the failure in its own words.
            return parent;
        }
    }

    private synchronized Path folder() throws IOException {
        if (parent == null) {
            return null;
        }
        if (held == null || !Files.isDirectory(held.folder())) {
            letGo();
            held = FolderLock.within(parent, () -> FolderLock.lock(newFolder()));
            if (held == null) {
                throw new IOException(say("session-journal.a-new-folder-there-cannot"));
            }
            writtenTakes.clear();
            writtenTracks.clear();
            writtenForeign = UnknownEntries.NONE;
        }
        return held.folder();
    }

    private Path newFolder() throws IOException {
        Path folder = Files.createTempDirectory(parent, "session-");
        AtomicFile.flush(parent);
        return folder;
    }

    private void letGo() throws IOException {
        if (held != null) {
            FolderLock.Held old = held;
            held = null;
            old.close();
        }
    }

    /**
     * The session is another than on disk.
     *
     * @param file the path of its file, or null
     * @param stamp the version of the file that the session comes from
     */
    public void changed(Kept kept, String file, FileStamp stamp) {
        if (parent != null
                && !writer.isShutdown()
                && next.getAndSet(new State(kept.session(), kept.performance(), file, stamp)) == null) {
            // Edits come in rows: a moment is waited for, then the newest is written.
            writer.schedule(this::writeNext, SETTLE_MILLIS, TimeUnit.MILLISECONDS);
        }
    }

    /** Runs a task on the writer thread. A recording may end while the journal closes; nothing of it is needed then. */
    private void run(Runnable task) {
        if (!writer.isShutdown()) {
            writer.execute(task);
        }
    }

    private void writeNext() {
        // Read before the state, which then includes the takes of these files.
        List<Path> ended = new ArrayList<>();
        for (Path path = takes.pollKept(); path != null; path = takes.pollKept()) {
            ended.add(path);
        }
        State state = next.getAndSet(null);
        if (state == null) {
            ended.forEach(takes::keepForLater);
            return;
        }
        try {
            write(state, ended);
            trouble = null;
        } catch (IOException | RuntimeException e) {
            ended.forEach(takes::keepForLater);
            trouble = say(
                    "session-journal.unsaved-work-cannot-be-kept",
                    parent,
                    e instanceof IOException io ? IoWords.of(io) : e.toString());
            LOG.warn(trouble, e);
            if (next.compareAndSet(null, state)) {
                writer.schedule(this::writeNext, RETRY_MILLIS, TimeUnit.MILLISECONDS);
            }
        }
    }

    private void write(State state, List<Path> ended) throws IOException {
        Path where = folder();
        for (String folder : FOLDERS) {
            AtomicFile.makeFolder(where.resolve(folder));
        }
        for (Take take : state.session.takes()) {
            if (!writtenTakes.containsKey(take)) {
                String name = "takes/take-" + ++number + ".jsonl";
                AtomicFile.write(where.resolve(name), out -> TakeLines.write(take, out));
                writtenTakes.put(take, name);
            }
        }
        for (Track track : state.session.tracks()) {
            Written before = writtenTracks.get(track.id());
            if (before == null || before.regions != track.regions()) {
                String name = "track-" + ++number + ".mid";
                Written written = new Written(track.regions(), "tracks/" + name, "prints/" + name);
                for (Map.Entry<String, byte[]> file :
                        TrackFiles.files(track, naming(written)).entrySet()) {
                    AtomicFile.write(where.resolve(file.getKey()), file.getValue());
                }
                writtenTracks.put(track.id(), written);
            }
        }
        writeForeign(where, state.session.foreign());
        ObjectNode json = SessionWriter.session(state.session, state.performance, naming(null));
        ObjectNode own = json.putObject(JOURNAL);
        own.put(FILE, state.file);
        own.put(FILE_TIME, state.stamp.time());
        own.put(FILE_SIZE, state.stamp.size());
        ended.forEach(path -> own.withArray(KEPT).add(path.getFileName().toString()));
        AtomicFile.write(where.resolve(SESSION), SessionWriter.bytes(json));
        for (Path path : ended) {
            Files.deleteIfExists(path);
        }
        clearUnnamed(where, state.session);
    }

    private void writeForeign(Path where, UnknownEntries foreign) throws IOException {
        if (foreign != writtenForeign) {
            AtomicFile.write(where.resolve(FOREIGN), out -> {
                try (ContainerWriter container = new ContainerWriter(out)) {
                    container.putForeign(foreign);
                }
            });
            writtenForeign = foreign;
        }
    }

    /** @param alone the only track that is asked for; null for those that are written */
    private SessionWriter.FileNames naming(Written alone) {
        return new SessionWriter.FileNames() {
            @Override
            public String take(Take take) {
                return writtenTakes.get(take);
            }

            @Override
            public String clip(Track track) {
                return (alone == null ? writtenTracks.get(track.id()) : alone).clip;
            }

            @Override
            public String prints(Track track) {
                return (alone == null ? writtenTracks.get(track.id()) : alone).prints;
            }
        };
    }

    /** Deletes the files of previous states. */
    private void clearUnnamed(Path where, Session session) throws IOException {
        writtenTakes.keySet().retainAll(identities(session.takes()));
        Set<String> ids = new HashSet<>();
        session.tracks().forEach(track -> ids.add(track.id()));
        writtenTracks.keySet().retainAll(ids);
        Set<String> named = new HashSet<>(writtenTakes.values());
        writtenTracks.values().forEach(written -> {
            named.add(written.clip);
            named.add(written.prints);
        });
        for (String folder : FOLDERS) {
            try (var files = Files.newDirectoryStream(where.resolve(folder))) {
                for (Path file : files) {
                    if (!named.contains(folder + "/" + file.getFileName())) {
                        Files.deleteIfExists(file);
                    }
                }
            }
        }
    }

    private static Set<Take> identities(List<Take> takes) {
        Set<Take> set = java.util.Collections.newSetFromMap(new IdentityHashMap<>());
        set.addAll(takes);
        return set;
    }

    /** The session is on disk, or was left on purpose: nothing of it is unfinished, and no recording goes on. */
    public void settled() {
        next.set(null);
        if (parent != null) {
            run(this::clear);
        }
    }

    private synchronized void clear() {
        if (held == null || next.get() != null || takes.isNeeded()) {
            return;
        }
        Path folder = held.folder();
        try {
            FolderLock.within(parent, () -> {
                letGo();
                RecoverableWork.delete(folder);
                return folder;
            });
        } catch (IOException e) {
            LOG.warn("{} could not be tidied up: {}", folder, e.getMessage(), e);
        }
    }

    /** Waits until all is written that was told so far. */
    public void sync() {
        CompletableFuture.runAsync(this::writeNext, writer).join();
    }

    /** Leaves nothing behind: who closes has been asked. */
    @Override
    public void close() {
        takes.giveUpEnded();
        settled();
        writer.shutdown();
        try {
            writer.awaitTermination(2, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
