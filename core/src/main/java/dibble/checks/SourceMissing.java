package dibble.checks;

import dibble.routing.ControlMap;
import dibble.routing.SceneSwitch;
import dibble.routing.Zone;
import java.util.List;

/** A zone, a control map or the scene switch that names a source that is not there. */
final class SourceMissing extends Check {
    SourceMissing() {
        super("source-missing", Level.ERROR, "Nobody can play it until it is given to a source that is there.");
    }

    @Override
    void find(Subject subject, Report report) {
        for (Zone zone : subject.session.allZones()) {
            if (isMissing(subject, zone.source())) {
                report.add(
                        List.of(zone.id(), zone.source()),
                        subject.name(zone) + " is played by " + zone.source() + ", which is not there.");
            }
        }
        for (ControlMap map : subject.session.allControls()) {
            if (isMissing(subject, map.source())) {
                report.add(
                        List.of(map.id(), map.source()),
                        subject.name(map) + " answers to " + map.source() + ", which is not there.");
            }
        }
        SceneSwitch by = subject.session.sceneSwitch();
        if (by != null && isMissing(subject, by.source())) {
            report.add(
                    List.of(by.source()),
                    "Scenes are called by " + by.source() + ", which is not there.",
                    Mend.session("Have nobody call scenes", session -> session.withSceneSwitch(null)));
        }
    }

    private static boolean isMissing(Subject subject, String source) {
        return !source.equals(Zone.ANY_SOURCE) && subject.session.source(source).isEmpty();
    }
}
