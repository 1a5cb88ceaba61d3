package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Part;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.routing.RoutingQueries;
import dibble.routing.Zone;
import java.util.List;
import java.util.Optional;

/** A zone that can send notes beyond its part's own keys, or beyond 0-127 without folding. */
final class OutsidePart extends Check {
    OutsidePart() {
        super("outside-part", Level.WARNING, say("outside-part.the-part-has-no-sound"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (CheckContext.Scope scope : subject.scopes) {
            for (Source source : subject.session.sources()) {
                scope.zonesOf(source).forEach(z -> look(subject, scope, source, z, report));
            }
        }
    }

    private static void look(CheckContext subject, CheckContext.Scope scope, Source source, int z, Report report) {
        Zone zone = scope.zones.get(z);
        Optional<Part> part = subject.part(zone);
        Range wrong = NotesOut.keysThatMake(
                scope,
                z,
                source,
                note -> note == RoutingQueries.OUTSIDE || part.isPresent() && !belongs(note, part.get(), zone));
        if (wrong != null) {
            report.add(
                    List.of(zone.id(), source.id()),
                    part.map(it -> say(
                                    "outside-part.of-sends-notes-outside-the",
                                    subject.name(zone),
                                    source.name(),
                                    subject.keys(wrong),
                                    it.name(),
                                    subject.keys(it.keys())))
                            .orElseGet(() -> say(
                                    "outside-part.of-makes-notes-outside-0",
                                    subject.name(zone),
                                    source.name(),
                                    subject.keys(wrong))),
                    NotesOut.trimmed(subject, zone, wrong));
        }
    }

    /** Keyswitches are outside the range of sounding keys, and a keyswitch zone exists to send them. */
    private static boolean belongs(int note, Part part, Zone zone) {
        return part.keys().holds(note) || zone.keyswitch() && part.keyswitches().containsKey(note);
    }
}
