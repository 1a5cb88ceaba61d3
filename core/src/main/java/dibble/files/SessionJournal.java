package dibble.files;

import com.fasterxml.jackson.databind.ObjectMapper;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Keeps what is not saved yet in a folder of the user's, unpacked as in a container, so that it is there after a crash:
 * the session a moment after each edit, recordings while they last. The folder is locked as long as this runs, and is
 * gone when nothing in it is unfinished. {@link Unfinished} finds those that were left behind.
 */
public final class SessionJournal implements AutoCloseable {
    /** The folder of unfinished things, in the user's. */
    static final String FOLDER = "unfinished";

    static final String SESSION = "session.json";
    static final String ABOUT = "about.json";
    static final String LOCK = "in-use";

    private static final Logger LOG = LoggerFactory.getLogger(SessionJournal.class);
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final long SETTLE_MILLIS = 150;

    /** What is to be written: the newest takes the place of an older one that was not written yet. */
    private record State(Session session, Performance performance, String file) {}

    private final Path parent;
    private final AtomicReference<State> next = new AtomicReference<>();
    private final ExecutorService writer = Executors.newSingleThreadExecutor(task -> {
        Thread thread = new Thread(task, "dibble-journal");
        thread.setDaemon(true);
        return thread;
    });
    private final TakeJournal takes;
    private Path folder;
    private FileChannel lockFile;
    private FileLock lock;
    private volatile String trouble;

    /** Writer's thread: what is in the folder. */
    private final Set<String> writtenTakes = new HashSet<>();

    private final Map<String, Regions> writtenRegions = new HashMap<>();

    /** @param userFolder the user's folder; null where nothing is to be kept */
    public SessionJournal(Path userFolder) {
        parent = userFolder == null ? null : userFolder.resolve(FOLDER);
        takes = new TakeJournal(this::folderForRecording);
    }

    /** The journal of recordings. */
    public TakeJournal takes() {
        return takes;
    }

    /** Why nothing can be kept now; null where all is well. */
    public String trouble() {
        return trouble == null ? takes.trouble() : trouble;
    }

    private Path folderForRecording() {
        try {
            return folder();
        } catch (IOException e) {
            // Whoever writes there says so in its own words.
            return parent;
        }
    }

    private synchronized Path folder() throws IOException {
        if (parent == null) {
            return null;
        }
        if (folder == null || !Files.isDirectory(folder)) {
            Files.createDirectories(parent);
            Path made = Files.createTempDirectory(parent, "session-");
            lockFile = FileChannel.open(made.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
            lock = lockFile.tryLock();
            folder = made;
            writtenTakes.clear();
            writtenRegions.clear();
        }
        return folder;
    }

    /**
     * The session is another than on disk.
     *
     * @param file the path of its file, or null
     */
    public void changed(Session session, Performance performance, String file) {
        if (parent != null && next.getAndSet(new State(session, performance, file)) == null) {
            writer.execute(this::writeSettled);
        }
    }

    /** Edits come in rows: a moment is waited for, then the newest is written. */
    private void writeSettled() {
        try {
            TimeUnit.MILLISECONDS.sleep(SETTLE_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        write();
    }

    private void write() {
        // Before the state is taken: what was kept by then is in it.
        List<Path> ended = new ArrayList<>();
        for (Path path = takes.pollKept(); path != null; path = takes.pollKept()) {
            ended.add(path);
        }
        State state = next.getAndSet(null);
        if (state == null) {
            ended.forEach(takes::kept);
            return;
        }
        try {
            Path where = folder();
            Files.createDirectories(where.resolve("takes"));
            Files.createDirectories(where.resolve("tracks"));
            Files.createDirectories(where.resolve("prints"));
            for (Take take : state.session.takes()) {
                if (writtenTakes.add(take.id())) {
                    AtomicFile.write(where.resolve(SessionWriter.takeFile(take)), TakeLines.write(take));
                }
            }
            for (Track track : state.session.tracks()) {
                if (writtenRegions.put(track.id(), track.regions()) != track.regions()) {
                    for (Map.Entry<String, byte[]> file :
                            TrackFiles.files(track).entrySet()) {
                        AtomicFile.write(where.resolve(file.getKey()), file.getValue());
                    }
                }
            }
            AtomicFile.write(
                    where.resolve(ABOUT), JSON.writeValueAsBytes(Map.of("file", state.file == null ? "" : state.file)));
            AtomicFile.write(where.resolve(SESSION), SessionWriter.bytes(state.session, state.performance));
            for (Path path : ended) {
                Files.deleteIfExists(path);
            }
            trouble = null;
        } catch (IOException e) {
            ended.forEach(takes::kept);
            trouble = "What is not saved cannot be kept in " + parent + ": " + e.getMessage();
            LOG.warn(trouble);
        }
    }

    /** The session is on disk, or was left on purpose: nothing of it is unfinished, and no recording goes on. */
    public void settled() {
        next.set(null);
        if (parent != null) {
            writer.execute(this::clear);
        }
    }

    private synchronized void clear() {
        if (folder == null || next.get() != null || takes.isOpen()) {
            return;
        }
        try {
            if (lock != null) {
                lock.release();
                lockFile.close();
            }
            Unfinished.delete(folder);
        } catch (IOException e) {
            LOG.warn("{} could not be tidied up: {}", folder, e.getMessage());
        }
        folder = null;
        lock = null;
    }

    /** Waits until all is written that was told so far. */
    public void sync() {
        CompletableFuture.runAsync(this::write, writer).join();
    }

    /** Leaves nothing behind: who closes has been asked. */
    @Override
    public void close() {
        settled();
        writer.shutdown();
        try {
            writer.awaitTermination(2, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Whether somebody has a folder in use. */
    static boolean isInUse(Path folder) {
        try (FileChannel file =
                FileChannel.open(folder.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            FileLock free = file.tryLock();
            if (free == null) {
                return true;
            }
            free.release();
            return false;
        } catch (OverlappingFileLockException e) {
            return true;
        } catch (IOException e) {
            return false;
        }
    }
}
