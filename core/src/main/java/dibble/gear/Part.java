package dibble.gear;

import dibble.midi.Range;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * One sound of an instrument.
 *
 * @param id unique in its instrument
 * @param channel 1-16, or null for a channel that is chosen once and then stays
 * @param bank controllers 0 and 32 as a list of two, or null
 * @param program 0-127, or null
 * @param soundFile the id of its sound file, or null for the built-in sounds
 * @param strip its level, pan, sends, output and group
 * @param keyStrips the strips of single keys, by key; they apply to keys that have a track
 * @param keys the keys that it responds to; used by checks, never to filter
 * @param drums whether each key is a separate sound
 * @param noteNames the names of its notes, by note
 * @param keyswitches the names of the keyswitches, by note
 * @param colour 1-16, permanent; 0 if none was assigned
 */
@RecordBuilder
public record Part(
        String id,
        String name,
        Integer channel,
        List<Integer> bank,
        Integer program,
        String soundFile,
        Strip strip,
        Map<Integer, Strip> keyStrips,
        Range keys,
        boolean drums,
        Map<Integer, String> noteNames,
        Map<Integer, String> keyswitches,
        int colour,
        UnknownFields extras)
        implements PartBuilder.With {
    public Part {
        Ids.check(id);
        Ranges.range("number.channel", channel, 1, 16);
        bank = new Sound(bank, program, null, null).bank();
        if (soundFile != null) {
            Ids.check(soundFile);
        }
        Ranges.range("number.colour", colour, 0, 16);
        noteNames = notes("number.note", noteNames);
        keyswitches = notes("number.keyswitch", keyswitches);
        keyStrips.keySet().forEach(key -> Ranges.range("number.key", key, 0, 127));
        keyStrips = Collections.unmodifiableMap(new LinkedHashMap<>(keyStrips));
    }

    private static Map<Integer, String> notes(String what, Map<Integer, String> names) {
        names.keySet().forEach(note -> Ranges.range(what, note, 0, 127));
        return Collections.unmodifiableMap(new TreeMap<>(names));
    }

    /** A part with a program on a channel (null: chosen once and kept). */
    public static Part of(String id, String name, Integer channel, int program, Range keys, int colour) {
        return new Part(
                id,
                name,
                channel,
                null,
                program,
                null,
                Strip.PLAIN.withVolume(Loudness.USUAL_VOLUME).withPan(Loudness.MIDDLE),
                Map.of(),
                keys,
                false,
                Map.of(),
                Map.of(),
                colour,
                UnknownFields.NONE);
    }

    /** Returns the settings of its sound. */
    public Sound sound() {
        return new Sound(bank, program, volume(), pan());
    }

    /** Controller 7, 0-127, or null where it is left as it is. */
    public Integer volume() {
        return strip.volume();
    }

    /** Controller 10, 0-127, or null where it is left as it is. */
    public Integer pan() {
        return strip.pan();
    }

    /** The output that it sounds on, from 1. */
    public int output() {
        return strip.output();
    }

    /** The strip of a key, or with {@link StripRef#ALL} its own; a key that has none yet begins with the part's. */
    public Strip strip(int key) {
        return keyStrips.getOrDefault(key, strip);
    }

    /** Returns the name of a strip: that of the part, or of its key. */
    public String stripName(int key) {
        return key == StripRef.ALL ? name : noteNames.getOrDefault(key, name + " " + key);
    }

    /** With another strip for a key, or with {@link StripRef#ALL} for itself. */
    public Part withStrip(int key, Strip other) {
        if (key == StripRef.ALL) {
            return with().strip(other).build();
        }
        Map<Integer, Strip> others = new LinkedHashMap<>(keyStrips);
        others.put(key, other);
        return with().keyStrips(others).build();
    }

    /** Returns the part as a drum part. */
    public Part asDrums() {
        return with().drums(true).build();
    }
}
