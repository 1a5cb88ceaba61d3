package dibble.time;

import static dibble.text.CoreText.say;

/**
 * A place in the music that has a name.
 *
 * @param at tick, 0 or more
 */
public record Marker(long at, String name) {
    public Marker {
        if (at < 0) {
            throw new IllegalArgumentException(say("marker.tick-expected", at));
        }
    }
}
