package dibble.cli;

import dibble.notes.FileNotes;
import dibble.notes.NoteChange;
import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** {@code dibble edit}: changes of the notes of a file, one after another. */
@Command(name = "edit")
final class EditCommand extends NotesCommand {
    @Option(names = "--do", required = true, paramLabel = "CHANGE", descriptionKey = "do")
    private List<String> changes;

    @Override
    public Integer call() {
        List<FileNotes.Maker> makers = new ArrayList<>();
        for (String change : changes) {
            try {
                // Invalid arguments are reported before anything is read.
                NoteChange.parse(change, TempoMap.PPQ, 4L * TempoMap.PPQ);
            } catch (UserException e) {
                throw new BadInput(e.getMessage());
            }
            makers.add((quarter, bar, meters) -> NoteChange.parse(change, quarter, bar));
        }
        return change(makers);
    }
}
