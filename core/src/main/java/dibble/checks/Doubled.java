package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.GearEdits;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.routing.Zone;
import java.util.List;

/** One key that reaches the same destination twice: through two zones, or through one and the source's own sounds. */
final class Doubled extends Check {
    Doubled() {
        super("doubled", Level.WARNING, say("doubled.one-key-plays-the-same"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (CheckContext.Scope scope : subject.scopes) {
            for (Source source : subject.session.sources()) {
                Pairs.each(scope, source, report, (first, second, keys, sameDestination) -> {
                    if (sameDestination) {
                        addPair(subject, scope, source, scope.zones.get(first), scope.zones.get(second), keys, report);
                    }
                });
                if (source.localControl()) {
                    scope.zonesOf(source).forEach(z -> addOwn(subject, source, scope, z, report));
                }
            }
        }
    }

    private static void addPair(
            CheckContext subject,
            CheckContext.Scope scope,
            Source source,
            Zone first,
            Zone second,
            Range keys,
            Report report) {
        report.add(
                List.of(source.id(), first.id(), second.id()),
                say(
                        "doubled.and-both-play",
                        source.name(),
                        subject.keys(keys),
                        subject.name(first),
                        subject.name(second),
                        subject.name(second.to()),
                        subject.inScene(scope)),
                trimmed(subject, first, second));
    }

    /** The later zone keeps the larger range of the keys that the earlier zone does not have. */
    private static Fix trimmed(CheckContext subject, Zone first, Zone second) {
        int below = first.keys().low() - second.keys().low();
        int above = second.keys().high() - first.keys().high();
        if (below <= 0 && above <= 0) {
            return Fix.zonesOff(say("doubled.switch-off", subject.name(second)), List.of(second.id()));
        }
        Range rest = below >= above
                ? new Range(second.keys().low(), first.keys().low() - 1)
                : new Range(first.keys().high() + 1, second.keys().high());
        return Fix.keys(say("common.limit-to-the-keys", subject.name(second), subject.keys(rest)), second, rest);
    }

    private static void addOwn(CheckContext subject, Source source, CheckContext.Scope scope, int z, Report report) {
        Zone zone = scope.zones.get(z);
        boolean sounds = false;
        for (int key = source.keys().low(); key <= source.keys().high() && !sounds; key++) {
            sounds = CheckContext.sounds(scope, z, source, key);
        }
        if (sounds
                && zone.to().instrument().equals(source.ownInstrument())
                && !CheckContext.channels(source, zone).isEmpty()) {
            report.add(
                    List.of(source.id(), zone.id()),
                    say(
                            "doubled.sounds-itself-and-plays-it",
                            source.name(),
                            subject.name(zone.to()),
                            subject.name(zone)),
                    Fix.session(
                            say("doubled.mark-local-control-of-as", source.name()),
                            session -> GearEdits.changeSource(
                                    session, source.id(), it -> it.withOwnSounds(false, it.ownInstrument()))));
        }
    }
}
