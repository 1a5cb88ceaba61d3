package dibble.routing;

import dibble.gear.Ranges;

/**
 * Whose program changes call scenes.
 *
 * @param source a source's id
 * @param channel 1-16
 */
public record SceneSwitch(String source, int channel) {
    public SceneSwitch {
        Ranges.range("number.channel", channel, 1, 16);
    }
}
