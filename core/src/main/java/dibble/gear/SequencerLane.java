package dibble.gear;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * A line of a sequencer, by its channel.
 *
 * @param channel 1-16
 */
@RecordBuilder
public record SequencerLane(String name, int channel, UnknownFields extras) implements SequencerLaneBuilder.With {
    public SequencerLane {
        Ranges.range("number.channel", channel, 1, 16);
    }

    /** @param channel 1-16 */
    public SequencerLane(String name, int channel) {
        this(name, channel, UnknownFields.NONE);
    }
}
