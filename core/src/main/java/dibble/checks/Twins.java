package dibble.checks;

import dibble.edits.GearEdits;
import dibble.gear.Source;
import java.util.List;
import java.util.Optional;

/** Two sources that keep sending the same: one device that is seen on two ports. Only live. */
final class Twins extends Check {
    Twins() {
        super("twin-ports", Level.WARNING, "Every note would sound twice, and be recorded twice.");
    }

    @Override
    void find(Subject subject, Report report) {
        for (Live.Twins twins : subject.live.twins()) {
            Optional<Source> first = subject.session.source(twins.first());
            Optional<Source> second = subject.session.source(twins.second());
            if (first.isPresent() && second.isPresent()) {
                report.add(
                        List.of(twins.first(), twins.second()),
                        first.get().name() + " and " + second.get().name()
                                + " keep sending the same at the same time: one keyboard on two ports, it seems.",
                        Mend.session(
                                "Take " + second.get().name() + " out, with its zones",
                                session -> GearEdits.deleteSource(session, twins.second())));
            }
        }
    }
}
