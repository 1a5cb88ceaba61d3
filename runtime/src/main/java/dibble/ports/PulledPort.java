package dibble.ports;

/**
 * A port that fetches its messages by itself, in a time of its own, such as a block of sound: its {@link OutputQueue} has no
 * sender, and {@link #send} is not called.
 */
public interface PulledPort extends OutputPort {
    /** Is given where its messages wait, once, before the first of them; it alone takes from there. */
    void pullFrom(EventRing waiting);

    /** Returns true if somebody fetches them: else what waits is not waited for. */
    boolean isPulling();

    @Override
    default void send(int message, long stamp) {
        throw new UnsupportedOperationException(name());
    }
}
