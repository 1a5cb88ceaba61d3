package dibble.recording;

import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import java.util.Arrays;

/**
 * Assigns messages without a key to lanes as they arrive: one lane for each controller, bend, pressure and program of a
 * channel, and one for each registered or non-registered parameter, since data entry (controllers 6, 38, 96 and 97)
 * applies to the parameter that was selected last (MIDI 1.0, controllers 98 to 101). Confined to one thread.
 */
final class ControllerLanes {
    /** No lane: the message has a key, or changes a mode. */
    static final int NONE = -1;

    private static final int FIRST_MODE = 120;

    /** A bit of lanes of parameters; below it a bit for registered ones, and 14 bits of their number. */
    private static final int PARAMETER = 1 << 30;

    private static final int REGISTERED = 1 << 14;
    private static final int UNKNOWN = 0x7F;

    /** By channel: the parameter that is selected, with {@link #REGISTERED}; -1 where nothing was. */
    private final int[] selected = new int[16];

    ControllerLanes() {
        Arrays.fill(selected, NONE);
    }

    ControllerLanes(ControllerLanes other) {
        System.arraycopy(other.selected, 0, selected, 0, selected.length);
    }

    /** The lane of the next message; selecting a parameter is in no lane, but what follows is in the parameter's. */
    int lane(int message) {
        int kind = ShortMessage.kind(message);
        int channel = ShortMessage.channel(message);
        int number = ShortMessage.data1(message);
        if (ShortMessage.isNote(message)
                || kind == ShortMessage.KEY_PRESSURE
                || kind == ShortMessage.CONTROLLER && number >= FIRST_MODE) {
            return NONE;
        }
        if (Parameter.isChoice(message)) {
            select(channel, number, ShortMessage.data2(message));
            return NONE;
        }
        if (Parameter.isData(message) && selected[channel] != NONE) {
            return PARAMETER | channel << 16 | selected[channel];
        }
        return kind << 16 | channel << 8 | (kind == ShortMessage.CONTROLLER ? number : 0);
    }

    private void select(int channel, int number, int value) {
        boolean registered = number > Parameter.NRPN;
        boolean msb = (number & 1) != 0;
        int before = selected[channel];
        boolean same = before != NONE && (before & REGISTERED) != 0 == registered;
        int high = same ? before >>> 7 & 0x7F : UNKNOWN;
        int low = same ? before & 0x7F : UNKNOWN;
        selected[channel] = (registered ? REGISTERED : 0) | (msb ? value : high) << 7 | (msb ? low : value);
    }

    static boolean isParameter(int lane) {
        return lane >= 0 && (lane & PARAMETER) != 0;
    }

    static int channel(int parameterLane) {
        return parameterLane >>> 16 & 0xF;
    }

    /** Returns the selected parameter of a channel: a part of a lane, or {@link #NONE}. */
    int selected(int channel) {
        return selected[channel];
    }

    /** Selects nothing, as a reset of all controllers does (RP-015): what follows is for no parameter. */
    void deselect(int channel) {
        selected[channel] = REGISTERED | 0x3FFF;
    }

    /** Returns the two messages that select the parameter of a lane, or of {@link #selected}. */
    static int[] selecting(int channel, int parameter) {
        int msb = (parameter & REGISTERED) != 0 ? Parameter.RPN : Parameter.NRPN;
        return new int[] {
            ShortMessage.controller(channel, msb, parameter >>> 7 & 0x7F),
            ShortMessage.controller(channel, msb - 1, parameter & 0x7F)
        };
    }

    /**
     * The coarse value that a parameter has before anything is played: a bend range of two semitones, tunings at their
     * middle (General MIDI 2); {@link #NONE} where nothing says so.
     */
    static int valueAtFirst(int lane) {
        return switch (parameter(lane)) {
            case REGISTERED -> 2;
            case REGISTERED | 1, REGISTERED | 2 -> 64;
            default -> NONE;
        };
    }

    /** The lane of a registered parameter 0-16383, whatever its channel. */
    static int registered(int number) {
        return REGISTERED | number;
    }

    static int parameter(int lane) {
        return lane & (REGISTERED | 0x3FFF);
    }
}
