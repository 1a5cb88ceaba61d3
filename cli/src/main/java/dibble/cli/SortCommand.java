package dibble.cli;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.NoteNames;
import dibble.recording.Sorting;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code dibble sort}: a recorded file into separate tracks. */
@Command(
        name = "sort",
        description = {
            "Sorts a recorded file into separate tracks.",
            "",
            "Offs and key pressure go with their notes. Pedals and other controllers go to every track that has notes of"
                    + " their channel. Lyrics, texts and SysEx go where all of their track goes, else to a track of"
                    + " their own."
        },
        footerHeading = "%nExamples:%n",
        footer = {
            "  dibble sort take.mid -o sorted.mid --by channel",
            "  dibble sort take.mid -o split.mid --by range --at C3,F#4",
            "  dibble sort drums.mid -o kit.mid --by key --names drums --json"
        })
final class SortCommand extends FileCommand {
    private static final String WORDS =
            Arrays.stream(Sorting.By.values()).map(Sorting.By::word).collect(Collectors.joining(", "));

    @Parameters(index = "0", paramLabel = "IN.mid", description = "what was recorded; - is standard input")
    private String input;

    @Option(
            names = {"-o", "--output"},
            required = true,
            paramLabel = "OUT.mid",
            description = "the file to write; - is standard output")
    private String output;

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

    @Option(names = "--json", description = "say what became of it as JSON")
    private boolean json;

    @Override
    public Integer call() {
        Sorting.How how = how();
        MidiFile file = files.midi(input);
        files.checkOutput(output);
        Sorting sorting = Sorting.of(file, how);
        if (!sorting.warning().isEmpty()) {
            files.tell(sorting.warning());
        }
        MidiFile sorted = sorting.file(file);
        try {
            MidiFileWriter.checkTracks(sorted);
        } catch (IllegalArgumentException e) {
            throw new BadInput(input + ", sorted by " + by + ", would have " + e.getMessage());
        }
        files.write(output, to -> MidiFileWriter.write(sorted, to));
        boolean outputIsTaken = output.equals(InOut.STANDARD);
        if (json && !outputIsTaken) {
            out().println(json(sorting));
        } else if (!outputIsTaken) {
            sorting.piles().forEach(pile -> print(pile.name() + ": " + pile.notes() + " notes"));
        }
        return 0;
    }

    private static ObjectNode json(Sorting sorting) {
        ObjectNode node = new ObjectMapper().createObjectNode();
        ArrayNode tracks = node.putArray("tracks");
        sorting.piles()
                .forEach(pile -> tracks.addObject().put("name", pile.name()).put("notes", pile.notes()));
        node.put("warning", sorting.warning().isEmpty() ? null : sorting.warning());
        return node;
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
}
