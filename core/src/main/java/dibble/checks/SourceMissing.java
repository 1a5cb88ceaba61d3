package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.routing.ControlMap;
import dibble.routing.SceneSwitch;
import dibble.routing.Zone;
import java.util.List;

/** A zone, a control map or the scene switch that names a source that is not there. */
final class SourceMissing extends Check {
    SourceMissing() {
        super("source-missing", Level.ERROR, say("source-missing.it-stays-silent-until-you"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Zone zone : subject.session.allZones()) {
            if (isMissing(subject, zone.source())) {
                report.add(
                        List.of(zone.id(), zone.source()),
                        say("source-missing.is-played-by-which-does", subject.name(zone), zone.source()));
            }
        }
        for (ControlMap map : subject.session.allControls()) {
            if (isMissing(subject, map.source())) {
                report.add(
                        List.of(map.id(), map.source()),
                        say("source-missing.responds-to-which-does-not", subject.name(map), map.source()));
            }
        }
        SceneSwitch by = subject.session.sceneSwitch();
        if (by != null && isMissing(subject, by.source())) {
            report.add(
                    List.of(by.source()),
                    say("source-missing.scenes-are-switched-by-which", by.source()),
                    Fix.session(
                            say("source-missing.switch-scenes-by-no-source"),
                            session -> session.withSceneSwitch(null)));
        }
    }

    private static boolean isMissing(CheckContext subject, String source) {
        return !source.equals(Zone.ANY_SOURCE) && subject.session.source(source).isEmpty();
    }
}
