package dibble.jack;

import com.sun.jna.Memory;
import com.sun.jna.Pointer;

/** Memory outside the heap in which the callback hands messages over: made once, so that a block makes nothing. */
final class Scratch {
    /** The longest message that is passed on; longer system exclusive messages are left out. */
    static final int MAX_BYTES = 1 << 16;

    /** The offset of the frame in a {@code jack_midi_event_t}; its size and bytes follow. */
    private static final int FRAME = 0;

    private static final int SIZE = 8;
    private static final int BYTES = 16;

    private final Memory event = new Memory(24);
    private final Memory bytes = new Memory(MAX_BYTES);
    private final long eventAt = Pointer.nativeValue(event);
    private final long bytesAt = Pointer.nativeValue(bytes);

    /** The bytes of a long message, for {@link #copyLong} and {@link #writeLong}. */
    final byte[] message = new byte[MAX_BYTES];

    /** Takes a message from a buffer of a port; false where there is none of this number. */
    boolean read(long buffer, int number) {
        if (Calls.jack_midi_event_get(eventAt, buffer, number) != 0) {
            return false;
        }
        Calls.Memory.memcpy(bytesAt, event.getLong(BYTES), Math.min(size(), MAX_BYTES));
        return true;
    }

    /** The frame of the block on which the message that was read came. */
    int frame() {
        return event.getInt(FRAME);
    }

    int size() {
        return (int) event.getLong(SIZE);
    }

    int at(int i) {
        return bytes.getByte(i) & 0xFF;
    }

    /** Copies the message that was read to {@link #message}. */
    void copyLong() {
        bytes.read(0, message, 0, size());
    }

    /** Writes a packed message of one to three bytes; false where the buffer is full. */
    boolean write(long buffer, int frame, int packed, int length) {
        for (int i = 0; i < length; i++) {
            bytes.setByte(i, (byte) (packed >> 8 * i));
        }
        return Calls.jack_midi_event_write(buffer, frame, bytesAt, length) == 0;
    }

    /** Writes the beginning of {@link #message}; false where the buffer is full. */
    boolean writeLong(long buffer, int frame, int length) {
        bytes.write(0, message, 0, length);
        return Calls.jack_midi_event_write(buffer, frame, bytesAt, length) == 0;
    }
}
