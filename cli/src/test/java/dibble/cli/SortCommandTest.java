package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SortCommandTest {
    @TempDir
    private Path folder;

    private Path input;
    private Path output;
    private final Terminal terminal = new Terminal();

    @BeforeEach
    void write() throws Exception {
        input = folder.resolve("in.mid");
        output = folder.resolve("out.mid");
        MidiTrack.Builder track = new MidiTrack.Builder();
        for (int i = 0; i < 12; i++) {
            track.add(i * 100L, ShortMessage.noteOn(i % 2 == 0 ? 9 : 0, 36 + i % 3, 80))
                    .add(i * 100L + 50, ShortMessage.noteOff(i % 2 == 0 ? 9 : 0, 36 + i % 3, 64));
        }
        Files.write(input, MidiFileWriter.write(new MidiFile(0, 480, List.of(track.build()))));
    }

    private int run(String... args) {
        return terminal.run(args);
    }

    @Test
    void aFileIsSortedIntoTracksThatHaveAllItsNotes() throws Exception {
        assertThat(run("sort", input.toString(), "-o", output.toString(), "--by", "key", "--names", "drums"))
                .isZero();
        assertThat(terminal.out().lines())
                .containsExactly("Bass drum 1 36: 4 notes", "Side stick 37: 4 notes", "Acoustic snare 38: 4 notes");
        MidiFile sorted = MidiFileReader.read(output);
        assertThat(sorted.type()).isEqualTo(1);
        assertThat(sorted.tracks()).hasSize(4);
        assertThat(sorted.tracks().get(3).name()).contains("Acoustic snare 38");
        assertThat(sorted.division()).isEqualTo(480);
        assertThat(run("sort", input.toString(), "-o", output.toString(), "--by", "range", "--at", "C#2,38"))
                .isZero();
        assertThat(MidiFileReader.read(output).tracks()).hasSize(4);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "--by colour; --by colour (expected one of channel, key, channel-and-key, range, hand, track)",
                "--by range; no split key",
                "--by range --at H3; --at H3 (expected a key",
                "--by range --at 50,40; split at key 40 (expected",
                "--by key --at 40; --at goes with --by range",
                "--by key --names birds; --names birds (expected drums)"
            })
    void badArgumentsAreOneLine(String arguments, String message) {
        List<String> args = new java.util.ArrayList<>(List.of("sort", input.toString(), "-o", output.toString()));
        args.addAll(List.of(arguments.split(" ")));
        assertThat(run(args.toArray(String[]::new))).isEqualTo(2);
        assertThat(terminal.err().lines().count()).isEqualTo(1);
        assertThat(terminal.err()).startsWith("dibble: ").contains(message);
        assertThat(output).doesNotExist();
    }

    @Test
    void aBadFileIsOneLine() throws Exception {
        Files.writeString(input, "no music");
        assertThat(run("sort", input.toString(), "-o", output.toString(), "--by", "hand"))
                .isEqualTo(2);
        assertThat(terminal.err().lines().count()).isEqualTo(1);
        assertThat(output).doesNotExist();
    }
}
