package dibble.midi;

/**
 * Selections of registered and non-registered parameters (MIDI 1.0, controllers 98 to 101), packed into numbers without
 * allocation. A half of a selection may not have been received yet.
 */
public final class Parameter {
    /** No selection. In other selections, each half is its number plus 1, and 0 if it was not received. */
    public static final int NOTHING = 0;

    /** The controller with the coarse half of a parameter's value. */
    public static final int DATA = 6;

    /** The controller with its fine half. */
    public static final int DATA_FINE = 38;

    private static final int INCREMENT = 96;
    private static final int DECREMENT = 97;
    private static final int NRPN_FINE = 98;

    /** The controller that selects the coarse half of a non-registered parameter; the one before it, the fine half. */
    public static final int NRPN = 99;

    private static final int RPN_FINE = 100;

    /** The controller that selects the coarse half of a registered parameter; the one before it, the fine half. */
    public static final int RPN = 101;

    private static final int COARSE = 8;
    private static final int IS_NRPN = 1 << 16;
    private static final int HALF = 0xFF;
    private static final int NO_NUMBER = 16_383;

    private Parameter() {}

    /** Returns the selection after a message; most messages leave it unchanged. */
    public static int after(int before, int message) {
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return before;
        }
        int half = ShortMessage.data2(message) + 1;
        return switch (ShortMessage.data1(message)) {
            case RPN -> (isNrpn(before) ? 0 : before & HALF) | half << COARSE;
            case RPN_FINE -> (isNrpn(before) ? 0 : before & HALF << COARSE) | half;
            case NRPN -> IS_NRPN | (isNrpn(before) ? before & HALF : 0) | half << COARSE;
            case NRPN_FINE -> IS_NRPN | (isNrpn(before) ? before & HALF << COARSE : 0) | half;
            default -> before;
        };
    }

    /** Returns the selection of a parameter by its number 0-16383. */
    public static int choice(boolean nrpn, int number) {
        return (nrpn ? IS_NRPN : 0) | (number >>> 7) + 1 << COARSE | (number & 0x7F) + 1;
    }

    /** Returns true if a choice is of a non-registered parameter (NRPN), not of a registered one (RPN). */
    public static boolean isNrpn(int choice) {
        return (choice & IS_NRPN) != 0;
    }

    /** Returns true if both halves of the number were said. */
    public static boolean isWhole(int choice) {
        return (choice & HALF) != 0 && (choice >> COARSE & HALF) != 0;
    }

    /**
     * Returns true if data is for a parameter: both halves were said, and they are not those of no parameter (127 and
     * 127).
     */
    public static boolean isSome(int choice) {
        return isWhole(choice) && number(choice) != NO_NUMBER;
    }

    /** The number 0-16383 of a choice that is whole. */
    public static int number(int choice) {
        return (choice >> COARSE & HALF) - 1 << 7 | (choice & HALF) - 1;
    }

    /** The message that chooses the coarse half of a choice, on channel 0. */
    public static int choosesCoarse(int choice) {
        return ShortMessage.controller(0, isNrpn(choice) ? NRPN : RPN, (choice >> COARSE & HALF) - 1);
    }

    /** The message that chooses the fine half. */
    public static int choosesFine(int choice) {
        return ShortMessage.controller(0, isNrpn(choice) ? NRPN_FINE : RPN_FINE, (choice & HALF) - 1);
    }

    /** Returns true if a message chooses half of a parameter. */
    public static boolean isChoice(int message) {
        int number = ShortMessage.data1(message);
        return ShortMessage.kind(message) == ShortMessage.CONTROLLER && number >= NRPN_FINE && number <= RPN;
    }

    /** Returns true if a message is data for the selected parameter: a half of its value, or an increment. */
    public static boolean isData(int message) {
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return false;
        }
        int number = ShortMessage.data1(message);
        return number == DATA || number == DATA_FINE || number == INCREMENT || number == DECREMENT;
    }
}
