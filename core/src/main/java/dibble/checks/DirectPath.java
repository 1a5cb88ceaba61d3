package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.routing.Zone;
import java.util.List;

/** An instrument that hears a source past Dibble and is reached from it through zones as well. */
final class DirectPath extends Check {
    DirectPath() {
        super("bypass", Level.WARNING, say("bypass.every-note-would-sound-twice"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Instrument instrument : subject.session.instruments()) {
            for (String id : instrument.hearsDirectly()) {
                subject.session.source(id).ifPresent(source -> look(subject, instrument, source, report));
            }
        }
    }

    private static void look(CheckContext subject, Instrument instrument, Source source, Report report) {
        List<String> zones = subject.session.allZones().stream()
                .filter(zone -> zone.enabled()
                        && zone.isPlayedBy(source.id())
                        && zone.to().instrument().equals(instrument.id()))
                .map(Zone::id)
                .toList();
        if (!zones.isEmpty()) {
            report.add(
                    List.of(instrument.id(), source.id()),
                    say("bypass.is-cabled-directly-to-and", instrument.name(), source.name()),
                    Fix.zonesOff(say("bypass.switch-off-these-zones"), zones));
        }
    }
}
