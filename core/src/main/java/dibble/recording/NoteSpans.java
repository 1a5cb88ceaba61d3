package dibble.recording;

import dibble.midi.ShortMessage;
import java.util.Arrays;
import java.util.function.LongUnaryOperator;

/**
 * The notes of a growing {@link EventStore} with start and end. An unended note extends to {@link #OPEN}. Confined to
 * one thread.
 */
public final class NoteSpans {
    /** The end of a note that still sounds. */
    public static final long OPEN = Long.MAX_VALUE;

    private final EventStore log;
    private final int source;
    private final LongUnaryOperator time;
    private final OpenNotes open = new OpenNotes();
    private long[] starts = new long[64];
    private long[] ends = new long[64];
    private int[] notes = new int[64];
    private int size;
    private int read;

    /** @param source the number whose events count; -1 for all */
    public NoteSpans(EventStore log, int source) {
        this(log, source, LongUnaryOperator.identity());
    }

    /**
     * @param source the number of the source; -1 for all
     * @param time converts stamps of the log
     */
    public NoteSpans(EventStore log, int source, LongUnaryOperator time) {
        this.log = log;
        this.source = source;
        this.time = time;
    }

    /** Reads the events that were added since the last call. */
    public void update() {
        int end = log.size();
        for (; read < end; read++) {
            if (source < 0 || log.source(read) == source) {
                take(log.message(read), time.applyAsLong(log.stamp(read)));
            }
        }
    }

    private void take(int message, long stamp) {
        boolean starts = ShortMessage.startsNote(message);
        if (!starts && !ShortMessage.endsNote(message)) {
            return;
        }
        int ended = starts ? open.begin(0, message, size) : open.end(0, message);
        if (ended != OpenNotes.NONE) {
            ends[ended] = stamp;
        }
        if (starts) {
            append(stamp, ShortMessage.data1(message));
        }
    }

    private void append(long stamp, int note) {
        if (size == starts.length) {
            starts = Arrays.copyOf(starts, size * 2);
            ends = Arrays.copyOf(ends, size * 2);
            notes = Arrays.copyOf(notes, size * 2);
        }
        starts[size] = stamp;
        ends[size] = OPEN;
        notes[size] = note;
        size++;
    }

    /** Returns the number of notes. */
    public int size() {
        return size;
    }

    /** When note {@code i} begins: a stamp of the log, or what became of it. */
    public long start(int i) {
        return starts[i];
    }

    /** When note {@code i} ends, likewise; {@link #OPEN} where it has not ended. */
    public long end(int i) {
        return ends[i];
    }

    /** The key of note {@code i}, 0-127. */
    public int note(int i) {
        return notes[i];
    }
}
