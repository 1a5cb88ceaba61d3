package dibble.checks;

import dibble.recording.Track;
import java.util.List;

/** Two armed tracks that record the same events. */
final class TwiceRecorded extends Check {
    TwiceRecorded() {
        super("twice-recorded", Level.WARNING, "The same notes would be on two tracks, and play twice.");
    }

    @Override
    void find(Subject subject, Report report) {
        List<Track> armed = subject.session.tracks().stream()
                .filter(track -> subject.performance.armed().contains(track.id()))
                .toList();
        for (int i = 0; i < armed.size(); i++) {
            for (int j = i + 1; j < armed.size(); j++) {
                Track first = armed.get(i);
                Track second = armed.get(j);
                if (first.input().equals(second.input())) {
                    report.add(
                            List.of(first.id(), second.id()),
                            "Tracks " + Subject.quoted(first.name()) + " and " + Subject.quoted(second.name())
                                    + " record the same.",
                            Mend.performance(
                                    "Disarm track " + Subject.quoted(second.name()),
                                    performance -> performance.withArmed(second.id(), false)));
                }
            }
        }
    }
}
