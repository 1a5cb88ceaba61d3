package dibble.gear;

import dibble.midi.Range;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

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
 * @param noteNames names of its notes, by note
 * @param keyswitches names of the notes that choose how it plays, by note
 * @param output the output of the instrument that it sounds on, from 1
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
        Map<Integer, String> noteNames,
        Map<Integer, String> keyswitches,
        int output,
        int colour,
        Extras extras) {
    public Part {
        Ids.check(id);
        Checked.range("number.channel", channel, 1, 16);
        bank = new Sound(bank, program, volume, pan).bank();
        Checked.range("number.output", output, 1, 64);
        Checked.range("number.colour", colour, 0, 16);
        noteNames = notes("number.note", noteNames);
        keyswitches = notes("number.keyswitch", keyswitches);
    }

    private static Map<Integer, String> notes(String what, Map<Integer, String> names) {
        names.keySet().forEach(note -> Checked.range(what, note, 0, 127));
        return Collections.unmodifiableMap(new TreeMap<>(names));
    }

    /** A part with a program on a channel (null: chosen once and kept). */
    public static Part of(String id, String name, Integer channel, int program, Range keys, int colour) {
        return new Part(
                id, name, channel, null, program, 100, 64, keys, false, Map.of(), Map.of(), 1, colour, Extras.NONE);
    }

    /** What makes it sound as it does. */
    public Sound sound() {
        return new Sound(bank, program, volume, pan);
    }

    public Part withColour(int number) {
        return edit().colour(number).build();
    }

    /** The part on another channel 1-16, or with null on one that is chosen once and kept. */
    public Part withChannel(Integer number) {
        return edit().channel(number).build();
    }

    public Part withKeys(Range range) {
        return edit().keys(range).build();
    }

    public Part withKeyswitches(Map<Integer, String> names) {
        return edit().keyswitches(names).build();
    }

    public Part asDrums() {
        return edit().drums(true).build();
    }

    public PartBuilder edit() {
        return new PartBuilder(this);
    }
}
