package dibble.levels;

import dibble.gear.Strip;
import dibble.gear.StripRef;

/**
 * A strip for the mixer.
 *
 * @param port the port of its instrument
 * @param channel the present channel of its part, 1-16
 * @param builtIn whether Dibble makes its sound; a module sets its level from received messages
 * @param drums whether each key is a separate sound
 * @param soundFile the id of its sound file, or null for the built-in sounds
 */
public record StripPlan(
        StripRef ref,
        String port,
        int channel,
        String name,
        boolean builtIn,
        boolean drums,
        String soundFile,
        Strip strip) {}
