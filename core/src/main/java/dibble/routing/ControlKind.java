package dibble.routing;

import dibble.midi.ShortMessage;
import java.util.Optional;

/** The kinds of messages that control maps are made of (MIDI 1.0, channel voice messages), and the call of a scene. */
public enum ControlKind {
    CONTROLLER("controller", ShortMessage.CONTROLLER, true),
    NOTE("note", ShortMessage.NOTE_ON, true),
    KEY_PRESSURE("keyPressure", ShortMessage.KEY_PRESSURE, true),
    PITCH_BEND("pitchBend", ShortMessage.PITCH_BEND, false),
    CHANNEL_PRESSURE("channelPressure", ShortMessage.CHANNEL_PRESSURE, false),
    PROGRAM_CHANGE("programChange", ShortMessage.PROGRAM_CHANGE, false),

    /** Only for sends: a value that comes to be over 0 calls a scene. */
    SCENE("scene", 0, false);

    private final String word;
    private final int status;
    private final boolean numbered;

    ControlKind(String word, int status, boolean numbered) {
        this.word = word;
        this.status = status;
        this.numbered = numbered;
    }

    /** The word that stands for it in a session file. */
    public String word() {
        return word;
    }

    /** The upper half of the status byte of its messages; 0 for {@link #SCENE}. */
    int status() {
        return status;
    }

    /** Whether it has a number: of a controller, or of a key. */
    public boolean isNumbered() {
        return numbered;
    }

    /** Its greatest value: 127, or 16383 for pitch bend. */
    public int most() {
        return this == PITCH_BEND ? 16383 : 127;
    }

    public static Optional<ControlKind> ofWord(String word) {
        for (ControlKind kind : values()) {
            if (kind.word.equals(word)) {
                return Optional.of(kind);
            }
        }
        return Optional.empty();
    }
}
