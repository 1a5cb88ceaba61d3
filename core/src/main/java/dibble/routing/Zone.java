package dibble.routing;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.PartRef;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * An assignment of keys of a source to a part. Keys are those that are played: transposing moves the sounding notes.
 *
 * @param source a source's id, or {@link #ANY_SOURCE}
 * @param velocity the velocities that pass, 1-127
 * @param keyswitch whether its keys select an articulation of the part
 * @param transpose semitones, -127 to 127, in addition to the source's
 * @param noteMap the notes (1 to 8) that sound instead of a key; final
 * @param dropUnmapped whether keys without a mapping are silent
 * @param fold whether notes outside 0-127 are moved inside by octaves, instead of dropped
 * @param velocityTo the velocities [c, d] that the window is mapped to, or null for no change; c over d inverts
 * @param pass the kinds of messages other than notes that pass
 * @param blockControllers controllers that do not pass
 */
@RecordBuilder
public record Zone(
        String id,
        String name,
        String source,
        ChannelSet channels,
        Range keys,
        Range velocity,
        boolean keyswitch,
        ZoneTarget to,
        int transpose,
        Map<Integer, List<Integer>> noteMap,
        boolean dropUnmapped,
        boolean fold,
        VelocityMap velocityTo,
        Set<EventKind> pass,
        Set<Integer> blockControllers,
        boolean enabled,
        UnknownFields extras)
        implements ZoneBuilder.With {
    /** All sources. */
    public static final String ANY_SOURCE = "*";

    /** The messages that pass by default: all but program changes. */
    public static final Set<EventKind> PASSED = Collections.unmodifiableSet(EnumSet.of(
            EventKind.CONTROLLERS, EventKind.PITCH_BEND, EventKind.CHANNEL_PRESSURE, EventKind.KEY_PRESSURE));

    /**
     * Velocities to which a window is mapped.
     *
     * @param first the output for the window's low end, 0-127
     * @param last the output for its high end, 0-127
     */
    public record VelocityMap(int first, int last) {
        public VelocityMap {
            if (first < 0 || first > 127 || last < 0 || last > 127) {
                throw new UserException(say("zone.velocityto-expected-0-to-127", first, last));
            }
        }
    }

    public Zone {
        Ids.check(id);
        if (transpose < -127 || transpose > 127) {
            throw new UserException(say("common.transpose-expected-127-to-127", transpose));
        }
        TreeMap<Integer, List<Integer>> notes = new TreeMap<>();
        noteMap.forEach((key, out) -> notes.put(check("number.key", key), checkNotes(out)));
        noteMap = Collections.unmodifiableMap(notes);
        pass = Set.copyOf(pass);
        blockControllers.forEach(number -> check("number.controller", number));
        blockControllers = Collections.unmodifiableSet(new TreeSet<>(blockControllers));
    }

    private static int check(String what, int value) {
        if (value < 0 || value > 127) {
            throw new UserException(say("zone.expected-0-to-127", say(what), value));
        }
        return value;
    }

    private static List<Integer> checkNotes(List<Integer> notes) {
        if (notes.isEmpty() || notes.size() > 8) {
            throw new UserException(say("zone.notes-on-a-key-expected", notes.size()));
        }
        notes.forEach(note -> check("number.note", note));
        return List.copyOf(notes);
    }

    /** A zone for all channels and velocities that leads keys to a part as they are. */
    public static Zone of(String id, String name, String source, Range keys, PartRef to) {
        return of(id, name, source, keys, new ZoneTarget.ToPart(to));
    }

    /** A zone for all channels and velocities that leads keys to a target as they are. */
    public static Zone of(String id, String name, String source, Range keys, ZoneTarget to) {
        return new Zone(
                id,
                name,
                source,
                ChannelSet.ALL,
                keys,
                Range.VELOCITIES,
                false,
                to,
                0,
                Map.of(),
                false,
                false,
                null,
                PASSED,
                Set.of(),
                true,
                UnknownFields.NONE);
    }

    /** Returns true if the zone takes events of this source. */
    public boolean isPlayedBy(String sourceId) {
        return source.equals(ANY_SOURCE) || source.equals(sourceId);
    }
}
