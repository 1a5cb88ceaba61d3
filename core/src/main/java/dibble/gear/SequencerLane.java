package dibble.gear;

/**
 * A line of a sequencer, by its channel.
 *
 * @param channel 1-16
 */
public record SequencerLane(String name, int channel, Extras extras) {
    public SequencerLane {
        Checked.range("number.channel", channel, 1, 16);
    }

    /** @param channel 1-16 */
    public SequencerLane(String name, int channel) {
        this(name, channel, Extras.NONE);
    }

    public SequencerLane withChannel(int number) {
        return new SequencerLane(name, number, extras);
    }
}
