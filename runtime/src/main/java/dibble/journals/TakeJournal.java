package dibble.journals;

import static dibble.text.CoreText.say;

import dibble.disk.AtomicFile;
import dibble.files.IoWords;
import dibble.files.TakeLines;
import dibble.recording.EventLog;
import dibble.recording.Take;
import dibble.system.Workers;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Writes a recording to disk while it lasts, in the lines of a take. Where that fails the recording goes on in memory,
 * and {@link #trouble} says why. Belongs to the thread that records, but for {@link #trouble}.
 */
public class TakeJournal {
    /** Keeps nothing. */
    public static final TakeJournal NONE = new TakeJournal(() -> null);

    private static final Logger LOG = LoggerFactory.getLogger(TakeJournal.class);

    /** A file of a folder of unfinished things that is a recording. */
    static final String PATTERN = "recording-\\d{1,9}\\.jsonl";

    private static final long BETWEEN_FLUSHES = TimeUnit.SECONDS.toNanos(1);

    private final Supplier<Path> folder;
    private final Queue<Path> kept = new ConcurrentLinkedQueue<>();
    private FileChannel file;
    private Path path;
    private long flushedAt;

    /** What brings the last lines to the disk: it waits for the disk, and the recording must not. */
    private CompletableFuture<Void> flushing = CompletableFuture.completedFuture(null);

    /** Whether a recording is written, or is about to be. */
    private volatile boolean open;

    /** Recordings that have ended, and whose takes are in no session yet. */
    private final Set<Path> waiting = ConcurrentHashMap.newKeySet();

    private TakeLines lines;
    private int number;
    private volatile String trouble;
    private final DiskWait wait;

    /** @param folder where recordings go; null for nowhere. It is made where it is missing */
    public TakeJournal(Supplier<Path> folder) {
        this(folder, Clock.SYSTEM);
    }

    TakeJournal(Supplier<Path> folder, Clock clock) {
        this.folder = folder;
        wait = new DiskWait(clock);
    }

    /** Whether the recording has long waited for the disk. Any thread. */
    boolean waitsForDisk() {
        return wait.isLong();
    }

    /** Why nothing is written now; null where all is well. Any thread. */
    public String trouble() {
        return trouble;
    }

    /**
     * Begins the journal of a take.
     *
     * @param tempo with which it is recorded
     * @param start where it begins, in nanoseconds of that tempo
     */
    public void begin(TempoMap tempo, long start) {
        close();
        trouble = null;
        open = true;
        wait.begin();
        try {
            open(tempo, start);
        } finally {
            wait.end();
        }
    }

    private void open(TempoMap tempo, long start) {
        Path where = folder.get();
        if (where == null) {
            open = false;
            return;
        }
        try {
            AtomicFile.makeFolder(where);
            Path next = where.resolve("recording-" + ++number + ".jsonl");
            while (Files.exists(next)) {
                next = where.resolve("recording-" + ++number + ".jsonl");
            }
            file = FileChannel.open(next, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
            path = next;
            flushedAt = Clock.SYSTEM.nanos();
            lines = new TakeLines(Channels.newOutputStream(file));
            lines.begin(tempo, start);
        } catch (IOException e) {
            fail(where, e);
        }
    }

    private interface Writing {
        void run() throws IOException;
    }

    /** Writes something of the take that is open; where that fails, nothing more of it is written. */
    private void write(Writing writing) {
        if (file == null) {
            return;
        }
        wait.begin();
        try {
            writing.run();
        } catch (IOException e) {
            fail(folder.get(), e);
        } finally {
            wait.end();
        }
    }

    /** The tempo of the take that is written is another from a change on. */
    public void tempo(TempoMap before, TempoMap now) {
        write(() -> lines.tempo(before, now));
    }

    /** Writes what has come since the last call. */
    public void follow(EventLog log, List<String> sources, List<Take.Mark> marks) {
        write(() -> {
            lines.follow(log, sources, marks);
            if (Clock.SYSTEM.nanos() - flushedAt >= BETWEEN_FLUSHES && flushing.isDone()) {
                flushedAt = Clock.SYSTEM.nanos();
                flush(file);
            }
        });
    }

    /**
     * Ends the journal of a take; the file stays until the session that has the take is in the journal too.
     *
     * @return the file, for {@link #kept}; null where there is none
     */
    public Path end(long length) {
        Path ended = file == null ? null : path;
        write(() -> lines.end(length));
        if (ended != null) {
            waiting.add(ended);
        }
        close();
        return ended;
    }

    /** A take is in the session now: its file goes when that session has been written. Any thread. */
    public void kept(Path ended) {
        if (ended != null) {
            kept.add(ended);
            waiting.remove(ended);
        }
    }

    /** The next file whose take was in the session when this was asked; null for none. */
    Path pollKept() {
        return kept.poll();
    }

    /** Gives up recordings that have ended and will be in no session. */
    void giveUpEnded() {
        waiting.clear();
    }

    /** Whether a recording is not in any session yet: its folder must stay. */
    boolean isNeeded() {
        return open || !waiting.isEmpty();
    }

    private void fail(Path where, IOException e) {
        trouble = say("take-journal.the-recording-cannot-be-written", where, IoWords.of(e));
        LOG.warn(trouble, e);
        close();
    }

    private void flush(FileChannel written) {
        Path name = path;
        flushing = CompletableFuture.runAsync(
                () -> {
                    try {
                        bring(written, name, false);
                    } catch (IOException e) {
                        trouble = say("take-journal.the-recording-may-not-survive", IoWords.of(e));
                        LOG.warn(trouble, e);
                    }
                },
                Workers.shared().disk());
    }

    /** Forces the file and its directory entry to the disk. */
    private static void bring(FileChannel written, Path name, boolean all) throws IOException {
        written.force(all);
        AtomicFile.flush(name.getParent());
    }

    private void close() {
        if (file != null) {
            FileChannel written = file;
            Path name = path;
            file = null;
            flushing = flushing.thenRunAsync(
                    () -> {
                        try (written) {
                            bring(written, name, true);
                        } catch (IOException e) {
                            trouble = say("take-journal.the-end-of-the-recording", IoWords.of(e));
                            LOG.warn(trouble, e);
                        }
                    },
                    Workers.shared().disk());
        }
        open = false;
    }
}
