package dibble.studio;

/**
 * The 64 bits that travel through the engine's rings beside a time stamp.
 *
 * <pre>
 * bits 63..52  instrument, or 0
 * bits 51..44  port, or 0
 * bits 43..32  source or voice
 * bits 31..24  what it is
 * bits 23..0   the message
 * </pre>
 */
public final class Packed {
    /** A message that a source played. */
    public static final int PLAYED = 0;

    /** A message of a track that is played back. */
    public static final int PLAYED_BACK = 1;

    /** A message that left for a port. */
    public static final int SENT = 2;

    /** A message that the way to its port refused, or whose port is not there. */
    public static final int NOT_SENT = 3;

    /** In the recorder's ring: a request waits, to be carried out at this point; its voice is the scene's slot, plus 1. */
    static final int REQUEST = 4;

    /** A message that came back from a looping device: nothing was made of it unless it only ends. */
    public static final int ECHO = 5;

    /** In the recorder's ring: a system exclusive message of a source; its number in {@link SysexBuffer} is the message. */
    static final int EXCLUSIVE = 6;

    private Packed() {}

    /**
     * Packs an event.
     *
     * @param what one of the kinds above
     * @param voice the slot of a source, for played events
     * @param port the slot of a port, for sent events
     * @param instrument the slot of an instrument, for sent events
     * @param message a packed channel message
     */
    public static long of(int what, int voice, int port, int instrument, int message) {
        return (long) instrument << 52 | (long) port << 44 | (long) voice << 32 | (long) what << 24 | message;
    }

    /** Returns the kind: one of the constants of this class. */
    public static int what(long packed) {
        return (int) (packed >>> 24) & 0xFF;
    }

    /** The slot of the source. */
    public static int voice(long packed) {
        return (int) (packed >>> 32) & 0xFFF;
    }

    /** The slot of the port. */
    public static int port(long packed) {
        return (int) (packed >>> 44) & 0xFF;
    }

    /** The slot of the instrument. */
    public static int instrument(long packed) {
        return (int) (packed >>> 52) & 0xFFF;
    }

    /** The packed channel message. */
    public static int message(long packed) {
        return (int) packed & 0xFFFFFF;
    }
}
