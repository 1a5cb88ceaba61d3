package dibble.programs;

/**
 * A MIDI port of Dibble that other applications see.
 *
 * @param id stable while its object exists, whatever the name of the object
 * @param name the name in other applications
 * @param in whether others send to it, rather than receive from it
 * @param port the port of the session that it belongs to
 * @param channels for an output its channels, a bit each, the lowest for channel 1
 * @param alone whether it is for a single part, and uses channel 1 only
 */
public record NotesPort(String id, String name, boolean in, String port, int channels, boolean alone) {
    /** All channels. */
    static final int ALL = 0xFFFF;

    /** Returns a channel message as sent on this port; 0 if another port carries it. */
    public int borne(int message) {
        if ((channels >> (message & 0xF) & 1) == 0) {
            return 0;
        }
        return alone ? message & ~0xF : message;
    }
}
