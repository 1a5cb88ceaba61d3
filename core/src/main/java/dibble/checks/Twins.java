package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.GearEdits;
import dibble.gear.Source;
import java.util.List;
import java.util.Optional;

/** Two sources that keep sending the same: one device that is seen on two ports. Only live. */
final class Twins extends Check {
    Twins() {
        super("twin-ports", Level.WARNING, say("twins.every-note-would-sound-twice"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Live.Twins twins : subject.live.twins()) {
            Optional<Source> first = subject.session.source(twins.first());
            Optional<Source> second = subject.session.source(twins.second());
            if (first.isPresent() && second.isPresent()) {
                report.add(
                        List.of(twins.first(), twins.second()),
                        say(
                                "twins.and-keep-sending-the-same",
                                first.get().name(),
                                second.get().name()),
                        Fix.session(
                                say("twins.delete-with-its-zones", second.get().name()),
                                session -> GearEdits.deleteSource(session, twins.second())));
            }
        }
    }
}
