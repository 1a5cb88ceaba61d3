package dibble.ports;

/** A port that events come from. */
public interface InputPort {
    /** Receives the events of a port. Called on the port's threads; must neither block nor allocate. */
    @FunctionalInterface
    interface Listener {
        /** @param message a packed channel message */
        void heard(int message);

        /**
         * The same from a port that knows when it was played.
         *
         * @param stamp on the system's clock, in nanoseconds; a block of sound ago at most
         */
        default void heard(int message, long stamp) {
            heard(message);
        }

        /**
         * Takes a whole system exclusive message.
         *
         * @param message from its 0xF0 to its 0xF7; not kept or changed by the caller
         */
        default void heardExclusive(byte[] message) {}

        /** Takes a clock, start, continue or stop: a status byte of {@link dibble.midi.RealTime}. */
        default void heardRealTime(int status) {}

        /** Called when the player is gone without notice: held notes are released. Any thread. */
        default void gone() {}

        /** The same from a port that knows when it came: as in {@link #heard(int, long)}. */
        default void heardRealTime(int status, long stamp) {
            heardRealTime(status);
        }

        /**
         * Takes a song position.
         *
         * @param sixteenths since the beginning of the song, 0-16383
         */
        default void heardSongPosition(int sixteenths) {}
    }

    /** The name by which a session knows it. */
    String name();

    /** Returns true if the port is open while it has a listener; another application may block it. */
    default boolean isOpen() {
        return true;
    }

    /** Sets the listener for all further events; null for none. */
    void listen(Listener listener);
}
