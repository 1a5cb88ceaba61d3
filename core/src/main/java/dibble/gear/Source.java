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
 * A source of events: a keyboard, pads, pedals or a sequencer.
 *
 * @param id unique among the sources
 * @param port the name of its port
 * @param keys its keys
 * @param listen the channels that pass
 * @param sends the channels that it sends on, if known
 * @param accept the kinds of messages that pass
 * @param transpose semitones added to the notes of its zones, -127 to 127
 * @param localControl whether it plays its own sounds directly
 * @param ownInstrument the id of its own instrument, or null
 * @param echoes whether its device returns received events
 * @param sysexTo the ids of the instruments that receive its system exclusive messages
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
