package dibble.routing;

import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.UnknownFields;

/** The sound that a scene gives a part; what is not set stays as it is. */
public record SceneSound(PartRef part, Sound sound, UnknownFields extras) {}
