package dibble.programs;

import static dibble.text.CoreText.say;

/**
 * A pair of sound ports of Dibble: an output, or one strip.
 *
 * @param id stable while its object exists; the two ports add {@link #LEFT} and {@link #RIGHT}
 * @param name the name in other applications, before the side
 * @param output the number of the output, from 1; 0 for a strip
 * @param port the port of a strip's instrument; null for an output
 * @param channel a strip's channel, 1-16; 0 for an output
 * @param key a strip's key, 0-127, or {@link dibble.gear.StripRef#ALL}
 */
public record SoundPair(String id, String name, int output, String port, int channel, int key) {
    /** The end of the left port's id. */
    public static final String LEFT = "/left";

    /** The end of the right port's id. */
    public static final String RIGHT = "/right";

    /** Returns the name of the left port in other applications. */
    public String leftName() {
        return say("own-ports.left", name);
    }

    /** Returns the name of the right port in other applications. */
    public String rightName() {
        return say("own-ports.right", name);
    }
}
