package dibble.routing;

import dibble.gear.Ids;
import dibble.gear.Ranges;
import dibble.gear.UnknownFields;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * Zones and control maps in addition to those that always hold.
 *
 * @param program the program change 0-127 that calls it, or null
 * @param sounds its changes of the sounds of parts
 */
@RecordBuilder
public record Scene(
        String id,
        String name,
        Integer program,
        List<Zone> zones,
        List<ControlMap> controls,
        List<SceneSound> sounds,
        UnknownFields extras)
        implements SceneBuilder.With {
    public Scene {
        Ids.check(id);
        Ranges.range("number.program", program, 0, 127);
        zones = List.copyOf(zones);
        controls = List.copyOf(controls);
        sounds = List.copyOf(sounds);
    }

    /** A scene of zones alone. */
    public static Scene of(String id, String name, Integer program, List<Zone> zones) {
        return new Scene(id, name, program, zones, List.of(), List.of(), UnknownFields.NONE);
    }
}
