package dibble.midi;

/** Status bytes other than those of channel messages; {@link RealTime} has those of the clock. */
public final class Status {
    /** Begins a system exclusive message. */
    public static final int EXCLUSIVE = 0xF0;

    /** A song position pointer. */
    public static final int SONG_POSITION = 0xF2;

    /** Ends a system exclusive message; in a file, also begins a further piece of one. */
    public static final int EXCLUSIVE_END = 0xF7;

    private Status() {}

    /** Returns true if data ends a system exclusive message. */
    public static boolean endsExclusive(byte[] data) {
        return data.length > 0 && data[data.length - 1] == (byte) EXCLUSIVE_END;
    }
}
