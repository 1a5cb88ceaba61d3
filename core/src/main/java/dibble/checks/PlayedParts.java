package dibble.checks;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Destination;
import dibble.routing.ZoneTarget;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.Set;

/** The parts that are played, by zones or by notes of control maps. */
final class PlayedParts {
    private PlayedParts() {}

    static Set<PartRef> parts(CheckContext subject) {
        Set<Destination> reached = new HashSet<>();
        for (CheckContext.Scope scope : subject.scopes) {
            for (Source source : subject.session.sources()) {
                for (int z : scope.zonesOf(source)) {
                    for (int channel = 0; channel < 16; channel++) {
                        if (CheckContext.channels(source, scope.zones.get(z)).holds(channel)) {
                            scope.reach.destination(z, channel).ifPresent(reached::add);
                        }
                    }
                }
            }
            for (ControlMap map : scope.controls) {
                for (ControlMap.Send send : map.sends()) {
                    for (int channel = 0; channel < 16 && map.enabled(); channel++) {
                        if (send.kind() == ControlKind.NOTE
                                && send.to() instanceof ZoneTarget to
                                && map.channels().holds(channel)) {
                            scope.reach.destination(to, channel).ifPresent(reached::add);
                        }
                    }
                }
            }
        }
        Set<PartRef> fed = new LinkedHashSet<>();
        for (Instrument instrument : subject.session.instruments()) {
            for (Part part : instrument.parts()) {
                PartRef ref = instrument.ref(part);
                subject.routing.destination(ref).filter(reached::contains).ifPresent(to -> fed.add(ref));
            }
        }
        return fed;
    }
}
