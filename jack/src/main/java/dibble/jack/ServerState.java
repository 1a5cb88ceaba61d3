package dibble.jack;

/**
 * How it is with the server of ports.
 *
 * @param rate of a server that is there, frames a second; else 0
 * @param block of a server that is there, frames; else 0
 * @param name what the server calls Dibble; empty where none is there
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

    /** Nobody has asked. */
    public static final ServerState NOT_ASKED = without(Kind.UNKNOWN);

    static ServerState without(Kind kind) {
        return new ServerState(kind, 0, 0, "");
    }

    /** Returns true if there is one, and we are among its programs. */
    public boolean isRunning() {
        return kind == Kind.RUNNING;
    }
}
