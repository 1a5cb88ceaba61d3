package dibble.ports;

/**
 * A port that fetches its messages at its own times, such as once in a block of sound. Its {@link OutputQueue} has no
 * sender, and {@link #send} is not called.
 */
public interface PulledPort extends OutputPort {
    /** Is given where its messages wait, once, before the first of them; it alone takes from there. */
    void pullFrom(EventRing waiting);

    /** Returns true if messages are being fetched; otherwise the caller does not wait for queued messages. */
    boolean isPulling();

    @Override
    default void send(int message, long stamp) {
        throw new UnsupportedOperationException(name());
    }
}
