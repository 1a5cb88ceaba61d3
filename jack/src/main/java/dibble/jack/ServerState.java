package dibble.jack;

/**
 * The state of the JACK server.
 *
 * @param rate frames a second; 0 without a server
 * @param block frames of a block; 0 without a server
 * @param name Dibble's name on the server; empty without a server
 */
public record ServerState(Kind kind, int rate, int block, String name) {
    /** True if there is one, and if not, why. */
    public enum Kind {
        /** It has not been looked for yet. */
        UNKNOWN,
        /** The library that comes with a server is not installed. */
        NO_LIBRARY,
        /** None runs. */
        NO_SERVER,
        /** One runs, for another user of this machine. */
        OTHERS,
        /** It is there. */
        RUNNING
    }

    /** The state before the first look. */
    public static final ServerState NOT_ASKED = without(Kind.UNKNOWN);

    static ServerState without(Kind kind) {
        return new ServerState(kind, 0, 0, "");
    }

    /** Returns true if there is one, and we are among its programs. */
    public boolean isRunning() {
        return kind == Kind.RUNNING;
    }
}
