package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/** Refuses values that are out of their range, in the same words everywhere. */
public final class Ranges {
    private Ranges() {}

    /**
     * The value itself; null passes.
     *
     * @param what the key of the text that names it
     * @throws UserException saying what was expected
     */
    public static Integer range(String what, Integer value, int low, int high) {
        if (value != null && (value < low || value > high)) {
            throw new UserException(say("checked.expected-to", say(what), value, low, high));
        }
        return value;
    }
}
