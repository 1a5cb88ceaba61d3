package dibble.midi;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;

/**
 * A set of MIDI channels.
 *
 * @param mask bit {@code c} for channel {@code c}, 0-15
 */
public record ChannelSet(int mask) {
    /** All sixteen channels. */
    public static final ChannelSet ALL = new ChannelSet(0xFFFF);

    public ChannelSet {
        if ((mask & ~0xFFFF) != 0) {
            throw new UserException(say("channel-set.channel-mask-expected-16-bits", mask));
        }
    }

    /** A set of channel numbers as people write them, 1-16. */
    public static ChannelSet of(int... numbers) {
        int mask = 0;
        for (int number : numbers) {
            if (number < 1 || number > 16) {
                throw new UserException(say("common.channel-expected-1-to-16", number));
            }
            mask |= 1 << number - 1;
        }
        return new ChannelSet(mask);
    }

    /** Returns true if channel 0-15 is in the set. */
    public boolean holds(int channel) {
        return (mask >>> channel & 1) != 0;
    }

    /** The channels that both have. */
    public ChannelSet and(ChannelSet other) {
        return new ChannelSet(mask & other.mask);
    }

    /** Returns true if it holds no channel. */
    public boolean isEmpty() {
        return mask == 0;
    }

    /** Returns true if it holds all sixteen. */
    public boolean isAll() {
        return mask == 0xFFFF;
    }

    /** The numbers 1-16, rising. */
    public List<Integer> numbers() {
        List<Integer> numbers = new ArrayList<>();
        for (int channel = 0; channel < 16; channel++) {
            if (holds(channel)) {
                numbers.add(channel + 1);
            }
        }
        return numbers;
    }
}
