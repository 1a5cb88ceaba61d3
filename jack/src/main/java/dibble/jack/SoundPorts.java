package dibble.jack;

import com.sun.jna.Memory;
import com.sun.jna.Pointer;
import dibble.programs.SoundPair;

/**
 * The output of the mixer to ports for other applications: a ring for each, filled block by block by the mixer's thread
 * and emptied by the callback.
 */
final class SoundPorts {
    /** Frames that a ring holds: several of the longest blocks that servers have. A power of two. */
    private static final int CAPACITY = 1 << 15;

    private static final int BYTES = Float.BYTES;

    /** Two ports, and what waits for them. */
    static final class Pair {
        final SoundPair spec;
        final long leftHandle;
        final long rightHandle;
        private final Memory left = new Memory((long) CAPACITY * BYTES);
        private final Memory right = new Memory((long) CAPACITY * BYTES);
        private final long leftAt = Pointer.nativeValue(left);
        private final long rightAt = Pointer.nativeValue(right);

        /** Up to where it was given something; the mixer's thread alone. */
        private long given;

        Pair(SoundPair spec, long leftHandle, long rightHandle) {
            this.spec = spec;
            this.leftHandle = leftHandle;
            this.rightHandle = rightHandle;
            left.clear();
            right.clear();
        }

        private void put(long at, float[] fromLeft, float[] fromRight) {
            int length = fromLeft.length;
            int place = (int) (at & CAPACITY - 1);
            int first = Math.min(length, CAPACITY - place);
            left.write((long) place * BYTES, fromLeft, 0, first);
            right.write((long) place * BYTES, fromRight, 0, first);
            if (first < length) {
                left.write(0, fromLeft, first, length - first);
                right.write(0, fromRight, first, length - first);
            }
            given = at + length;
        }

        private void putSilence(long at, int length) {
            int place = (int) (at & CAPACITY - 1);
            int first = Math.min(length, CAPACITY - place);
            left.setMemory((long) place * BYTES, (long) first * BYTES, (byte) 0);
            right.setMemory((long) place * BYTES, (long) first * BYTES, (byte) 0);
            if (first < length) {
                left.setMemory(0, (long) (length - first) * BYTES, (byte) 0);
                right.setMemory(0, (long) (length - first) * BYTES, (byte) 0);
            }
            given = at + length;
        }
    }

    private volatile Pair[] pairs = {};
    private volatile long written;
    private volatile long read;
    private volatile boolean open;
    private volatile int dropouts;

    void set(Pair[] all) {
        pairs = all;
    }

    Pair[] pairs() {
        return pairs;
    }

    /** Begins to fill the rings: what waited before is forgotten. */
    void open() {
        written = read;
        dropouts = 0;
        open = true;
    }

    void close() {
        open = false;
    }

    /** Frames that wait to be fetched. */
    int waiting() {
        return (int) (written - read);
    }

    /** Returns the number of blocks that found too few samples. */
    int dropouts() {
        return dropouts;
    }

    /** Adds the sound of a strip to the next block. Mixer's thread. */
    void putStrip(String port, int channel, int key, float[] left, float[] right) {
        for (Pair pair : pairs) {
            SoundPair of = pair.spec;
            if (of.output() == 0
                    && of.channel() == channel
                    && of.key() == key
                    && of.port().equals(port)) {
                pair.put(written, left, right);
            }
        }
    }

    /** Takes what an output sounds in the next block. The mixer's thread. */
    void putOutput(Pair pair, float[] left, float[] right) {
        pair.put(written, left, right);
    }

    /** Publishes the block; ports without sound are silent in it. Mixer's thread. */
    void publish(int frames) {
        long end = written + frames;
        for (Pair pair : pairs) {
            if (pair.given < end) {
                pair.putSilence(written, frames);
            }
        }
        written = end;
    }

    /** Gives the ports the next block, or silence where too little waits. In the callback. */
    void play(Pair[] all, int frames) {
        boolean isThere = open && written - read >= frames;
        for (Pair pair : all) {
            copy(pair.leftAt, Calls.jack_port_get_buffer(pair.leftHandle, frames), frames, isThere);
            copy(pair.rightAt, Calls.jack_port_get_buffer(pair.rightHandle, frames), frames, isThere);
        }
        if (isThere) {
            read = read + frames;
        } else if (open && written > 0) {
            dropouts = dropouts + 1;
        }
    }

    private void copy(long ring, long buffer, int frames, boolean isThere) {
        if (!isThere) {
            Calls.Memory.memset(buffer, 0, (long) frames * BYTES);
            return;
        }
        int place = (int) (read & CAPACITY - 1);
        int first = Math.min(frames, CAPACITY - place);
        Calls.Memory.memcpy(buffer, ring + (long) place * BYTES, (long) first * BYTES);
        if (first < frames) {
            Calls.Memory.memcpy(buffer + (long) first * BYTES, ring, (long) (frames - first) * BYTES);
        }
    }
}
