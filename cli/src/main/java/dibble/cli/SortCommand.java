package dibble.cli;

import dibble.files.AtomicFile;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiFormatException;
import dibble.midi.NoteNames;
import dibble.recording.Sorting;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code dibble sort}: a recorded file into separate tracks. */
@Command(name = "sort", description = "Sorts a recorded file into separate tracks.", mixinStandardHelpOptions = true)
final class SortCommand implements Callable<Integer> {
    private static final String WORDS =
            Arrays.stream(Sorting.By.values()).map(Sorting.By::word).collect(Collectors.joining(", "));

    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "IN.mid", description = "what was recorded")
    private Path input;

    @Option(
            names = {"-o", "--output"},
            required = true,
            paramLabel = "OUT.mid",
            description = "the file to write")
    private Path output;

    @Option(
            names = "--by",
            required = true,
            paramLabel = "WHAT",
            description = "channel, key, channel-and-key, range, hand or track")
    private String by;

    @Option(
            names = "--at",
            paramLabel = "KEY",
            split = ",",
            description = "for range: the keys where the next one begins")
    private List<String> at = new ArrayList<>();

    @Option(names = "--names", paramLabel = "drums", description = "name keys as General MIDI names percussion")
    private String names;

    @Override
    public Integer call() throws IOException {
        Sorting.How how = how();
        MidiFile file = read();
        Sorting sorting = Sorting.of(file, how);
        if (!sorting.warning().isEmpty()) {
            spec.commandLine().getErr().println("dibble: " + sorting.warning());
        }
        AtomicFile.write(output, MidiFileWriter.write(sorting.file(file)));
        sorting.piles()
                .forEach(pile -> spec.commandLine().getOut().println(pile.name() + ": " + pile.notes() + " notes"));
        return 0;
    }

    private Sorting.How how() {
        Sorting.By what = Arrays.stream(Sorting.By.values())
                .filter(it -> it.word().equals(by))
                .findFirst()
                .orElseThrow(() -> new BadInput("--by " + by + " (expected one of " + WORDS + ")"));
        if (names != null && !names.equals("drums")) {
            throw new BadInput("--names " + names + " (expected drums)");
        }
        if (what != Sorting.By.RANGE && !at.isEmpty()) {
            throw new BadInput("--at goes with --by range");
        }
        List<Integer> keys = at.stream()
                .map(text -> NoteNames.parse(text, MiddleC.C4)
                        .orElseThrow(() -> new BadInput("--at " + text + " (expected a key, such as C3 or 48)")))
                .toList();
        try {
            return new Sorting.How(what, keys, names == null ? Map.of() : GeneralMidi.percussion(), MiddleC.C4);
        } catch (IllegalArgumentException e) {
            throw new BadInput("--at: " + e.getMessage());
        }
    }

    private MidiFile read() throws IOException {
        try {
            return MidiFileReader.read(input);
        } catch (MidiFormatException e) {
            throw new BadInput(input + ": " + e.getMessage());
        }
    }
}
