package dibble.recording;

import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.routing.Destination;
import dibble.routing.Routing;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * The events of a track's clip for one destination. Held keys, pedals and selected parameters belong to a voice, so that
 * two destinations of one track never end or retune each other's notes.
 *
 * @param name unique among all voices of a session, and the same after an edit
 */
public record TrackVoice(Track track, String name, Events events) {
    /** A route that keeps the channel of each event. */
    public static final int OWN_CHANNEL = -1;

    private static final int[] NO_SOUND = {};

    /**
     * Some events of a clip.
     *
     * @param positions for each event its number in the whole clip; null where they are the whole clip
     */
    public record Events(MidiTrack clip, int[] positions) {
        /** Returns the number of an event in the whole clip. */
        public int position(int i) {
            return positions == null ? i : positions[i];
        }
    }

    /**
     * A resolved destination.
     *
     * @param channel 0-15, or {@link #OWN_CHANNEL}
     */
    public record Route(String port, String instrument, int channel) {
        /** Returns a message on the channel of the route. */
        public int onChannel(int message) {
            return channel == OWN_CHANNEL ? message : ShortMessage.onChannel(message, channel);
        }
    }

    /** Returns the voices of a track, in the order of their first events; a track that is never played has none. */
    public static List<TrackVoice> of(Track track) {
        return of(track, TrackVoice::split);
    }

    /**
     * Returns the voices of a track.
     *
     * @param split returns what {@link #split} returns, perhaps from a cache
     */
    public static List<TrackVoice> of(Track track, Function<MidiTrack, Map<String, Events>> split) {
        List<TrackVoice> voices = new ArrayList<>();
        if (track.isPlayed()) {
            split.apply(track.sounding())
                    .forEach((key, events) -> voices.add(
                            new TrackVoice(track, key.isEmpty() ? track.id() : track.id() + "/" + key, events)));
        }
        return voices;
    }

    /**
     * Splits a clip by destination and, where a part is the destination, by channel: a part has one channel now, but the
     * notes that were recorded on two must not end each other.
     */
    public static Map<String, Events> split(MidiTrack clip) {
        Map<String, Integer> firstChannels = new LinkedHashMap<>();
        Map<String, MidiTrack.Builder> builders = new LinkedHashMap<>();
        Map<String, BitSet> positions = new LinkedHashMap<>();
        for (int i = 0; i < clip.size(); i++) {
            String destination = clip.destination(i);
            String key = destination;
            boolean byChannel = destination.isEmpty() || destination.indexOf('/') >= 0;
            if (byChannel && clip.isChannelMessage(i)) {
                int channel = ShortMessage.channel(clip.message(i));
                int first = firstChannels.computeIfAbsent(destination, name -> channel);
                key = channel == first ? destination : destination + "#" + (channel + 1);
            }
            builders.computeIfAbsent(key, name -> new MidiTrack.Builder()).copy(clip, i);
            positions.computeIfAbsent(key, name -> new BitSet()).set(i);
        }
        if (builders.size() == 1) {
            return Map.of(builders.keySet().iterator().next(), new Events(clip, null));
        }
        Map<String, Events> split = new LinkedHashMap<>();
        builders.forEach((key, builder) -> split.put(
                key,
                new Events(
                        builder.build(clip.endTick()),
                        positions.get(key).stream().toArray())));
        return split;
    }

    /** Returns its events. */
    public MidiTrack clip() {
        return events.clip();
    }

    /** Returns the destination that all its events name, as a text. */
    public String destination() {
        return clip().destination(0);
    }

    /** Returns the part that it plays on; empty where the channels of its events decide. */
    public Optional<PartRef> part() {
        Optional<PartRef> ofTrack = track.playsOn();
        return ofTrack.isPresent()
                ? ofTrack
                : EventDestination.parse(destination()).asPart();
    }

    /** Returns the messages of its part's sound, on channel 0; none where it has no part. */
    public int[] sound(Routing routing) {
        return part().map(part -> routing.soundOf(part, 0)).orElse(NO_SOUND);
    }

    /** Returns the present route to its destination; empty where there is none, or it has no channel. */
    public Optional<Route> route(Routing routing) {
        Optional<PartRef> part = part();
        if (part.isPresent()) {
            Optional<Destination> to = routing.destination(part.get());
            return to.map(it -> new Route(it.port(), part.get().instrument(), it.channel() - 1));
        }
        return routing.instrument(destination())
                .map(instrument -> new Route(instrument.port(), instrument.id(), OWN_CHANNEL));
    }
}
