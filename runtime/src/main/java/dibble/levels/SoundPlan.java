package dibble.levels;

import dibble.gear.ChannelPlan;
import dibble.gear.Effects;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeSet;

/**
 * All strips of a session and the effects of its instruments. Immutable.
 *
 * @param strips in the order of instruments and parts, each part's before those of its keys
 * @param effects by the port of a built-in instrument
 */
public record SoundPlan(List<StripPlan> strips, Map<String, Effects> effects) {
    /** Nothing. */
    public static final SoundPlan NONE = new SoundPlan(List.of(), Map.of());

    public SoundPlan {
        strips = List.copyOf(strips);
        effects = Map.copyOf(effects);
    }

    /** The plan of a session, for parts that have a channel. */
    public static SoundPlan of(Session session, Performance performance) {
        ChannelPlan channels = session.channels(performance);
        List<StripPlan> strips = new ArrayList<>();
        Map<String, Effects> effects = new LinkedHashMap<>();
        for (Instrument instrument : session.instruments()) {
            if (instrument.builtIn()) {
                effects.put(instrument.port(), instrument.effects());
            }
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                OptionalInt channel = channels.channel(ref);
                if (channel.isPresent()) {
                    for (StripRef strip : strips(session, instrument, part)) {
                        strips.add(plan(instrument, part, strip, channel.getAsInt()));
                    }
                }
            }
        }
        return new SoundPlan(strips, effects);
    }

    private static StripPlan plan(Instrument instrument, Part part, StripRef ref, int channel) {
        // A module mixes its received messages itself, and so does its stand-in.
        Strip strip = instrument.builtIn() ? part.strip(ref.key()) : Strip.PLAIN;
        return new StripPlan(
                ref,
                instrument.port(),
                channel,
                part.stripName(ref.key()),
                instrument.builtIn(),
                part.drums(),
                instrument.builtIn() ? part.soundFile() : null,
                strip);
    }

    /** Returns the strips of a part: its own, and in a built-in instrument those of keys with tracks. */
    public static List<StripRef> strips(Session session, Instrument instrument, Part part) {
        PartRef ref = instrument.ref(part);
        List<StripRef> strips = new ArrayList<>(List.of(StripRef.of(ref)));
        if (instrument.builtIn()) {
            TreeSet<Integer> keys = new TreeSet<>();
            for (Track track : session.tracks()) {
                if (track.input() instanceof Track.OfKey of && of.part().equals(ref)) {
                    keys.add(of.key());
                }
            }
            keys.forEach(key -> strips.add(new StripRef(ref, key)));
        }
        return strips;
    }
}
