package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Source;
import dibble.midi.Range;
import dibble.routing.Zone;
import java.util.ArrayList;
import java.util.List;

/** Keys that a source has and no zone takes, where it has zones at all. */
final class Gaps extends Check {
    Gaps() {
        super("gap", Level.WARNING, say("gaps.these-keys-are-silent-in"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (CheckContext.Scope scope : subject.scopes) {
            for (Source source : subject.session.sources()) {
                List<Zone> own = scope.zonesOf(source).stream()
                        .map(z -> scope.zones.get(z))
                        .toList();
                if (!own.isEmpty()) {
                    for (Range gap : gaps(source.keys(), own)) {
                        report.add(
                                List.of(source.id(), gap.low() + "-" + gap.high()),
                                say(
                                        "gaps.no-zone-plays-this-key",
                                        source.name(),
                                        subject.keys(gap),
                                        gap.size() == 1,
                                        subject.inScene(scope)),
                                mend(subject, source, own, gap));
                    }
                }
            }
        }
    }

    private static List<Range> gaps(Range keys, List<Zone> zones) {
        List<Range> gaps = new ArrayList<>();
        int from = -1;
        for (int key = keys.low(); key <= keys.high() + 1; key++) {
            int k = key;
            boolean free = key <= keys.high()
                    && zones.stream().noneMatch(zone -> zone.keys().holds(k));
            if (free && from < 0) {
                from = key;
            } else if (!free && from >= 0) {
                gaps.add(new Range(from, key - 1));
                from = -1;
            }
        }
        return gaps;
    }

    /** The zone below grows up to the next one, or where there is none, the zone above down to the gap's low end. */
    private static Fix mend(CheckContext subject, Source source, List<Zone> zones, Range gap) {
        for (Zone zone : zones) {
            if (zone.source().equals(source.id()) && zone.keys().high() == gap.low() - 1) {
                return wider(subject, zone, new Range(zone.keys().low(), gap.high()));
            }
        }
        for (Zone zone : zones) {
            if (zone.source().equals(source.id()) && zone.keys().low() == gap.high() + 1) {
                return wider(subject, zone, new Range(gap.low(), zone.keys().high()));
            }
        }
        return null;
    }

    private static Fix wider(CheckContext subject, Zone zone, Range keys) {
        return Fix.keys(say("gaps.give-the-keys", subject.name(zone), subject.keys(keys)), zone, keys);
    }
}
