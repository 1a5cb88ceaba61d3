package dibble.routing;

import dibble.gear.Extras;
import dibble.gear.PartRef;
import dibble.gear.Sound;

/** The sound that a scene gives a part; what is not set stays as it is. */
public record SceneSound(PartRef part, Sound sound, Extras extras) {}
