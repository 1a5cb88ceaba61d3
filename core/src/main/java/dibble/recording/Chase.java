package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What holds at a place, so that one can begin there: the last program, bank, controllers, bend and pressure of each
 * channel, in the order in which they came. Notes do not hold over. Belongs to one thread.
 */
public final class Chase {
    private static final int RESET_CONTROLLERS = 121;
    private static final int FIRST_MODE = 120;

    private final Map<Integer, Integer> last = new LinkedHashMap<>();

    /** Takes the next message. */
    public void add(int message) {
        int kind = ShortMessage.kind(message);
        int number = ShortMessage.data1(message);
        if (ShortMessage.isNote(message) || kind == ShortMessage.KEY_PRESSURE) {
            return;
        }
        if (kind == ShortMessage.CONTROLLER && number >= FIRST_MODE) {
            if (number == RESET_CONTROLLERS) {
                reset(ShortMessage.channel(message));
            }
            return;
        }
        int what = kind << 16 | ShortMessage.channel(message) << 8 | (kind == ShortMessage.CONTROLLER ? number : 0);
        // Taken out first, so that the order is that of the last of each: numbers before the data that are for them.
        last.remove(what);
        last.put(what, message);
    }

    /** What a reset of all controllers puts to rest, as the standard recommends. */
    private void reset(int channel) {
        for (int number : new int[] {1, 11, 64, 65, 66, 67}) {
            last.remove(ShortMessage.CONTROLLER << 16 | channel << 8 | number);
        }
        last.remove(ShortMessage.PITCH_BEND << 16 | channel << 8);
        last.remove(ShortMessage.CHANNEL_PRESSURE << 16 | channel << 8);
    }

    /** What holds now. */
    public List<Integer> messages() {
        return new ArrayList<>(last.values());
    }

    /** What holds in a track before a tick. */
    public static Chase before(MidiTrack track, long tick) {
        Chase chase = new Chase();
        for (int i = 0; i < track.size() && track.tick(i) < tick; i++) {
            if (track.isChannelMessage(i)) {
                chase.add(track.message(i));
            }
        }
        return chase;
    }

    /** Whether a message leaves a pedal or wheel at its rest, where it need not be said of a place where nobody was. */
    public static boolean isAtRest(int message) {
        int first = ShortMessage.data1(message);
        int second = ShortMessage.data2(message);
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.CONTROLLER ->
                first == 1 && second == 0 || (first == 64 || first == 66 || first == 67) && second < 64;
            case ShortMessage.PITCH_BEND -> first == 0 && second == 64;
            case ShortMessage.CHANNEL_PRESSURE -> first == 0;
            default -> false;
        };
    }

    /** The message that puts a pedal or wheel to rest; the same message where it is none. */
    public static int atRest(int message) {
        int channel = ShortMessage.channel(message);
        int number = ShortMessage.data1(message);
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.CONTROLLER ->
                number == 1 || number == 64 || number == 66 || number == 67
                        ? ShortMessage.controller(channel, number, 0)
                        : message;
            case ShortMessage.PITCH_BEND -> ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, 64);
            case ShortMessage.CHANNEL_PRESSURE -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, 0, 0);
            default -> message;
        };
    }
}
