package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Destination;
import dibble.routing.SendTarget;
import dibble.routing.ZoneTarget;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Two sends that hold and move the same controller of one destination. */
final class ConflictingSends extends Check {
    private record Moved(Destination to, int controller) {}

    ConflictingSends() {
        super("fought-over", Level.WARNING, say("fought-over.the-value-jumps-between-the"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (CheckContext.Scope scope : subject.scopes) {
            Map<Moved, ControlMap> movers = new HashMap<>();
            for (ControlMap map : scope.controls) {
                if (map.enabled()) {
                    for (ControlMap.Send send : map.sends()) {
                        for (Moved moved : moved(subject, scope, map, send)) {
                            ControlMap other = movers.putIfAbsent(moved, map);
                            if (other != null) {
                                add(subject, scope, other, map, moved, report);
                            }
                        }
                    }
                }
            }
        }
    }

    private static void add(
            CheckContext subject,
            CheckContext.Scope scope,
            ControlMap first,
            ControlMap second,
            Moved moved,
            Report report) {
        boolean twice = first.id().equals(second.id());
        report.add(
                twice ? List.of(first.id()) : List.of(first.id(), second.id()),
                say(
                        "fought-over.moves-cc-on-channel-of",
                        twice,
                        subject.name(first),
                        subject.name(second),
                        moved.controller(),
                        moved.to().channel(),
                        subject.port(moved.to().port()),
                        subject.inScene(scope)));
    }

    private static Set<Moved> moved(
            CheckContext subject, CheckContext.Scope scope, ControlMap map, ControlMap.Send send) {
        Set<Moved> moved = new LinkedHashSet<>();
        if (send.kind() != ControlKind.CONTROLLER) {
            return moved;
        }
        if (send.to() instanceof SendTarget.AllParts) {
            for (Instrument instrument : subject.session.instruments()) {
                for (Part part : instrument.parts()) {
                    scope.routing
                            .destination(instrument.ref(part))
                            .ifPresent(to -> moved.add(new Moved(to, send.number())));
                }
            }
        } else if (send.to() instanceof ZoneTarget target) {
            for (int channel = 0; channel < 16; channel++) {
                if (map.channels().holds(channel)) {
                    scope.reach.destination(target, channel).ifPresent(to -> moved.add(new Moved(to, send.number())));
                }
            }
        }
        return moved;
    }
}
