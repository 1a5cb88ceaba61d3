package dibble.cli;

import static dibble.cli.CliText.say;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dibble.midi.GeneralMidi;
import dibble.midi.MiddleC;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.NoteNames;
import dibble.recording.Sorting;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** {@code dibble sort}: a recorded file into separate tracks. */
@Command(name = "sort")
final class SortCommand extends MidiCommand {
    private static final String WORDS =
            Arrays.stream(Sorting.By.values()).map(Sorting.By::word).collect(Collectors.joining(", "));

    @Option(names = "--by", required = true, paramLabel = "WHAT", descriptionKey = "by")
    private String by;

    @Option(names = "--at", paramLabel = "KEY", split = ",", descriptionKey = "at")
    private List<String> at = new ArrayList<>();

    @Option(names = "--names", paramLabel = "drums", descriptionKey = "names")
    private String names;

    @Option(names = "--json", descriptionKey = "json")
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
        } catch (UserException e) {
            throw new BadInput(say("sort-command.sorted-by-would-have", input, by, e.getMessage()));
        }
        files.write(output, to -> MidiFileWriter.write(sorted, to));
        boolean outputIsTaken = output.equals(InOut.STANDARD);
        if (json && !outputIsTaken) {
            out().println(json(sorting));
        } else if (!outputIsTaken) {
            sorting.piles().forEach(pile -> print(say("sort-command.notes", pile.name(), pile.notes())));
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
                .orElseThrow(() -> new BadInput(say("sort-command.by-expected-one-of", by, WORDS)));
        if (names != null && !names.equals("drums")) {
            throw new BadInput(say("sort-command.names-expected-drums", names));
        }
        if (what != Sorting.By.RANGE && !at.isEmpty()) {
            throw new BadInput(say("sort-command.at-goes-with-by-range"));
        }
        List<Integer> keys = at.stream()
                .map(text -> NoteNames.parse(text, MiddleC.C4)
                        .orElseThrow(() -> new BadInput(say("sort-command.at-expected-a-key-such", text))))
                .toList();
        try {
            return new Sorting.How(what, keys, names == null ? Map.of() : GeneralMidi.percussion(), MiddleC.C4);
        } catch (UserException e) {
            throw new BadInput(say("sort-command.at", e.getMessage()));
        }
    }
}
