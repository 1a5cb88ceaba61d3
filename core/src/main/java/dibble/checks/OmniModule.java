package dibble.checks;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Receives;
import java.util.List;

/** An instrument that hears all channels and is not alone on its port, or has two parts. */
final class OmniModule extends Check {
    OmniModule() {
        super("omni-module", Level.WARNING, say("omni-module.it-sounds-whatever-is-sent"));
    }

    @Override
    void find(CheckContext subject, Report report) {
        for (Instrument instrument : subject.session.instruments()) {
            if (instrument.receives() != Receives.ALL) {
                continue;
            }
            long onPort = subject.session.instruments().stream()
                    .filter(other -> other.port().equals(instrument.port()))
                    .mapToLong(other -> other.parts().size())
                    .sum();
            if (instrument.parts().size() > 1 || onPort > instrument.parts().size()) {
                report.add(
                        List.of(instrument.id()),
                        say("omni-module.is-in-omni-mode-it", instrument.name(), subject.port(instrument.port())));
            }
        }
    }
}
