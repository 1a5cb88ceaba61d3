package dibble.routing;

import dibble.gear.Extras;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.text.UserException;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Makes a zone out of another one, field by field. Not thread-safe. */
public final class ZoneBuilder {
    private String id;
    private String name;
    private String source;
    private ChannelSet channels;
    private Range keys;
    private Range velocity;
    private boolean keyswitch;
    private Target to;
    private int transpose;
    private Map<Integer, List<Integer>> noteMap;
    private boolean dropUnmapped;
    private boolean fold;
    private Zone.VelocityMap velocityTo;
    private Set<EventKind> pass;
    private Set<Integer> blockControllers;
    private boolean enabled;
    private Extras extras;

    ZoneBuilder(Zone zone) {
        id = zone.id();
        name = zone.name();
        source = zone.source();
        channels = zone.channels();
        keys = zone.keys();
        velocity = zone.velocity();
        keyswitch = zone.keyswitch();
        to = zone.to();
        transpose = zone.transpose();
        noteMap = zone.noteMap();
        dropUnmapped = zone.dropUnmapped();
        fold = zone.fold();
        velocityTo = zone.velocityTo();
        pass = zone.pass();
        blockControllers = zone.blockControllers();
        enabled = zone.enabled();
        extras = zone.extras();
    }

    public ZoneBuilder id(String value) {
        id = value;
        return this;
    }

    public ZoneBuilder name(String value) {
        name = value;
        return this;
    }

    public ZoneBuilder source(String value) {
        source = value;
        return this;
    }

    public ZoneBuilder channels(ChannelSet value) {
        channels = value;
        return this;
    }

    public ZoneBuilder keys(Range value) {
        keys = value;
        return this;
    }

    public ZoneBuilder velocity(Range value) {
        velocity = value;
        return this;
    }

    public ZoneBuilder keyswitch(boolean value) {
        keyswitch = value;
        return this;
    }

    public ZoneBuilder to(Target value) {
        to = value;
        return this;
    }

    public ZoneBuilder transpose(int semitones) {
        transpose = semitones;
        return this;
    }

    public ZoneBuilder noteMap(Map<Integer, List<Integer>> value) {
        noteMap = value;
        return this;
    }

    public ZoneBuilder dropUnmapped(boolean value) {
        dropUnmapped = value;
        return this;
    }

    public ZoneBuilder fold(boolean value) {
        fold = value;
        return this;
    }

    public ZoneBuilder velocityTo(Zone.VelocityMap value) {
        velocityTo = value;
        return this;
    }

    public ZoneBuilder pass(Set<EventKind> value) {
        pass = value;
        return this;
    }

    public ZoneBuilder blockControllers(Set<Integer> value) {
        blockControllers = value;
        return this;
    }

    public ZoneBuilder enabled(boolean value) {
        enabled = value;
        return this;
    }

    public ZoneBuilder extras(Extras value) {
        extras = value;
        return this;
    }

    /** @throws UserException as the zone's own constructor says */
    public Zone build() {
        return new Zone(
                id,
                name,
                source,
                channels,
                keys,
                velocity,
                keyswitch,
                to,
                transpose,
                noteMap,
                dropUnmapped,
                fold,
                velocityTo,
                pass,
                blockControllers,
                enabled,
                extras);
    }
}
