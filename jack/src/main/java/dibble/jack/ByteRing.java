package dibble.jack;

/** Whole messages on their way from one thread to another, in their order, with no lock and no allocation. */
final class ByteRing {
    private static final int LENGTH = 3;

    private final byte[] bytes;
    private volatile long written;
    private volatile long read;

    /** @param capacity a power of two */
    ByteRing(int capacity) {
        bytes = new byte[capacity];
    }

    /** Puts a message in; false where there is no room. One thread. */
    boolean offer(byte[] message, int length) {
        long at = written;
        if (bytes.length - (at - read) < length + LENGTH) {
            return false;
        }
        for (int i = 0; i < LENGTH; i++) {
            put(at++, (byte) (length >> 8 * i));
        }
        for (int i = 0; i < length; i++) {
            put(at++, message[i]);
        }
        written = at;
        return true;
    }

    /** The length of the next message, or -1 for none. The other thread. */
    int next() {
        if (read == written) {
            return -1;
        }
        int length = 0;
        for (int i = 0; i < LENGTH; i++) {
            length |= (get(read + i) & 0xFF) << 8 * i;
        }
        return length;
    }

    /** Takes the next message, of {@link #next} bytes. The other thread. */
    void take(byte[] to) {
        int length = next();
        for (int i = 0; i < length; i++) {
            to[i] = get(read + LENGTH + i);
        }
        read = read + LENGTH + length;
    }

    private void put(long at, byte value) {
        bytes[(int) (at & bytes.length - 1)] = value;
    }

    private byte get(long at) {
        return bytes[(int) (at & bytes.length - 1)];
    }
}
