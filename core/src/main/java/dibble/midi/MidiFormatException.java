package dibble.midi;

import java.io.IOException;

/** Bytes that are no standard MIDI file. The message is one line: what, at which byte, and what was expected. */
public final class MidiFormatException extends IOException {
    public MidiFormatException(String message) {
        super(message);
    }
}
