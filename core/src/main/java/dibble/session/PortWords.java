package dibble.session;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Source;
import java.util.stream.Stream;

/** What people call a port. */
public final class PortWords {
    private static final String MACHINE = "midi:";
    private static final String STAND_IN = "stand-in:";
    private static final String PROGRAM = "program:";
    private static final String TRANSPORT = "program-transport";
    private static final String LOOPER = "stand-in:clover";

    private PortWords() {}

    /** A stand-in and a port of our own by the gear that it is for, a port of the machine by its name there. */
    public static String of(String port, Session session) {
        if (port.startsWith(MACHINE)) {
            return port.substring(MACHINE.length());
        }
        if (port.equals(TRANSPORT)) {
            return say("port-words.transport");
        }
        if (!port.startsWith(STAND_IN) && !port.startsWith(PROGRAM)) {
            return port;
        }
        Stream<String> sources = session.sources().stream()
                .filter(source -> source.port().equals(port))
                .map(Source::name);
        Stream<String> instruments = session.instruments().stream()
                .filter(instrument -> instrument.port().equals(port))
                .map(Instrument::name);
        String bare = port.equals(LOOPER) ? say("port-words.clover-looper") : port.substring(port.indexOf(':') + 1);
        return Stream.concat(sources, instruments).findFirst().orElse(bare);
    }
}
