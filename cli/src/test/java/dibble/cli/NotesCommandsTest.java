package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Quantizing and changing the notes of files from the command line. */
class NotesCommandsTest {
    @TempDir
    private Path folder;

    private Path input;
    private Path output;
    private final Terminal terminal = new Terminal();

    /** Two tracks of 96 ticks a quarter note: a meter of three, words, and notes that come late. */
    @BeforeEach
    void write() throws Exception {
        input = folder.resolve("in.mid");
        output = folder.resolve("out.mid");
        MidiTrack first = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Song")
                .meta(0, MidiTrack.META_METER, new byte[] {3, 2, 24, 8})
                .meta(0, MidiTrack.META_TEMPO, new byte[] {7, (byte) 0xA1, 0x20})
                .build(2000);
        MidiTrack.Builder second = new MidiTrack.Builder();
        second.text(0, MidiTrack.META_DEVICE, "Port one");
        for (int i = 0; i < 12; i++) {
            second.add(i * 96L + 5, ShortMessage.noteOn(i % 2, 60 + i, 64))
                    .add(i * 96L + 20, ShortMessage.controller(0, 1, i))
                    .text(i * 96L + 30, MidiTrack.META_TEXT, "word " + i)
                    .add(i * 96L + 50, ShortMessage.noteOff(i % 2, 60 + i, 40));
        }
        Files.write(input, MidiFileWriter.write(new MidiFile(1, 96, List.of(first, second.build(2000)))));
    }

    private int run(String command, String... more) {
        String[] args = new String[4 + more.length];
        args[0] = command;
        args[1] = input.toString();
        args[2] = "-o";
        args[3] = output.toString();
        System.arraycopy(more, 0, args, 4, more.length);
        return terminal.run(args);
    }

    private ClipIndex notes() throws Exception {
        return ClipIndex.of(MidiFileReader.read(output).tracks().get(1));
    }

    private LongStream starts() throws Exception {
        ClipIndex index = notes();
        return IntStream.range(0, index.noteCount()).mapToLong(index::start);
    }

    @Test
    void notesGoToTheGridAndAllElseStaysAsItIs() throws Exception {
        assertThat(run("quantize", "--grid", "1/16")).isZero();
        assertThat(terminal.out().lines()).containsExactly("12 of 12 notes changed, by 5 ticks at most");
        assertThat(starts()).allMatch(start -> start % 96 == 0);
        MidiFile before = MidiFileReader.read(input);
        MidiFile after = MidiFileReader.read(output);
        assertThat(after.division()).isEqualTo(96);
        assertThat(after.tracks().get(0)).isEqualTo(before.tracks().get(0));
        assertThat(others(after.tracks().get(1)))
                .isEqualTo(others(before.tracks().get(1)));
    }

    private static List<String> others(MidiTrack track) {
        return IntStream.range(0, track.size())
                .filter(i -> !track.isChannelMessage(i) || !ShortMessage.isNote(track.message(i)))
                .mapToObj(i -> track.tick(i) + " "
                        + (track.isChannelMessage(i) ? track.message(i) : track.metaType(i) + track.text(i)))
                .toList();
    }

    @Test
    void onlyWhatIsMeantChanges() throws Exception {
        assertThat(run("quantize", "--grid", "1/8", "--channel", "2", "--bars", "2-2"))
                .isZero();
        assertThat(starts().filter(start -> start % 48 == 0)).containsExactly(288 + 0L, 480L);
        assertThat(run("edit", "--do", "transpose=12", "--do", "velocity-set=9", "--keys", "64-65"))
                .isZero();
        ClipIndex index = notes();
        assertThat(IntStream.range(0, 12)
                        .filter(note -> index.velocity(note) == 9)
                        .map(index::key))
                .as("what was meant is so until the end")
                .containsExactly(76, 77);
    }

    @Test
    void strengthNoneChangesNothing() throws Exception {
        assertThat(run("quantize", "--grid", "1/16", "--strength", "0")).isZero();
        assertThat(MidiFileReader.read(output).tracks())
                .isEqualTo(MidiFileReader.read(input).tracks());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "quantize|--grid=1/7|grid \"1/7\" (expected 1/16, 1/16t for a triplet, 1/16d for dotted; 1/1 to 1/64)",
                "quantize|--grid=1/8 --strength=101|strength 101 (expected 0 to 100)",
                "quantize|--grid=1/8 --swing=-1|swing -1 (expected 0 to 100)",
                "quantize|--grid=1/8 --what=all|--what all (expected one of starts, ends, both)",
                "quantize|--grid=1/8 --channel=17|--channel 17 (expected 1 to 16)",
                "quantize|--grid=1/8 --bars=0-2|--bars 0-2 (expected bars, such as 5-8)",
                "quantize|--grid=1/8 --bars=4-2|4-2 (expected the lower one first)",
                "quantize|--grid=1/8 --keys=H2|--keys H2 (expected keys, such as C2-B2 or 36-47)",
                "edit|--do=transpose=x|transpose, semitones \"x\" (expected -127 to 127)",
                "edit|--do=into-scale=d,loud|into-scale, scale \"loud\" (expected major,",
                "edit|--do=louder|change \"louder\" (expected one of velocity-set,",
                "edit|--do=transpose=1,2|transpose with 2 numbers (expected 1 at most)",
            })
    void whatIsWrongIsSaidInALine(String command, String options, String said) {
        assertThat(run(command, options.split(" "))).isEqualTo(2);
        assertThat(terminal.err().lines()).hasSize(1);
        assertThat(terminal.err()).contains(said);
        assertThat(output).doesNotExist();
    }

    @Test
    void aTrackThatIsNotThereIsSaidWithItsFile() {
        assertThat(run("edit", "--do", "reverse", "--track", "3")).isEqualTo(2);
        assertThat(terminal.err()).contains("in.mid: track 3 (expected 1 to 2)");
    }
}
