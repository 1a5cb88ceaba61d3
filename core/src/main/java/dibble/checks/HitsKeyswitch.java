package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Part;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.routing.Zone;
import java.util.List;
import java.util.Map;

/** A zone for playing that can send notes that are keyswitches of its part. */
final class HitsKeyswitch extends Check {
    HitsKeyswitch() {
        super("hits-keyswitch", Level.WARNING, say("hits-keyswitch.playing-there-changes-the-articulation"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (CheckContext.Scope scope : subject.scopes) {
            for (Source source : subject.session.sources()) {
                for (int z : scope.zonesOf(source)) {
                    Zone zone = scope.zones.get(z);
                    Map<Integer, String> switches =
                            subject.part(zone).map(Part::keyswitches).orElse(Map.of());
                    Range wrong =
                            zone.keyswitch() ? null : NotesOut.keysThatMake(scope, z, source, switches::containsKey);
                    if (wrong != null) {
                        report.add(
                                List.of(zone.id(), source.id()),
                                say(
                                        "hits-keyswitch.of-overlaps-keyswitches-of",
                                        subject.name(zone),
                                        source.name(),
                                        subject.keys(wrong),
                                        subject.name(zone.to())),
                                NotesOut.trimmed(subject, zone, wrong));
                    }
                }
            }
        }
    }
}
