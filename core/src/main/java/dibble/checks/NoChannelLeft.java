package dibble.checks;

import java.util.List;

/** A part that chooses its channel and found none. */
final class NoChannelLeft extends Check {
    NoChannelLeft() {
        super("no-channel-left", Level.ERROR);
    }

    @Override
    void find(Subject subject, Report report) {
        subject.session
                .instruments()
                .forEach(instrument -> instrument.parts().stream()
                        .map(instrument::ref)
                        .filter(ref -> subject.routing.channels().channel(ref).isEmpty())
                        .forEach(ref -> report.add(
                                List.of(ref.toString()),
                                subject.name(ref) + " has no channel: all sixteen of " + instrument.port()
                                        + " are taken.")));
    }
}
