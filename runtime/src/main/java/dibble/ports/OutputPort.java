package dibble.ports;

/** A port that messages are sent to. Only its {@link OutputQueue}'s sender calls it. */
public interface OutputPort extends AutoCloseable {
    /** The name by which a session knows it. */
    String name();

    /**
     * Sends a message; may block.
     *
     * @param message a packed channel message
     * @param stamp the time stamp, on the system's clock, of the event that caused it
     */
    void send(int message, long stamp);

    /**
     * Sends a whole system exclusive message; may block. Called on another thread than {@link #send}.
     *
     * @param message from its 0xF0 to its 0xF7
     */
    default void sendExclusive(byte[] message) {}

    /** Sends a clock, start, continue or stop: a status byte of {@link dibble.midi.RealTime}. Any thread. */
    default void sendRealTime(int status) {}

    /**
     * Sends a song position. Any thread.
     *
     * @param sixteenths since the beginning of the song, 0-16383
     */
    default void sendSongPosition(int sixteenths) {}

    /** Closes the port. */
    @Override
    default void close() {}
}
