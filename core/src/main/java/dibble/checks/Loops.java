package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import java.util.ArrayList;
import java.util.List;

/** Finds events that are sent to a port and return from a source of the same device. */
final class Loops extends Check {
    Loops() {
        super("loop", Level.ERROR, say("loops.a-note-that-comes-back"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Source source : subject.session.sources()) {
            for (Instrument instrument : subject.session.instruments()) {
                boolean seen = subject.live.loops().contains(new Live.Loop(source.port(), instrument.port()));
                boolean declared = source.echoes() && instrument.port().equals(source.port());
                if (seen || declared && isFed(subject, instrument)) {
                    report.add(
                            List.of(source.id(), instrument.id()),
                            say("loops.what-is-sent-to-comes", instrument.name(), source.name(), seen),
                            mend(subject, source, instrument));
                }
            }
        }
    }

    private static boolean isFed(CheckContext subject, Instrument instrument) {
        boolean byZones = subject.session.allZones().stream()
                .anyMatch(zone -> zone.enabled() && zone.to().instrument().equals(instrument.id()));
        return byZones
                || subject.session.allControls().stream()
                        .filter(map -> map.enabled())
                        .flatMap(map -> map.sends().stream())
                        .anyMatch(send -> send.to() instanceof ZoneTarget to
                                && to.instrument().equals(instrument.id()));
    }

    /** Only events that the source itself returns can be stopped without a loss for other sources. */
    private static Fix mend(CheckContext subject, Source source, Instrument instrument) {
        List<String> back = new ArrayList<>();
        for (Zone zone : subject.session.allZones()) {
            if (zone.enabled()
                    && zone.source().equals(source.id())
                    && zone.to().instrument().equals(instrument.id())) {
                back.add(zone.id());
            }
        }
        return back.isEmpty() ? null : Fix.zonesOff(say("loops.switch-off-the-zones-that", source.name()), back);
    }
}
