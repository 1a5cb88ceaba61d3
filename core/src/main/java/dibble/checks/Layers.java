package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Source;
import dibble.routing.Zone;
import java.util.List;

/** Keys that play two destinations or more. */
final class Layers extends Check {
    Layers() {
        super("layer", Level.NOTE, say("layers.usually-intended-shown-so-that"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (CheckContext.Scope scope : subject.scopes) {
            for (Source source : subject.session.sources()) {
                Pairs.each(scope, source, report, (first, second, keys, sameDestination) -> {
                    if (!sameDestination) {
                        Zone one = scope.zones.get(first);
                        Zone other = scope.zones.get(second);
                        report.add(
                                List.of(source.id(), one.id(), other.id()),
                                say(
                                        "layers.plays-and",
                                        source.name(),
                                        subject.keys(keys),
                                        subject.name(one.to()),
                                        subject.name(other.to()),
                                        subject.inScene(scope)));
                    }
                });
            }
        }
    }
}
