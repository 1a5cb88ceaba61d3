package dibble.cli;

import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A command that makes a MIDI file of another. */
abstract class MidiCommand extends FileCommand {
    @Parameters(index = "0", paramLabel = "IN.mid", descriptionKey = "in")
    String input;

    @Option(
            names = {"-o", "--output"},
            required = true,
            paramLabel = "OUT.mid",
            descriptionKey = "output")
    String output;
}
