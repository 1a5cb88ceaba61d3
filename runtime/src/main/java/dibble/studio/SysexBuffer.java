package dibble.studio;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;

/** System exclusive messages on their way to the recorder: they are too long for its ring, which has their numbers. */
final class SysexBuffer {
    private static final int NUMBERS = 0xFFFFFF;

    private final Map<Integer, byte[]> waiting = new ConcurrentHashMap<>();
    private final AtomicInteger next = new AtomicInteger();

    /** Keeps a message; its number, in 24 bits. Any thread. */
    int put(byte[] message) {
        int number = next.getAndIncrement() & NUMBERS;
        waiting.put(number, message.clone());
        return number;
    }

    /** The message of a number, which is forgotten then. */
    byte[] take(int number) {
        return waiting.remove(number);
    }
}
