package dibble.midi;

import java.util.Optional;
import java.util.Set;

/** The kinds of channel messages that a source accepts and a zone passes. Bank select belongs to program changes. */
public enum EventKind {
    NOTES("notes"),
    CONTROLLERS("controllers"),
    PITCH_BEND("pitchBend"),
    CHANNEL_PRESSURE("channelPressure"),
    KEY_PRESSURE("keyPressure"),
    PROGRAM_CHANGE("programChange");

    private static final EventKind[] BY_STATUS = {
        NOTES, NOTES, KEY_PRESSURE, CONTROLLERS, PROGRAM_CHANGE, CHANNEL_PRESSURE, PITCH_BEND
    };

    private final String word;

    EventKind(String word) {
        this.word = word;
    }

    /** Returns the word for this kind in a session file. */
    public String word() {
        return word;
    }

    /** Its bit in a set of kinds; each has another. */
    public int bit() {
        return 1 << ordinal();
    }

    /** The kind of a channel message; controllers 0 and 32 (bank select) go with program changes. */
    public static EventKind of(int message) {
        EventKind kind = BY_STATUS[(message >>> 4 & 0xF) - 8];
        if (kind == CONTROLLERS) {
            int number = ShortMessage.data1(message);
            return number == 0 || number == 32 ? PROGRAM_CHANGE : CONTROLLERS;
        }
        return kind;
    }

    /** Returns the kind for a word of a session file, if it is one. */
    public static Optional<EventKind> ofWord(String word) {
        for (EventKind kind : values()) {
            if (kind.word.equals(word)) {
                return Optional.of(kind);
            }
        }
        return Optional.empty();
    }

    /** The kinds as a bit mask. */
    public static int mask(Set<EventKind> kinds) {
        int mask = 0;
        for (EventKind kind : kinds) {
            mask |= kind.bit();
        }
        return mask;
    }
}
