package dibble.routing;

import dibble.gear.Checked;
import dibble.gear.Extras;
import dibble.gear.Ids;
import java.util.List;

/**
 * Zones and control maps on top of those that are always there.
 *
 * @param program the program change 0-127 that calls it, or null
 * @param sounds what it changes in the sounds of parts
 */
public record Scene(
        String id,
        String name,
        Integer program,
        List<Zone> zones,
        List<ControlMap> controls,
        List<SceneSound> sounds,
        Extras extras) {
    public Scene {
        Ids.check(id);
        Checked.range("number.program", program, 0, 127);
        zones = List.copyOf(zones);
        controls = List.copyOf(controls);
        sounds = List.copyOf(sounds);
    }

    /** A scene of zones alone. */
    public static Scene of(String id, String name, Integer program, List<Zone> zones) {
        return new Scene(id, name, program, zones, List.of(), List.of(), Extras.NONE);
    }

    public Scene withId(String text) {
        return new Scene(text, name, program, zones, controls, sounds, extras);
    }

    public Scene withName(String text) {
        return new Scene(id, text, program, zones, controls, sounds, extras);
    }

    public Scene withProgram(Integer number) {
        return new Scene(id, name, number, zones, controls, sounds, extras);
    }

    public Scene withZones(List<Zone> others) {
        return new Scene(id, name, program, others, controls, sounds, extras);
    }

    public Scene withControls(List<ControlMap> others) {
        return new Scene(id, name, program, zones, others, sounds, extras);
    }

    public Scene withSounds(List<SceneSound> others) {
        return new Scene(id, name, program, zones, controls, others, extras);
    }
}
