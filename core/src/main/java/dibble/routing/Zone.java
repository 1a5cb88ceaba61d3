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
 * Which keys of a source play which part. Keys are said as they are played: transposing moves what sounds.
 *
 * @param source a source's id, or {@link #ANY_SOURCE}
 * @param velocity the velocities that it takes, 1-127
 * @param keyswitch whether its keys choose how the part plays, rather than play it
 * @param transpose semitones, -127 to 127, on top of the source's
 * @param noteMap for a key, the notes (1 to 8) that it sounds instead; they are final
 * @param dropUnmapped whether keys that the map does not name stay silent
 * @param fold whether notes outside 0-127 are moved inside by octaves, rather than dropped
 * @param velocityTo the velocities [c, d] that the window is mapped to, or null for no change; c over d inverts
 * @param pass the kinds of messages besides notes that it passes
 * @param blockControllers controllers that it does not pass
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
    /** Stands for all sources. */
    public static final String ANY_SOURCE = "*";

    /** What a zone passes unless it says otherwise: all but program changes. */
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
