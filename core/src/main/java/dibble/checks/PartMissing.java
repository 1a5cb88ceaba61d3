package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.routing.ControlMap;
import dibble.routing.SceneSound;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import java.util.List;

/** A zone, a control map or a scene's sound that names a part or an instrument that is not there. */
final class PartMissing extends Check {
    PartMissing() {
        super("part-missing", Level.ERROR, say("part-missing.it-stays-silent-until-you"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Zone zone : subject.session.allZones()) {
            look(subject, zone.id(), subject.name(zone), zone.to(), report);
        }
        for (ControlMap map : subject.session.allControls()) {
            map.sends().forEach(send -> look(subject, map.id(), subject.name(map), send.to(), report));
        }
        subject.session
                .scenes()
                .forEach(scene -> scene.sounds().stream()
                        .map(SceneSound::part)
                        .forEach(part -> look(
                                subject,
                                scene.id(),
                                say("part-missing.scene", CheckContext.quoted(scene.name())),
                                new ZoneTarget.ToPart(part),
                                report)));
    }

    private static void look(CheckContext subject, String id, String name, SendTarget to, Report report) {
        if (to instanceof ZoneTarget.ToPart part
                && subject.session.part(part.part()).isEmpty()) {
            report.add(
                    List.of(id, part.part().toString()),
                    say("part-missing.plays-which-does-not-exist", name, part.part()));
        } else if (to instanceof ZoneTarget target
                && subject.session.instrument(target.instrument()).isEmpty()) {
            report.add(
                    List.of(id, target.instrument()),
                    say("part-missing.plays-instrument-which-does-not", name, target.instrument()));
        } else if (to instanceof SendTarget.ToScene scene && !isScene(subject, scene.scene())) {
            report.add(
                    List.of(id, scene.scene()), say("part-missing.switches-to-scene-which-does", name, scene.scene()));
        }
    }

    private static boolean isScene(CheckContext subject, String id) {
        return id.equals(SendTarget.ToScene.NEXT)
                || id.equals(SendTarget.ToScene.PREVIOUS)
                || subject.session.scene(id).isPresent();
    }
}
