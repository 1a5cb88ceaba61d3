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
    SCENE("scene", 0, false),

    /** A registered parameter, by its number of 14 bits, with a value of 14 bits. */
    RPN("rpn", ShortMessage.CONTROLLER, true),

    /** A parameter of the module's own, likewise. */
    NRPN("nrpn", ShortMessage.CONTROLLER, true),

    /** A controller 0 to 31 with the one 32 above it as its fine half. */
    CONTROLLER_14("controller14", ShortMessage.CONTROLLER, true);

    private static final int FOURTEEN_BITS = 16_383;

    private final String word;
    private final int status;
    private final boolean numbered;

    ControlKind(String word, int status, boolean numbered) {
        this.word = word;
        this.status = status;
        this.numbered = numbered;
    }

    /** Returns the word for this kind in a session file. */
    public String word() {
        return word;
    }

    /** The upper half of the status byte of its messages; 0 for {@link #SCENE}. */
    int status() {
        return status;
    }

    /** Returns true if it has a number: of a controller, of a parameter, or of a key. */
    public boolean isNumbered() {
        return numbered;
    }

    /** Returns true if a control map can answer to it. */
    public boolean isTrigger() {
        return this != SCENE;
    }

    /** Returns true for a registered or non-registered parameter: several controllers that form one value. */
    public boolean isParameter() {
        return this == RPN || this == NRPN;
    }

    /** Its greatest number. */
    public int mostNumber() {
        return isParameter() ? FOURTEEN_BITS : this == CONTROLLER_14 ? 31 : 127;
    }

    /** Returns the largest value: 127, or 16383 for 14 bits. */
    public int most() {
        return this == PITCH_BEND || this == CONTROLLER_14 || isParameter() ? FOURTEEN_BITS : 127;
    }

    /** Returns the kind for a word of a session file, if it is one. */
    public static Optional<ControlKind> ofWord(String word) {
        for (ControlKind kind : values()) {
            if (kind.word.equals(word)) {
                return Optional.of(kind);
            }
        }
        return Optional.empty();
    }
}
