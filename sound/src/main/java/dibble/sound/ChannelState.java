package dibble.sound;

import dibble.midi.ShortMessage;
import java.util.Arrays;
import java.util.function.IntConsumer;

/**
 * The state of a channel, for a synthesizer that is created later: most channels never receive a note, and need none.
 * Volume, pan and sends belong to the strip and are not part of it.
 */
final class ChannelState {
    private static final int NONE = -1;
    private static final int BANK = 0;
    private static final int BANK_FINE = 32;

    /** From here on controllers are orders for the moment, not states. */
    private static final int FIRST_ORDER = 120;

    private final int[] controllers = new int[FIRST_ORDER];
    private int program = NONE;
    private int bend = NONE;
    private int pressure = NONE;

    ChannelState() {
        Arrays.fill(controllers, NONE);
    }

    void take(int message) {
        switch (ShortMessage.kind(message)) {
            case ShortMessage.CONTROLLER -> {
                if (ShortMessage.data1(message) < FIRST_ORDER) {
                    controllers[ShortMessage.data1(message)] = message;
                }
            }
            case ShortMessage.PROGRAM_CHANGE -> program = message;
            case ShortMessage.PITCH_BEND -> bend = message;
            case ShortMessage.CHANNEL_PRESSURE -> pressure = message;
            default -> {
                // Notes that end, and pressure of keys that are not down.
            }
        }
    }

    /** Says it again: the bank and the program first, since a program can put the others back. */
    void repeat(IntConsumer to) {
        for (int first : new int[] {controllers[BANK], controllers[BANK_FINE], program, bend, pressure}) {
            if (first != NONE) {
                to.accept(first);
            }
        }
        for (int number = 0; number < FIRST_ORDER; number++) {
            boolean told = number == BANK || number == BANK_FINE || ChannelStrip.takes(number);
            if (controllers[number] != NONE && !told) {
                to.accept(controllers[number]);
            }
        }
    }
}
