package dibble.time;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/**
 * A place in the music that has a name.
 *
 * @param at tick, 0 or more
 */
public record Marker(long at, String name) {
    public Marker {
        if (at < 0) {
            throw new UserException(say("marker.tick-expected", at));
        }
    }
}
