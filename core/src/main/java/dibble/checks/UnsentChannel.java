package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.edits.ZoneEdits;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.routing.Zone;
import java.util.List;
import java.util.stream.Collectors;

/** A zone that lists a channel that its source does not listen to, or does not send. */
final class UnsentChannel extends Check {
    UnsentChannel() {
        super("deaf", Level.WARNING, say("deaf.that-channel-never-arrives-so"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Zone zone : subject.session.allZones()) {
            for (Source source : subject.session.sources()) {
                if (zone.enabled()
                        && zone.source().equals(source.id())
                        && !zone.channels().isAll()) {
                    look(subject, zone, source, report);
                }
            }
        }
    }

    private static void look(CheckContext subject, Zone zone, Source source, Report report) {
        ChannelSet comes = source.listen().and(source.sends().orElse(ChannelSet.ALL));
        ChannelSet heard = zone.channels().and(comes);
        if (!heard.equals(zone.channels())) {
            String silent = new ChannelSet(zone.channels().mask() & ~comes.mask())
                    .numbers().stream().map(String::valueOf).collect(Collectors.joining(", "));
            report.add(
                    List.of(zone.id(), source.id()),
                    say("deaf.waits-for-channel-but-nothing", subject.name(zone), silent, source.name()),
                    heard.isEmpty()
                            ? null
                            : Fix.session(
                                    say("deaf.limit-to-the-channels-that", subject.name(zone)),
                                    session -> ZoneEdits.changeZone(
                                            session,
                                            zone.id(),
                                            it -> it.with().channels(heard).build())));
        }
    }
}
