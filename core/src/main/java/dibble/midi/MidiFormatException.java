package dibble.midi;

import java.io.IOException;

/** Bytes that are not a standard MIDI file. The message is one line: the problem, the byte, and the expected value. */
public final class MidiFormatException extends IOException {
    /** @param message the problem, the place, the given and the expected value, in one line */
    public MidiFormatException(String message) {
        super(message);
    }
}
