package dibble.programs;

/**
 * A MIDI port of our own that other programs see.
 *
 * @param id the same for as long as what it is for is there, whatever that is called
 * @param name as other programs show it
 * @param in whether others play on it, rather than hear it
 * @param port the port of the session that it belongs to
 * @param channels for one that others hear, the channels that it bears: a bit each, the lowest for channel 1
 * @param alone whether it is one part's alone: then all that it bears is on channel 1, so that nobody has to know another
 */
public record NotesPort(String id, String name, boolean in, String port, int channels, boolean alone) {
    /** All channels. */
    static final int ALL = 0xFFFF;

    /** What becomes of a channel message on this port; 0 where another one bears it. */
    public int borne(int message) {
        if ((channels >> (message & 0xF) & 1) == 0) {
            return 0;
        }
        return alone ? message & ~0xF : message;
    }
}
