package dibble.routing;

import dibble.midi.ShortMessage;
import java.util.Arrays;

/**
 * Registered and non-registered parameters (MIDI 1.0): which one each player has chosen, and which one each destination has
 * been told last. So data of one player is never taken for another's parameter. Belongs to its router; arrays grow when a
 * table is installed, never on the way of an event.
 */
final class Parameters {
    static final int DATA = 6;
    static final int DATA_FINE = 38;

    private static final int INCREMENT = 96;
    private static final int DECREMENT = 97;
    private static final int NRPN_FINE = 98;
    private static final int NRPN = 99;
    private static final int RPN_FINE = 100;
    private static final int RPN = 101;

    /** Nothing was chosen. In what was, each half is one more than its number, so that 0 is one that was not said. */
    static final int NOTHING = 0;

    private static final int COARSE = 8;
    private static final int IS_NRPN = 1 << 16;
    private static final int HALF = 0xFF;

    /** By voice and channel. */
    private int[] chosen = {};

    /** By voice and channel: the coarse half of the value that was sent last, and one more. */
    private int[] coarse = {};

    /** By destination. */
    private int[] told = {};

    void openVoices(int count) {
        if (count * 16 > chosen.length) {
            chosen = Arrays.copyOf(chosen, count * 16);
            coarse = Arrays.copyOf(coarse, count * 16);
        }
    }

    void openPorts(int count) {
        if (count * 16 > told.length) {
            told = Arrays.copyOf(told, count * 16);
        }
    }

    /** Takes in what a voice sends to its destinations. */
    void sent(int voice, int channel, int message) {
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return;
        }
        int at = voice * 16 + channel;
        int next = after(chosen[at], message);
        if (next != chosen[at]) {
            chosen[at] = next;
            coarse[at] = 0;
        }
        if (ShortMessage.data1(message) == DATA) {
            coarse[at] = ShortMessage.data2(message) + 1;
        }
    }

    /** Takes in what a destination was told. */
    void told(int destination, int message) {
        if (ShortMessage.kind(message) == ShortMessage.CONTROLLER) {
            told[destination] = after(told[destination], message);
        }
    }

    /** What is chosen after a controller. */
    private static int after(int before, int message) {
        int half = ShortMessage.data2(message) + 1;
        return switch (ShortMessage.data1(message)) {
            case RPN -> (isNrpn(before) ? 0 : before & HALF) | half << COARSE;
            case RPN_FINE -> (isNrpn(before) ? 0 : before & HALF << COARSE) | half;
            case NRPN -> IS_NRPN | (isNrpn(before) ? before & HALF : 0) | half << COARSE;
            case NRPN_FINE -> IS_NRPN | (isNrpn(before) ? before & HALF << COARSE : 0) | half;
            default -> before;
        };
    }

    private static boolean isNrpn(int choice) {
        return (choice & IS_NRPN) != 0;
    }

    /** Whether a destination would take a voice's data for another parameter than the voice has chosen. */
    boolean isCut(int voice, int channel, int destination, int message) {
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER || !isData(ShortMessage.data1(message))) {
            return false;
        }
        int wanted = chosen[voice * 16 + channel];
        return isWhole(wanted) && told[destination] != wanted;
    }

    private static boolean isData(int controller) {
        return controller == DATA || controller == DATA_FINE || controller == INCREMENT || controller == DECREMENT;
    }

    private static boolean isWhole(int choice) {
        return (choice & HALF) != NOTHING && (choice >> COARSE & HALF) != NOTHING;
    }

    /** What is chosen by choosing a parameter of a number 0-16383. */
    static int choice(boolean nrpn, int number) {
        return (nrpn ? IS_NRPN : 0) | (number >>> 7) + 1 << COARSE | (number & 0x7F) + 1;
    }

    /** Whether a destination was told last that this is chosen. */
    boolean isTold(int destination, int choice) {
        return told[destination] == choice;
    }

    /** What a voice has chosen. */
    int chosen(int voice, int channel) {
        return chosen[voice * 16 + channel];
    }

    /** The message that chooses the coarse half of a choice, on channel 0. */
    static int choosesCoarse(int choice) {
        return ShortMessage.controller(0, isNrpn(choice) ? NRPN : RPN, (choice >> COARSE & HALF) - 1);
    }

    /** The message that chooses the fine half. */
    static int choosesFine(int choice) {
        return ShortMessage.controller(0, isNrpn(choice) ? NRPN_FINE : RPN_FINE, (choice & HALF) - 1);
    }

    /** The coarse half of a voice's value, which its fine half alone would lack; or -1 where none was sent. */
    int coarse(int voice, int channel) {
        return coarse[voice * 16 + channel] - 1;
    }

    /** Forgets what a port's channels were told. */
    void forgetPort(int port) {
        Arrays.fill(told, port * 16, port * 16 + 16, NOTHING);
    }
}
