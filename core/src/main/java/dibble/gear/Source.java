package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.text.UserException;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Whatever plays: a keyboard, pads, pedals, a sequencer.
 *
 * @param id unique among the sources
 * @param port the name of the port it plays on
 * @param keys the keys that it has
 * @param listen the channels that are let in
 * @param sends the channels that it sends on, where that is known
 * @param accept the kinds of messages that are let in
 * @param transpose semitones added to what its zones sound, -127 to 127
 * @param localControl whether it sounds its own instrument by itself
 * @param ownInstrument the id of the instrument that it sounds itself, or null
 * @param echoes whether its device sends back what it gets
 * @param sysexTo the ids of the instruments that get its system exclusive messages
 * @param lanes the lines of a sequencer
 */
@RecordBuilder
public record Source(
        String id,
        String name,
        SourceKind kind,
        String port,
        Range keys,
        ChannelSet listen,
        Optional<ChannelSet> sends,
        Set<EventKind> accept,
        int transpose,
        boolean localControl,
        String ownInstrument,
        boolean echoes,
        List<String> sysexTo,
        List<SequencerLane> lanes,
        UnknownFields extras)
        implements SourceBuilder.With {
    public Source {
        Ids.check(id);
        if (transpose < -127 || transpose > 127) {
            throw new UserException(say("common.transpose-expected-127-to-127", transpose));
        }
        accept = Set.copyOf(accept);
        sysexTo = List.copyOf(sysexTo);
        lanes = List.copyOf(lanes);
    }

    /** A keyboard that is let in on all channels. */
    public static Source keyboard(String id, String name, String port, Range keys) {
        return new Source(
                id,
                name,
                SourceKind.KEYBOARD,
                port,
                keys,
                ChannelSet.ALL,
                Optional.empty(),
                EnumSet.allOf(EventKind.class),
                0,
                false,
                null,
                false,
                List.of(),
                List.of(),
                UnknownFields.NONE);
    }

    public Source withSends(ChannelSet channels) {
        return with().sends(Optional.of(channels)).build();
    }

    public Source withOwnSounds(boolean local, String instrument) {
        return with().localControl(local).ownInstrument(instrument).build();
    }

    /** The channel, 0-15, on which a stand-in of this source plays: the first it sends on, else the first let in. */
    public int playsOn() {
        int mask = sends.orElse(listen).mask() & listen.mask();
        return mask == 0 ? 0 : Integer.numberOfTrailingZeros(mask);
    }
}
