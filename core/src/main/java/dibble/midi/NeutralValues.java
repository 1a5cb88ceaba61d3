package dibble.midi;

/**
 * The messages with a lasting effect that must be reset: wheels and pedals away from their neutral value. Pedals are
 * controllers 64 to 69 (sustain, portamento, sostenuto, soft, legato, hold 2), down from 64 up; wheels are pitch bend,
 * modulation (controller 1) and channel pressure (MIDI 1.0).
 */
public final class NeutralValues {
    /** The first and the last controller that is a pedal. */
    public static final int FIRST_PEDAL = 64;

    /** The last controller that is a pedal. */
    public static final int LAST_PEDAL = 69;

    private static final int MODULATION = 1;
    private static final int CENTRE_MSB = 64;
    private static final int DOWN = 64;

    private NeutralValues() {}

    /** Returns true if a controller's number is that of a pedal. */
    public static boolean isPedal(int controller) {
        return controller >= FIRST_PEDAL && controller <= LAST_PEDAL;
    }

    /** Returns true if a message moves a pedal or a wheel. */
    public static boolean moves(int message) {
        int kind = ShortMessage.kind(message);
        return kind == ShortMessage.PITCH_BEND
                || kind == ShortMessage.CHANNEL_PRESSURE
                || kind == ShortMessage.CONTROLLER
                        && (ShortMessage.data1(message) == MODULATION || isPedal(ShortMessage.data1(message)));
    }

    /** Returns true if a message moves a pedal or a wheel to its neutral value. */
    public static boolean isAtRest(int message) {
        int first = ShortMessage.data1(message);
        int second = ShortMessage.data2(message);
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.PITCH_BEND -> first == 0 && second == CENTRE_MSB;
            case ShortMessage.CHANNEL_PRESSURE -> first == 0;
            case ShortMessage.CONTROLLER -> first == MODULATION ? second == 0 : isPedal(first) && second < DOWN;
            default -> false;
        };
    }

    /**
     * Returns the value of a controller, pedal or wheel before anything is played, by General MIDI 2: volume 100, pan
     * centered, expression full, sound controllers 70 to 79 centered, the others neutral.
     *
     * @return the message, or 0 if the standard gives none
     */
    public static int atFirst(int message) {
        if (moves(message)) {
            return of(message);
        }
        int value = ShortMessage.kind(message) != ShortMessage.CONTROLLER
                ? -1
                : switch (ShortMessage.data1(message)) {
                    case 7 -> 100;
                    case 8, 10, 70, 71, 72, 73, 74, 75, 76, 77, 78, 79 -> 64;
                    case 11 -> 127;
                    default -> -1;
                };
        return value < 0
                ? 0
                : ShortMessage.controller(ShortMessage.channel(message), ShortMessage.data1(message), value);
    }

    /** The message that puts the pedal or wheel of a message to rest; the same message where it moves none. */
    public static int of(int message) {
        int channel = ShortMessage.channel(message);
        if (!moves(message)) {
            return message;
        }
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.PITCH_BEND -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, CENTRE_MSB);
            case ShortMessage.CHANNEL_PRESSURE -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, 0, 0);
            default -> ShortMessage.controller(channel, ShortMessage.data1(message), 0);
        };
    }
}
