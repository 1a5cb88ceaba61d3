package dibble.midi;

/** The status bytes of system real-time messages, which have no data. */
public final class RealTime {
    /** One of 24 for each quarter note. */
    public static final int CLOCK = 0xF8;

    /** Start from the beginning. */
    public static final int START = 0xFA;

    /** Go on from where it was stopped. */
    public static final int CONTINUE = 0xFB;

    /** Stop. */
    public static final int STOP = 0xFC;

    /** The clocks in a quarter note. */
    public static final int CLOCKS_A_QUARTER = 24;

    private RealTime() {}

    /** Returns true if a status byte is one of these four; active sensing and reset carry no tempo. */
    public static boolean isTransport(int status) {
        return status == CLOCK || status == START || status == CONTINUE || status == STOP;
    }
}
