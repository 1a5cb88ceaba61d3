package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import java.util.List;

/** Two armed tracks that record the same events. */
final class TwiceRecorded extends Check {
    TwiceRecorded() {
        super("twice-recorded", Level.WARNING, say("twice-recorded.the-same-notes-would-be"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        List<Track> armed = subject.session.tracks().stream()
                .filter(track -> subject.performance.armed().contains(track.id()))
                .toList();
        for (int i = 0; i < armed.size(); i++) {
            for (int j = i + 1; j < armed.size(); j++) {
                Track first = armed.get(i);
                Track second = armed.get(j);
                if (recordTheSame(subject, first, second)) {
                    report.add(
                            List.of(first.id(), second.id()),
                            say(
                                    "twice-recorded.tracks-and-record-the-same",
                                    CheckContext.quoted(first.name()),
                                    CheckContext.quoted(second.name())),
                            Fix.performance(
                                    say("twice-recorded.disarm-track", CheckContext.quoted(second.name())),
                                    performance -> performance.withArmed(second.id(), false)));
                }
            }
        }
    }

    private static boolean recordTheSame(CheckContext subject, Track first, Track second) {
        boolean nothing = first.input() instanceof Track.Nothing || first.input() instanceof Track.Unknown;
        if (first.input().equals(second.input())) {
            return !nothing;
        }
        return subject.session.allZones().stream()
                .anyMatch(zone -> zone.enabled() && takes(first, zone) && takes(second, zone));
    }

    /**
     * Returns true if a track takes everything that a zone sends. Notes of a key with its own track go there, not to
     * the track of the part.
     */
    private static boolean takes(Track track, Zone zone) {
        Track.Input input = track.input();
        if (input instanceof Track.OfPart of) {
            return zone.to() instanceof ZoneTarget.ToPart to && to.part().equals(of.part());
        }
        if (input instanceof Track.OfSource of) {
            return zone.isPlayedBy(of.source());
        }
        if (input instanceof Track.OfChannel of) {
            return zone.isPlayedBy(of.source()) && zone.channels().holds(of.channel() - 1);
        }
        return input instanceof Track.OfZone of && zone.id().equals(of.zone());
    }
}
