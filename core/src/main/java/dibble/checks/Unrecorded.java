package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.PartRef;
import dibble.recording.Track;
import java.util.List;
import java.util.Optional;

/** A part that is played, while its track is not armed. A part with no track at all gets one when recording begins. */
final class Unrecorded extends Check {
    Unrecorded() {
        super("unrecorded", Level.NOTE, say("unrecorded.it-sounds-but-is-missing"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (PartRef ref : PlayedParts.parts(subject)) {
            Optional<Track> track = subject.session.trackOf(ref);
            boolean armed = subject.session.tracks().stream()
                    .filter(it -> subject.performance.armed().contains(it.id()))
                    .anyMatch(it -> it.takesAllOf(ref) || it.takesRest());
            if (track.isPresent() && !armed) {
                report.add(
                        List.of(ref.toString()),
                        say("unrecorded.is-played-but-no-armed", subject.name(ref)),
                        Fix.performance(
                                say(
                                        "unrecorded.arm-track",
                                        CheckContext.quoted(track.get().name())),
                                performance -> performance.withArmed(track.get().id(), true)));
            }
        }
    }
}
