package dibble.routing;

import dibble.gear.Extras;
import dibble.gear.Ids;
import java.util.List;

/**
 * Zones on top of those that are always there.
 *
 * @param program the program change 0-127 that calls it, or null
 */
public record Scene(String id, String name, Integer program, List<Zone> zones, Extras extras) {
    public Scene {
        Ids.check(id);
        if (program != null && (program < 0 || program > 127)) {
            throw new IllegalArgumentException("program " + program + " (expected 0 to 127)");
        }
        zones = List.copyOf(zones);
    }

    public Scene withZones(List<Zone> others) {
        return new Scene(id, name, program, others, extras);
    }
}
