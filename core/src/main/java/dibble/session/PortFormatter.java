package dibble.session;

import static dibble.text.CoreText.say;

import dibble.gear.Instrument;
import dibble.gear.Source;
import dibble.midi.PortId;
import java.util.stream.Stream;

/** Names of ports for users. */
public final class PortFormatter {
    private static final PortId LOOPER = new PortId.StandIn("clover");

    private PortFormatter() {}

    /** A stand-in and a port of our own by the gear that it is for, a port of the machine by its name there. */
    public static String of(String port, Session session) {
        PortId id = PortId.parse(port);
        if (id instanceof PortId.StandIn standIn) {
            return ofGear(port, id.equals(LOOPER) ? say("port-words.clover-looper") : standIn.id(), session);
        }
        if (id instanceof PortId.Program program) {
            return ofGear(port, program.id(), session);
        }
        if (id instanceof PortId.SharedTransport) {
            return say("port-words.transport");
        }
        return id instanceof PortId.Machine machine ? machine.name() : port;
    }

    private static String ofGear(String port, String otherwise, Session session) {
        Stream<String> sources = session.sources().stream()
                .filter(source -> source.port().equals(port))
                .map(Source::name);
        Stream<String> instruments = session.instruments().stream()
                .filter(instrument -> instrument.port().equals(port))
                .map(Instrument::name);
        return Stream.concat(sources, instruments).findFirst().orElse(otherwise);
    }
}
