package dibble.programs;

import static dibble.text.CoreText.say;

/**
 * A pair of sound ports of our own: what sounds on an output, or one strip alone.
 *
 * @param id the same for as long as what it is for is there; its two ports add {@link #LEFT} and {@link #RIGHT}
 * @param name as other programs show it, before the side
 * @param output the number of the output, from 1; 0 for a strip
 * @param port the port of a strip's instrument; null for an output
 * @param channel a strip's channel, 1-16; 0 for an output
 * @param key a strip's key, 0-127, or {@link dibble.gear.StripRef#ALL}
 */
public record SoundPair(String id, String name, int output, String port, int channel, int key) {
    /** What the id of the left port ends in. */
    public static final String LEFT = "/left";

    /** What the id of the right port ends in. */
    public static final String RIGHT = "/right";

    /** What other programs show for the left port. */
    public String leftName() {
        return say("own-ports.left", name);
    }

    /** What other programs show for the right port. */
    public String rightName() {
        return say("own-ports.right", name);
    }
}
