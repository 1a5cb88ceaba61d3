package dibble.midi;

import java.io.IOException;

/** Bytes that are no standard MIDI file. The message is one line: what, at which byte, and what was expected. */
public final class MidiFormatException extends IOException {
    /** @param message what is wrong, where, what was given and what was expected, in one line */
    public MidiFormatException(String message) {
        super(message);
    }
}
