package dibble.routing;

import dibble.gear.Ranges;

/**
 * The source and channel whose program changes call scenes.
 *
 * @param source a source's id
 * @param channel 1-16
 */
public record SceneSwitch(String source, int channel) {
    public SceneSwitch {
        Ranges.range("number.channel", channel, 1, 16);
    }
}
