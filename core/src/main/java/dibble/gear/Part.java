package dibble.gear;

import dibble.midi.Range;
import java.util.List;

/**
 * One sound of an instrument.
 *
 * @param id unique in its instrument
 * @param channel 1-16, or null for a channel that is chosen once and kept
 * @param bank controllers 0 and 32 as a list of two, or null
 * @param program 0-127, or null
 * @param volume controller 7, 0-127, or null
 * @param pan controller 10, 0-127, or null
 * @param keys the keys that it answers to; they serve the checks and never filter
 * @param drums whether each key is a sound of its own
 * @param colour 1-16, its own for good; 0 where none was given yet
 */
public record Part(
        String id,
        String name,
        Integer channel,
        List<Integer> bank,
        Integer program,
        Integer volume,
        Integer pan,
        Range keys,
        boolean drums,
        int colour,
        Extras extras) {
    public Part {
        Ids.check(id);
        check("channel", channel, 1, 16);
        check("program", program, 0, 127);
        check("volume", volume, 0, 127);
        check("pan", pan, 0, 127);
        check("colour", colour, 0, 16);
        if (bank != null) {
            bank = List.copyOf(bank);
            if (bank.size() != 2) {
                throw new IllegalArgumentException("bank of " + bank.size() + " numbers (expected 2)");
            }
            bank.forEach(number -> check("bank", number, 0, 127));
        }
    }

    /** A part with a program on a channel (null: chosen once and kept). */
    public static Part of(String id, String name, Integer channel, int program, Range keys, int colour) {
        return new Part(id, name, channel, null, program, 100, 64, keys, false, colour, Extras.NONE);
    }

    public Part withColour(int number) {
        return new Part(id, name, channel, bank, program, volume, pan, keys, drums, number, extras);
    }

    public Part asDrums() {
        return new Part(id, name, channel, bank, program, volume, pan, keys, true, colour, extras);
    }

    private static void check(String what, Integer value, int low, int high) {
        if (value != null && (value < low || value > high)) {
            throw new IllegalArgumentException(what + " " + value + " (expected " + low + " to " + high + ")");
        }
    }
}
