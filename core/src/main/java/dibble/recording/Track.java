package dibble.recording;

import static dibble.text.CoreText.say;

import dibble.gear.Ids;
import dibble.gear.PartRef;
import dibble.gear.UnknownFields;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Optional;

/**
 * A track: its input and its content.
 *
 * @param input the input
 * @param to the part that plays the clip, if it is not the input; else null
 * @param regions the content with its origin
 */
@RecordBuilder
public record Track(String id, String name, Input input, PartRef to, Regions regions, UnknownFields extras)
        implements TrackBuilder.With {
    /** The input of a track. */
    public sealed interface Input {}

    /** Everything for a part. */
    public record OfPart(PartRef part) implements Input {}

    /** One note of a part, such as one drum of a kit: its own track has the part's without it. */
    public record OfKey(PartRef part, int key) implements Input {
        public OfKey {
            if (key < 0 || key > 127) {
                throw new UserException(say("track.key-expected-0-to-127", key));
            }
        }
    }

    /** Everything that a source causes. */
    public record OfSource(String source) implements Input {}

    /**
     * Everything that one channel of a source causes.
     *
     * @param channel 1-16
     */
    public record OfChannel(String source, int channel) implements Input {
        public OfChannel {
            if (channel < 1 || channel > 16) {
                throw new UserException(say("common.channel-expected-1-to-16", channel));
            }
        }
    }

    /** Everything that a zone sends. */
    public record OfZone(String zone) implements Input {}

    /** Everything that no other track takes. */
    public record Rest() implements Input {}

    /** It takes nothing: it was sorted out of another. */
    public record Nothing() implements Input {}

    /** A way of choosing events that this version keeps, but does not record by. */
    public record Unknown(UnknownFields fields) implements Input {}

    /** The clip of a track that has nothing on it. */
    public static final MidiTrack NOTHING = new MidiTrack.Builder().build();

    public Track {
        Ids.check(id);
    }

    /** An empty track. */
    public static Track of(String id, String name, Input input) {
        return new Track(id, name, input, null, Regions.NONE, UnknownFields.NONE);
    }

    /** An empty track for a part. */
    public static Track of(String id, String name, PartRef part) {
        return of(id, name, new OfPart(part));
    }

    /** The part whose notes this track takes, all or one of them; empty where it takes something else. */
    public Optional<PartRef> part() {
        if (input instanceof OfKey of) {
            return Optional.of(of.part());
        }
        return input instanceof OfPart of ? Optional.of(of.part()) : Optional.empty();
    }

    /** The part that its clip is played on, where it is for one part alone. */
    public Optional<PartRef> playsOn() {
        return to == null ? part() : Optional.of(to);
    }

    /** Returns true if it takes everything for a part, except notes with a separate track. */
    public boolean takesAllOf(PartRef part) {
        return input instanceof OfPart of && of.part().equals(part);
    }

    /** Returns true if it takes what no other track takes. */
    public boolean takesRest() {
        return input instanceof Rest;
    }

    /**
     * Returns true if its content can be for several instruments: the input is a source, a channel, a zone, or
     * everything else.
     */
    public boolean takesSeveral() {
        return playsOn().isEmpty() && !(input instanceof Unknown);
    }

    /** Returns true for a track that is played: for one part, or for those that its events name. */
    public boolean isPlayed() {
        return playsOn().isPresent() || takesSeveral();
    }

    /**
     * Returns the events that sound, in ticks of the session: its content without muted notes. Channels are those on which
     * they were recorded; where the track can take events for several destinations, each names its own, as
     * {@link EventDestination} says.
     */
    public MidiTrack sounding() {
        return regions.sounding();
    }

    /** Returns all events that it has, muted notes among them: what edits, files and questions of "is it empty" go by. */
    public MidiTrack content() {
        return regions.content();
    }

    /** Returns the number of sounding notes. */
    public int noteCount() {
        MidiTrack clip = sounding();
        int notes = 0;
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isChannelMessage(i) && ShortMessage.startsNote(clip.message(i))) {
                notes++;
            }
        }
        return notes;
    }
}
