package dibble.studio;

import dibble.midi.ShortMessage;
import dibble.routing.Routing;
import dibble.time.TempoMap;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.LongUnaryOperator;

/**
 * The unrecorded events of the last minutes, which can still be kept. Blocks of events in flat arrays; the oldest are
 * dropped. Confined to the recorder's thread, except {@link #noteCount}.
 */
final class UnrecordedBuffer {
    private volatile long keptNanos = TimeUnit.MINUTES.toNanos(10);

    /** Four million events: more than sixteen sources play in ten minutes, but for a flood. */
    private static final int MAX_BLOCKS = 1024;

    private static final int BLOCK = 4096;

    private static final class Block {
        private final long[] stamps = new long[BLOCK];
        private final int[] sources = new int[BLOCK];
        private final int[] messages = new int[BLOCK];
        private int size;
        private int notes;
    }

    /** A routing that came into force. */
    private record Mark(long stamp, List<String> sources, Routing routing) {}

    private final Deque<Block> blocks = new ArrayDeque<>();
    private final Deque<Mark> marks = new ArrayDeque<>();
    private volatile int noteCount;

    /** Sets the time for which events are kept. Any thread. */
    void setKept(long nanos) {
        keptNanos = nanos;
    }

    void routing(long stamp, List<String> sources, Routing routing) {
        marks.add(new Mark(stamp, sources, routing));
        forget(stamp);
    }

    void add(long stamp, int source, int message) {
        Block block = blocks.peekLast();
        if (block == null || block.size == BLOCK) {
            block = new Block();
            blocks.add(block);
            forget(stamp);
        }
        block.stamps[block.size] = stamp;
        block.sources[block.size] = source;
        block.messages[block.size] = message;
        block.size++;
        if (ShortMessage.startsNote(message)) {
            block.notes++;
            noteCount = noteCount + 1;
        }
    }

    /** Drops expired events; the routing at the first remaining event stays. */
    private void forget(long now) {
        while (blocks.size() > 1 && (blocks.size() > MAX_BLOCKS || isOld(blocks.peekFirst(), now))) {
            noteCount = noteCount - blocks.removeFirst().notes;
        }
        long first = blocks.isEmpty() || blocks.peekFirst().size == 0 ? now : blocks.peekFirst().stamps[0];
        while (marks.size() > 1 && second(marks).stamp <= first) {
            marks.removeFirst();
        }
    }

    private static Mark second(Deque<Mark> marks) {
        var all = marks.iterator();
        all.next();
        return all.next();
    }

    private boolean isOld(Block block, long now) {
        return block.stamps[block.size - 1] < now - keptNanos;
    }

    /** Returns the number of notes to keep. Any thread. */
    int noteCount() {
        return noteCount;
    }

    /** When the first note that is young enough was played; -1 where there is none. */
    private long firstNote(long now) {
        for (Block block : blocks) {
            for (int i = 0; i < block.size; i++) {
                if (ShortMessage.startsNote(block.messages[i]) && block.stamps[i] >= now - keptNanos) {
                    return block.stamps[i];
                }
            }
        }
        return -1;
    }

    /** Makes a recording of it, as if it had been begun with the first note. */
    @FunctionalInterface
    interface Maker {
        Recording make(RecordPlan plan, List<String> sources, Routing routing);
    }

    /**
     * Makes a recording of the buffer and clears it; returns null if it has no note.
     *
     * @param now the time on the clock of the events
     * @param tempo the tempo of the session
     * @param fromAt converts a time of that clock to a position in nanoseconds of the tempo
     */
    Recording keep(long now, TempoMap tempo, LongUnaryOperator fromAt, Maker maker) {
        long first = firstNote(now);
        if (first < 0 || marks.isEmpty()) {
            return null;
        }
        Deque<Mark> left = new ArrayDeque<>(marks);
        Mark mark = left.removeFirst();
        Recording recording =
                maker.make(RecordPlan.open(first, fromAt.applyAsLong(first), 0, tempo), mark.sources, mark.routing);
        for (Block block : blocks) {
            for (int i = 0; i < block.size; i++) {
                while (!left.isEmpty() && left.peekFirst().stamp <= block.stamps[i]) {
                    mark = left.removeFirst();
                    recording.routing(mark.stamp, mark.sources, mark.routing);
                }
                recording.event(block.stamps[i], block.sources[i], block.messages[i], false);
            }
        }
        clear();
        return recording;
    }

    /** Replays the events since the start of a recording that was begun late. */
    void replay(Recording recording, long since) {
        for (Block block : blocks) {
            for (int i = 0; i < block.size; i++) {
                if (block.stamps[i] >= since) {
                    recording.event(block.stamps[i], block.sources[i], block.messages[i], false);
                }
            }
        }
    }

    /** Clears the buffer after its events were kept. */
    void clear() {
        blocks.clear();
        noteCount = 0;
        while (marks.size() > 1) {
            marks.removeFirst();
        }
    }
}
