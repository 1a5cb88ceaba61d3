package dibble.cli;

import static dibble.cli.CliText.say;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.demo.LamplightersRound;
import dibble.ports.MachinePorts;
import dibble.session.Session;
import dibble.standins.StandIns;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** {@code dibble ports}: the MIDI ports of this machine and the stand-ins. */
@Command(name = "ports")
final class PortsCommand extends FileCommand {
    /** A port as it is listed. */
    private record Listed(String name, boolean in, boolean out, String about) {
        String line() {
            String way = in && out
                    ? say("ports-command.in-and-out")
                    : in ? say("ports-command.in") : say("ports-command.out");
            return "  " + name + "  (" + way + ")  " + about;
        }
    }

    @Option(names = "--json", descriptionKey = "json")
    private boolean json;

    @Override
    public Integer call() throws IOException {
        List<Listed> machine = new ArrayList<>();
        for (MachinePorts.Found port : MachinePorts.list()) {
            machine.add(new Listed(port.name(), port.plays(), port.hears(), port.vendor() + ", " + port.description()));
        }
        List<Listed> standIns = standIns();
        if (json) {
            ObjectNode node = new ObjectMapper().createObjectNode();
            list(node.putArray("ports"), machine);
            list(node.putArray("standIns"), standIns);
            out().println(node);
            return 0;
        }
        print(say("ports-command.midi-ports-of-this-computer"));
        machine.forEach(port -> print(port.line()));
        if (machine.isEmpty()) {
            print(say("ports-command.none"));
        }
        print(say("ports-command.stand-ins"));
        standIns.forEach(port -> print(port.line()));
        return 0;
    }

    private static List<Listed> standIns() {
        Session demo = LamplightersRound.session();
        List<Listed> standIns = new ArrayList<>();
        demo.sources().forEach(source -> standIns.add(new Listed(source.port(), true, false, source.name())));
        demo.instruments()
                .forEach(instrument -> standIns.add(new Listed(instrument.port(), false, true, instrument.name())));
        standIns.add(new Listed(StandIns.LOOPER, true, true, say("ports-command.clover-a-looper-it-sends")));
        return standIns;
    }

    private static void list(ArrayNode to, List<Listed> ports) {
        for (Listed port : ports) {
            to.addObject()
                    .put("name", port.name)
                    .put("in", port.in)
                    .put("out", port.out)
                    .put("about", port.about);
        }
    }
}
