package dibble.journals;

import static dibble.text.CoreText.say;

import dibble.disk.AtomicFile;
import dibble.files.IoWords;
import dibble.files.TakeLines;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.time.Clock;
import dibble.time.TempoMap;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The journal of recordings: writes the lines of a take to disk while it is recorded. The recording thread only formats
 * the lines; a writer thread does everything that can wait for the disk. Where writing fails, the recording goes on in
 * memory, and {@link #trouble} says why. Methods belong to the recording thread unless they say otherwise.
 */
public class TakeJournal {
    /** A journal that writes nothing. */
    public static final TakeJournal NONE = new TakeJournal(() -> null, Runnable::run);

    private static final Logger LOG = LoggerFactory.getLogger(TakeJournal.class);

    /** The name of a recording in a folder of unsaved work. */
    static final String PATTERN = "recording-\\d{1,9}\\.jsonl";

    private static final long BETWEEN_FLUSHES = TimeUnit.SECONDS.toNanos(1);

    /** The most bytes that wait for a disk that does not answer: about an hour of dense playing. */
    private static final long MAX_WAITING_BYTES = 1 << 28;

    private final Supplier<Path> folder;
    private final Executor writer;
    private final long maxWaitingBytes;
    private final AtomicLong waitingBytes = new AtomicLong();

    /** The file of the take in progress, or null. */
    private volatile TakeFile current;

    private TakeLines lines;

    /** Lines of the current take that were not passed to the writer yet. */
    private ByteArrayOutputStream formatted;

    /** Files of takes that ended and are not in the session yet. */
    private final Set<TakeFile> ended = ConcurrentHashMap.newKeySet();

    /** Files of takes that the session has, which is not journaled yet. */
    private final Queue<Path> kept = new ConcurrentLinkedQueue<>();

    private volatile String trouble;

    /** The number of the last file. Writer thread. */
    private int number;

    /**
     * @param folder returns the folder for recordings, or null for none; called by the writer
     * @param writer runs tasks one after another, in their order
     */
    public TakeJournal(Supplier<Path> folder, Executor writer) {
        this(folder, writer, MAX_WAITING_BYTES);
    }

    TakeJournal(Supplier<Path> folder, Executor writer, long maxWaitingBytes) {
        this.folder = folder;
        this.writer = writer;
        this.maxWaitingBytes = maxWaitingBytes;
    }

    /** Returns why nothing is written, or null if all is well. Any thread. */
    public String trouble() {
        return trouble;
    }

    /**
     * Begins the journal of a take.
     *
     * @param tempo the tempo of the recording
     * @param start its start, in nanoseconds of that tempo
     */
    public void begin(TempoMap tempo, long start) {
        close();
        TakeFile file = new TakeFile();
        current = file;
        writer.execute(file::open);
        formatted = new ByteArrayOutputStream();
        lines = new TakeLines(formatted);
        format(() -> lines.begin(tempo, start));
    }

    /** Writes a change of the tempo of the take in progress. */
    public void tempo(TempoMap before, TempoMap now) {
        format(() -> lines.tempo(before, now));
    }

    /** Writes the events and routings that were added since the last call. */
    public void follow(EventStore log, List<String> sources, List<Take.Mark> marks) {
        format(() -> lines.follow(log, sources, marks));
    }

    /**
     * Ends the journal of a take. Its file stays until the session that has the take is journaled.
     *
     * @return the file, for {@link #kept}, or null if no take is in progress
     */
    public TakeFile end(long length) {
        TakeFile file = current;
        if (file == null) {
            return null;
        }
        format(() -> lines.end(length));
        ended.add(file);
        close();
        return file;
    }

    private void close() {
        TakeFile file = current;
        if (file != null) {
            current = null;
            writer.execute(file::close);
        }
    }

    /**
     * Notes that the session has a take, or that the take was dropped: its file is deleted once that session is
     * journaled. Any thread.
     */
    public void kept(TakeFile file) {
        if (file != null) {
            // The writer learns the path when it opens the file, so this must come after that.
            writer.execute(() -> {
                if (file.path != null) {
                    kept.add(file.path);
                }
                ended.remove(file);
            });
        }
    }

    /** Returns the next file whose take is in the session, or null. Writer thread. */
    Path pollKept() {
        return kept.poll();
    }

    /** Returns a polled file to the queue, since the session was not journaled. Writer thread. */
    void keepForLater(Path file) {
        kept.add(file);
    }

    /** Forgets ended takes that no session will have. Any thread. */
    void giveUpEnded() {
        ended.clear();
    }

    /** Returns true if a recording is in progress or not in a session yet, so that its folder must stay. Any thread. */
    boolean isNeeded() {
        return current != null || !ended.isEmpty();
    }

    private interface Formatting {
        void run() throws IOException;
    }

    /** Formats lines of the take in progress in memory, and passes them to the writer. */
    private void format(Formatting formatting) {
        TakeFile file = current;
        if (file == null) {
            return;
        }
        try {
            formatting.run();
        } catch (IOException e) {
            throw new UncheckedIOException("memory does not fail", e);
        }
        byte[] bytes = formatted.toByteArray();
        formatted.reset();
        if (waitingBytes.addAndGet(bytes.length) > maxWaitingBytes) {
            // The rest of the take is dropped, which may have no gap.
            file.isGivenUp = true;
        }
        writer.execute(() -> {
            file.write(bytes);
            waitingBytes.addAndGet(-bytes.length);
        });
    }

    /** The file of one take. Methods belong to the writer thread; any thread reads the volatile fields. */
    public final class TakeFile {
        private FileChannel channel;
        private long flushedAt;

        /** Null until the file is open, and if it could not be opened. */
        private volatile Path path;

        private volatile boolean isClosed;
        private volatile boolean isGivenUp;

        private TakeFile() {}

        private void open() {
            trouble = null;
            Path where = folder.get();
            if (where == null) {
                return;
            }
            try {
                AtomicFile.makeFolder(where);
                Path next = where.resolve("recording-" + ++number + ".jsonl");
                while (Files.exists(next)) {
                    next = where.resolve("recording-" + ++number + ".jsonl");
                }
                channel = FileChannel.open(next, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                path = next;
                flushedAt = Clock.SYSTEM.nanos();
            } catch (IOException e) {
                fail(where, IoWords.of(e), e);
            }
        }

        private void write(byte[] bytes) {
            if (channel == null) {
                return;
            }
            if (isGivenUp) {
                fail(path.getParent(), say("take-journal.the-disk-does-not-answer"), null);
                return;
            }
            try {
                ByteBuffer left = ByteBuffer.wrap(bytes);
                while (left.hasRemaining()) {
                    channel.write(left);
                }
            } catch (IOException e) {
                fail(path.getParent(), IoWords.of(e), e);
                return;
            }
            long now = Clock.SYSTEM.nanos();
            if (now - flushedAt >= BETWEEN_FLUSHES) {
                flushedAt = now;
                try {
                    force(false);
                } catch (IOException e) {
                    report(say("take-journal.the-recording-may-not-survive", IoWords.of(e)), e);
                }
            }
        }

        /** Forces the file and its directory entry to the disk. */
        private void force(boolean metadata) throws IOException {
            channel.force(metadata);
            AtomicFile.flush(path.getParent());
        }

        private void close() {
            if (channel != null) {
                try {
                    try {
                        force(true);
                    } finally {
                        channel.close();
                    }
                } catch (IOException e) {
                    report(say("take-journal.the-end-of-the-recording", IoWords.of(e)), e);
                }
                channel = null;
            }
            isClosed = true;
        }

        /** Reports a failure, and writes nothing more: lines after a gap would be worth nothing. */
        private void fail(Path where, String reason, IOException cause) {
            report(say("take-journal.the-recording-cannot-be-written", where, reason), cause);
            close();
        }

        private void report(String message, IOException cause) {
            trouble = message;
            LOG.warn(message, cause);
        }

        /** Returns the path, or null if the file was not opened. */
        Path path() {
            return path;
        }

        /** Returns true if everything of the take is on the disk, or could not be written. */
        boolean isClosed() {
            return isClosed;
        }
    }
}
