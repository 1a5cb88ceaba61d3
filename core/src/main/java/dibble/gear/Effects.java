package dibble.gear;

/**
 * The room and the chorus of a built-in instrument, each 0-127; controllers 102 to 105 of any of its channels change
 * them.
 *
 * @param room the size of the room
 * @param damping the damping of high frequencies
 * @param rate the rate of the chorus
 * @param depth the depth of the chorus
 */
public record Effects(int room, int damping, int rate, int depth) {
    /** The controller of the first of them; the others follow. The standard leaves these numbers to instruments. */
    public static final int FIRST_CONTROLLER = 102;

    /** The default: a medium room and a slow chorus. */
    public static final Effects USUAL = new Effects(72, 48, 24, 40);

    public Effects {
        Ranges.range("number.room-size", room, 0, 127);
        Ranges.range("number.damping", damping, 0, 127);
        Ranges.range("number.chorus-rate", rate, 0, 127);
        Ranges.range("number.chorus-depth", depth, 0, 127);
    }

    /** With one of them changed, by its controller; the same for any other controller. */
    public Effects with(int controller, int value) {
        return switch (controller - FIRST_CONTROLLER) {
            case 0 -> new Effects(value, damping, rate, depth);
            case 1 -> new Effects(room, value, rate, depth);
            case 2 -> new Effects(room, damping, value, depth);
            case 3 -> new Effects(room, damping, rate, value);
            default -> this;
        };
    }

    /** One of them, by its controller; 0 for any other. */
    public int at(int controller) {
        return switch (controller - FIRST_CONTROLLER) {
            case 0 -> room;
            case 1 -> damping;
            case 2 -> rate;
            case 3 -> depth;
            default -> 0;
        };
    }

    /** Returns true if a controller moves one of them. */
    public static boolean isMovedBy(int controller) {
        return controller >= FIRST_CONTROLLER && controller < FIRST_CONTROLLER + 4;
    }
}
