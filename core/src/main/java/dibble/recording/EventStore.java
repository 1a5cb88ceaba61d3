package dibble.recording;

import dibble.midi.Status;
import java.util.Arrays;

/**
 * A growing list of events in flat arrays: one thread appends, any thread reads. A reader reads {@link #size} first;
 * events below it never change. It grows in blocks, so that hours of playing are never copied; the first block is
 * small, since most lists stay short.
 */
public final class EventStore {
    /** Beside the 24 bits of a message. */
    private static final int ECHO = 1 << 24;

    /** The status of system exclusive; the number of its bytes is in 22 bits above it, around the one for echoes. */
    private static final int MAX_EXCLUSIVES = 1 << 22;

    private static final int BITS = 14;
    private static final int BLOCK = 1 << BITS;
    private static final int SMALLEST = 256;

    /** A stretch of events. */
    private static final class Block {
        final long[] stamps;
        final int[] messages;
        final int[] sources;

        Block(int length) {
            stamps = new long[length];
            messages = new int[length];
            sources = new int[length];
        }

        Block longer() {
            Block longer = new Block(Math.min(BLOCK, stamps.length * 4));
            System.arraycopy(stamps, 0, longer.stamps, 0, stamps.length);
            System.arraycopy(messages, 0, longer.messages, 0, messages.length);
            System.arraycopy(sources, 0, longer.sources, 0, sources.length);
            return longer;
        }
    }

    private volatile Block[] blocks = {new Block(SMALLEST)};

    /** System exclusive messages, which are few. Written before the events that they are. */
    private volatile byte[][] exclusives = {};

    private int exclusiveCount;

    /** Written last: its release pairs with the reader's acquire, and publishes the events below it. */
    private volatile int size;

    /** Appends an event. The appending thread only. */
    public void add(long stamp, int source, int message) {
        add(stamp, source, message, false);
    }

    /**
     * Appends an event.
     *
     * @param echo whether it came back from a looping device, so that it is kept but not printed
     */
    public void add(long stamp, int source, int message, boolean echo) {
        int at = size;
        Block block = room(at);
        int place = at & BLOCK - 1;
        block.stamps[place] = stamp;
        block.messages[place] = echo ? message | ECHO : message;
        block.sources[place] = source;
        size = at + 1;
    }

    /** Appends a whole system exclusive message; one beyond four million is left out. The appending thread only. */
    public void addExclusive(long stamp, int source, byte[] message) {
        int number = exclusiveCount;
        if (number < MAX_EXCLUSIVES) {
            byte[][] all = exclusives;
            if (number == all.length) {
                all = Arrays.copyOf(all, Math.max(8, number * 2));
            }
            all[number] = message.clone();
            exclusives = all;
            exclusiveCount++;
            add(stamp, source, Status.EXCLUSIVE | (number & 0xFFFF) << 8 | number >>> 16 << 25, false);
        }
    }

    /** Appends an event of another list. The appending thread only. */
    public void copy(EventStore from, int i) {
        if (from.exclusive(i) != null) {
            addExclusive(from.stamp(i), from.source(i), from.exclusive(i));
        } else {
            add(from.stamp(i), from.source(i), from.message(i), from.isEcho(i));
        }
    }

    private Block room(int at) {
        Block[] all = blocks;
        int number = at >>> BITS;
        if (number == all.length) {
            Block[] more = Arrays.copyOf(all, number + 1);
            more[number] = new Block(BLOCK);
            blocks = more;
            return more[number];
        }
        Block block = all[number];
        if ((at & BLOCK - 1) == block.stamps.length) {
            Block[] same = all.clone();
            same[number] = block.longer();
            blocks = same;
            return same[number];
        }
        return block;
    }

    /** Returns the number of events. */
    public int size() {
        return size;
    }

    private Block block(int i) {
        return blocks[i >>> BITS];
    }

    /** Nanoseconds since the beginning of the recording. */
    public long stamp(int i) {
        return block(i).stamps[i & BLOCK - 1];
    }

    /** The packed message; the status 0xF0 alone for a system exclusive message. */
    public int message(int i) {
        int message = block(i).messages[i & BLOCK - 1];
        return (message & 0xFF) == Status.EXCLUSIVE ? Status.EXCLUSIVE : message & ~ECHO;
    }

    /** The system exclusive message that an event is, from its 0xF0 to its 0xF7; null for all others. */
    public byte[] exclusive(int i) {
        int message = block(i).messages[i & BLOCK - 1];
        return (message & 0xFF) == Status.EXCLUSIVE
                ? exclusives[message >>> 8 & 0xFFFF | message >>> 25 << 16].clone()
                : null;
    }

    /** Returns true if the event came back from a looping device. */
    public boolean isEcho(int i) {
        return (block(i).messages[i & BLOCK - 1] & ECHO) != 0;
    }

    /** The number of the source, or whatever number the list's owner gave. */
    public int source(int i) {
        return block(i).sources[i & BLOCK - 1];
    }
}
