package dibble.midi;

import java.util.Arrays;

/**
 * The 14-bit values that several controllers form together (MIDI 1.0): registered and non-registered parameters, and
 * controllers 0 to 31 with their LSB 32 above. Keeps the state of several paths, such as the channels of a source.
 * Confined to one thread; allocates only in {@link #open}.
 */
public final class CombinedControllers {
    /** There is no such value. */
    public static final int NOTHING = -1;

    /** The distance from a controller to its LSB. */
    public static final int FINE = 32;

    /** By way: the parameter that is chosen, as {@link Parameter} has it. */
    private int[] choice = {};

    /** By way: the value of that parameter, or {@link #NOTHING}. */
    private int[] data = {};

    /** By way and controller 0-31: its coarse half and one more, or 0. */
    private byte[] coarse = {};

    /** Allocates paths 0 to {@code count - 1}; existing state stays. */
    public void open(int count) {
        int before = choice.length;
        if (count > before) {
            choice = Arrays.copyOf(choice, count);
            data = Arrays.copyOf(data, count);
            Arrays.fill(data, before, count, NOTHING);
            coarse = Arrays.copyOf(coarse, count * FINE);
        }
    }

    /** Takes in the next message of a way. */
    public void take(int way, int message) {
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return;
        }
        int number = ShortMessage.data1(message);
        int value = ShortMessage.data2(message);
        int next = Parameter.after(choice[way], message);
        if (next != choice[way]) {
            choice[way] = next;
            data[way] = NOTHING;
        }
        if (number == Parameter.DATA) {
            data[way] = value << 7;
        } else if (number == Parameter.DATA_FINE) {
            data[way] = (data[way] == NOTHING ? 0 : data[way] & ~0x7F) | value;
        }
        if (number < FINE) {
            coarse[way * FINE + number] = (byte) (value + 1);
        }
    }

    /** The parameter that is chosen on a way, as {@link Parameter} has it. */
    public int choice(int way) {
        return choice[way];
    }

    /** The value that a message, the last of its way, gives the parameter that is chosen; else {@link #NOTHING}. */
    public int parameter(int way, int message) {
        int number = ShortMessage.data1(message);
        boolean isValue = ShortMessage.kind(message) == ShortMessage.CONTROLLER
                && (number == Parameter.DATA || number == Parameter.DATA_FINE);
        return isValue && Parameter.isSome(choice[way]) ? data[way] : NOTHING;
    }

    /**
     * The value that a message, the last of its way, gives a controller with its fine half: a coarse half begins a new
     * value, whose fine half is 0 until it is said. {@link #NOTHING} for other messages, and for a fine half alone.
     */
    public int pair(int way, int message) {
        int number = ShortMessage.data1(message);
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER || number >= 2 * FINE) {
            return NOTHING;
        }
        if (number < FINE) {
            return ShortMessage.data2(message) << 7;
        }
        int half = coarse[way * FINE + number - FINE] & 0xFF;
        return half == 0 ? NOTHING : half - 1 << 7 | ShortMessage.data2(message);
    }

    /** A message, the last of its way, with the values that it says, or says the rest of. */
    public HeardMessage heard(int way, int message) {
        return new HeardMessage(message, choice[way], parameter(way, message), pair(way, message));
    }

    /** Forgets all. */
    public void reset() {
        Arrays.fill(choice, Parameter.NOTHING);
        Arrays.fill(data, NOTHING);
        Arrays.fill(coarse, (byte) 0);
    }
}
