package dibble.cli;

import static dibble.cli.CliText.say;

import dibble.midi.MiddleC;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.NoteNames;
import dibble.notes.ChangeResult;
import dibble.notes.FileNotes;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Option;

/** A command that changes the notes of a file. */
abstract class NotesCommand extends MidiCommand {
    @Option(names = "--track", paramLabel = "NUMBER", split = ",", descriptionKey = "track")
    private List<Integer> tracks = new ArrayList<>();

    @Option(names = "--channel", paramLabel = "CHANNEL", defaultValue = "0", descriptionKey = "channel")
    private int channel;

    @Option(names = "--keys", paramLabel = "LOW-HIGH", descriptionKey = "keys")
    private String keys;

    @Option(names = "--bars", paramLabel = "FIRST-LAST", descriptionKey = "bars")
    private String bars;

    /** Changes a file. */
    final int change(List<FileNotes.Maker> makers) {
        FileNotes.Which which = which();
        MidiFile file = files.midi(input);
        files.checkOutput(output);
        FileNotes.Outcome outcome;
        try {
            outcome = FileNotes.change(file, which, makers);
        } catch (UserException e) {
            throw new BadInput(input + ": " + e.getMessage());
        }
        files.write(output, to -> MidiFileWriter.write(outcome.file(), to));
        if (!output.equals(InOut.STANDARD)) {
            for (ChangeResult.Effect effect : outcome.effects()) {
                print(say(
                        "notes-command.effect",
                        effect.changed(),
                        effect.notes(),
                        effect.most(),
                        effect.gone(),
                        effect.stayed()));
            }
        }
        return 0;
    }

    private FileNotes.Which which() {
        if (spec.commandLine().getParseResult().hasMatchedOption("--channel") && (channel < 1 || channel > 16)) {
            throw new BadInput(say("notes-command.channel-expected", channel));
        }
        int[] range = {0, 127};
        if (keys != null) {
            String[] ends = keys.split("(?<=[0-9])-", 2);
            for (int i = 0; i < 2; i++) {
                int end = i;
                range[i] = NoteNames.parse(ends[Math.min(i, ends.length - 1)], MiddleC.C4)
                        .orElseThrow(() ->
                                new BadInput(say("notes-command.keys-expected", ends[Math.min(end, ends.length - 1)])));
            }
        }
        long[] ofBars = {1, Long.MAX_VALUE};
        if (bars != null) {
            if (!bars.matches("[1-9]\\d{0,5}(-[1-9]\\d{0,5})?")) {
                throw new BadInput(say("notes-command.bars-expected", bars));
            }
            String[] ends = bars.split("-");
            ofBars[0] = Long.parseLong(ends[0]);
            ofBars[1] = Long.parseLong(ends[ends.length - 1]);
        }
        if (range[1] < range[0] || ofBars[1] < ofBars[0]) {
            throw new BadInput(say("notes-command.order-expected", range[1] < range[0] ? keys : bars));
        }
        return new FileNotes.Which(tracks, channel, range[0], range[1], ofBars[0], ofBars[1]);
    }
}
