package dibble.routing;

import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.UnknownFields;

/** The sound of a part in a scene; values that are not set stay as they are. */
public record SceneSound(PartRef part, Sound sound, UnknownFields extras) {}
