package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/** Refuses values that are out of their range, in the same words everywhere. */
public final class Ranges {
    private Ranges() {}

    /**
     * Returns the value if it is in a range; null passes.
     *
     * @param what the text key of its name
     * @throws UserException with the expected range
     */
    public static Integer range(String what, Integer value, int low, int high) {
        if (value != null && (value < low || value > high)) {
            throw new UserException(say("checked.expected-to", say(what), value, low, high));
        }
        return value;
    }
}
