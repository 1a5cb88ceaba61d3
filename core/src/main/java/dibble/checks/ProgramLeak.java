package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.ZoneEdits;
import dibble.gear.Source;
import dibble.midi.EventKind;
import dibble.routing.Zone;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** Program changes of a source that pass to a part: a stray one replaces a sound. */
final class ProgramLeak extends Check {
    ProgramLeak() {
        super("program-leak", Level.NOTE, say("program-leak.a-program-change-played-there"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Zone zone : subject.session.allZones()) {
            for (Source source : subject.session.sources()) {
                if (zone.enabled()
                        && zone.isPlayedBy(source.id())
                        && zone.pass().contains(EventKind.PROGRAM_CHANGE)
                        && source.accept().contains(EventKind.PROGRAM_CHANGE)) {
                    report.add(
                            List.of(zone.id(), source.id()),
                            say(
                                    "program-leak.program-changes-from-pass-through",
                                    source.name(),
                                    subject.name(zone),
                                    subject.name(zone.to())),
                            Fix.session(
                                    say("program-leak.block-program-changes-in", subject.name(zone)),
                                    session -> ZoneEdits.changeZone(
                                            session, zone.id(), it -> it.withPass(without(it.pass())))));
                }
            }
        }
    }

    private static Set<EventKind> without(Set<EventKind> pass) {
        Set<EventKind> kept = EnumSet.noneOf(EventKind.class);
        pass.stream().filter(kind -> kind != EventKind.PROGRAM_CHANGE).forEach(kept::add);
        return kept;
    }
}
