package dibble.gear;

/**
 * A line of a sequencer, by its channel.
 *
 * @param channel 1-16
 */
public record SequencerLane(String name, int channel) {
    public SequencerLane {
        Checked.range("channel", channel, 1, 16);
    }
}
