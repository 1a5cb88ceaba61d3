package dibble.checks;

import static dibble.text.CoreText.say;

import java.util.List;

/** A source or an instrument whose port is not there now. Only where the ports are known. */
final class PortMissing extends Check {
    private static final String ANY = "any";

    PortMissing() {
        super("port-missing", Level.WARNING, say("port-missing.its-place-is-kept-plug"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        subject.live.ports().ifPresent(there -> {
            subject.session.sources().forEach(source -> {
                if (!source.port().equals(ANY) && !there.contains(source.port())) {
                    report.add(List.of(source.id()), missing(source.name(), subject.port(source.port())));
                }
            });
            subject.session.instruments().forEach(instrument -> {
                if (!there.contains(instrument.port())) {
                    report.add(List.of(instrument.id()), missing(instrument.name(), subject.port(instrument.port())));
                }
            });
        });
    }

    private static String missing(String name, String port) {
        return say("port-missing.the-port-of-is-missing", name, port.equals(name), port);
    }
}
