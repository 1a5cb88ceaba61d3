package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.notes.Grid;
import dibble.notes.Quantize;
import dibble.text.UserException;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** {@code dibble quantize}: notes of a file to a grid. */
@Command(name = "quantize")
final class QuantizeCommand extends NotesCommand {
    private static final String WHATS =
            Arrays.stream(Quantize.What.values()).map(Quantize.What::word).collect(Collectors.joining(", "));

    @Option(names = "--grid", required = true, paramLabel = "STEP", descriptionKey = "grid")
    private String grid;

    @Option(names = "--strength", paramLabel = "PERCENT", defaultValue = "100", descriptionKey = "strength")
    private int strength;

    @Option(names = "--swing", paramLabel = "PERCENT", defaultValue = "0", descriptionKey = "swing")
    private int swing;

    @Option(names = "--what", paramLabel = "WHAT", defaultValue = "starts", descriptionKey = "what")
    private String what;

    @Override
    public Integer call() {
        Quantize.What moves = Arrays.stream(Quantize.What.values())
                .filter(it -> it.word().equals(what))
                .findFirst()
                .orElseThrow(() -> new BadInput(say("quantize-command.what-expected", what, WHATS)));
        try {
            Grid.Step step = Grid.Step.parse(grid);
            // Invalid arguments are reported before anything is read.
            quantize(step, 960, List.of(), moves);
            return change(List.of((quarter, bar, meters) -> quantize(step, quarter, meters, moves)));
        } catch (UserException e) {
            throw new BadInput(e.getMessage());
        }
    }

    private Quantize quantize(Grid.Step step, long quarter, List<Long> meters, Quantize.What moves) {
        return new Quantize(Grid.of(step, quarter, meters, swing), moves, strength, 0, Long.MAX_VALUE, 0);
    }
}
