package dibble.cli;

import dibble.demo.LamplightersRound;
import dibble.ports.MachinePorts;
import dibble.session.Session;
import dibble.standins.StandIns;
import java.io.PrintWriter;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** {@code dibble ports}: the MIDI ports of this machine and the stand-ins. */
@Command(
        name = "ports",
        description = "Lists the MIDI ports of this machine and the stand-ins that ship with Dibble.",
        mixinStandardHelpOptions = true)
final class PortsCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        PrintWriter out = spec.commandLine().getOut();
        List<MachinePorts.Found> found = MachinePorts.list();
        out.println("MIDI ports of this machine:");
        for (MachinePorts.Found port : found) {
            String way = Stream.of(port.plays() ? "in" : "", port.hears() ? "out" : "")
                    .filter(word -> !word.isEmpty())
                    .collect(Collectors.joining(" and "));
            out.println("  " + port.name() + "  (" + way + ")  " + port.vendor() + ", " + port.description());
        }
        if (found.isEmpty()) {
            out.println("  none");
        }
        Session demo = LamplightersRound.session();
        out.println("Stand-ins:");
        demo.sources().forEach(source -> out.println("  " + source.port() + "  (in)  " + source.name()));
        demo.instruments()
                .forEach(instrument -> out.println("  " + instrument.port() + "  (out)  " + instrument.name()));
        out.println("  " + StandIns.LOOPER + "  (in and out)  Clover, a looper: it sends back what it gets");
        return 0;
    }
}
