package dibble.session;

import dibble.recording.EventLog;
import dibble.recording.Take;
import dibble.time.TempoMap;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Writes a recording to disk while it lasts, in the lines of a take. Where that fails the recording goes on in memory,
 * and {@link #trouble} says why. Belongs to the thread that records, but for {@link #trouble}.
 */
public class TakeJournal {
    /** Keeps nothing. */
    public static final TakeJournal NONE = new TakeJournal(() -> null, () -> TempoMap.of(120));

    private static final Logger LOG = LoggerFactory.getLogger(TakeJournal.class);

    /** A file of a folder of unfinished things that is a recording. */
    static final String PATTERN = "recording-\\d+\\.jsonl";

    private final Supplier<Path> folder;
    private final Supplier<TempoMap> tempo;
    private OutputStream file;
    private TakeLines lines;
    private int number;
    private volatile String trouble;

    /**
     * @param folder where recordings go; null for nowhere. It is made where it is missing
     * @param tempo that of the session
     */
    public TakeJournal(Supplier<Path> folder, Supplier<TempoMap> tempo) {
        this.folder = folder;
        this.tempo = tempo;
    }

    /** Why nothing is written now; null where all is well. Any thread. */
    public String trouble() {
        return trouble;
    }

    /**
     * Begins the journal of a take.
     *
     * @param start where it begins in the session's time, in nanoseconds
     */
    public void begin(long start) {
        close();
        trouble = null;
        Path where = folder.get();
        if (where == null) {
            return;
        }
        try {
            Files.createDirectories(where);
            Path next = where.resolve("recording-" + ++number + ".jsonl");
            while (Files.exists(next)) {
                next = where.resolve("recording-" + ++number + ".jsonl");
            }
            file = new FileOutputStream(next.toFile());
            lines = new TakeLines(file);
            lines.begin(tempo.get(), start);
        } catch (IOException e) {
            fail(where, e);
        }
    }

    /** Writes what has come since the last call. */
    public void follow(EventLog log, List<String> sources, List<Take.Mark> marks) {
        if (file != null) {
            try {
                lines.follow(log, sources, marks);
            } catch (IOException e) {
                fail(folder.get(), e);
            }
        }
    }

    /** Ends the journal of a take; the file stays until the session that has the take is in the journal too. */
    public void end(long length) {
        if (file != null) {
            try {
                lines.end(length);
            } catch (IOException e) {
                fail(folder.get(), e);
            }
        }
        close();
    }

    private void fail(Path where, IOException e) {
        trouble = "The recording cannot be kept in " + where + ": " + e.getMessage()
                + ". It goes on in memory; save the session as soon as it ends.";
        LOG.warn(trouble);
        close();
    }

    private void close() {
        if (file != null) {
            try {
                file.close();
            } catch (IOException e) {
                trouble = "The recording was not written to its end: " + e.getMessage();
            }
            file = null;
        }
    }
}
