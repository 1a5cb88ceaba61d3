package dibble.levels;

import dibble.gear.Strip;
import dibble.gear.StripRef;

/**
 * A strip as a mixer needs it.
 *
 * @param port the port of its instrument
 * @param channel the channel of its part now, 1-16
 * @param builtIn whether Dibble sounds it itself; a module has its level from what it is sent
 * @param drums whether each key is a sound of its own
 * @param soundFile the id of the file that has its sounds, or null for those that come with Dibble
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
