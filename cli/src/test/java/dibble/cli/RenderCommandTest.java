package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.StripEdits;
import dibble.files.SessionContent;
import dibble.gear.PartRef;
import dibble.gear.StripRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.session.Session;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RenderCommandTest {
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");

    @TempDir
    private Path folder;

    private Path session;
    private Path input;
    private Path stems;
    private final Terminal terminal = new Terminal();

    @BeforeEach
    void write() throws Exception {
        session = folder.resolve("session.json");
        input = folder.resolve("in.mid");
        stems = folder.resolve("stems");
        write(LamplightersRound.session());
        MidiTrack pads = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Sedge pads")
                .add(0, ShortMessage.noteOn(9, 53, 100))
                .add(240, ShortMessage.noteOff(9, 53, 50))
                .build();
        MidiTrack feet = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Fern pedals")
                .add(0, ShortMessage.noteOn(2, 40, 100))
                .add(480, ShortMessage.noteOff(2, 40, 50))
                .build();
        Files.write(input, MidiFileWriter.write(new MidiFile(1, 480, List.of(pads, feet))));
    }

    private void write(Session written) throws Exception {
        Files.write(session, SessionContent.json(written, LamplightersRound.performance()));
    }

    private int render(String... more) {
        return terminal.run(Stream.concat(Stream.of("render", session.toString()), Stream.of(more))
                .toArray(String[]::new));
    }

    private void assertRefused(int code, String message) {
        assertThat(code).isEqualTo(2);
        assertThat(terminal.errors()).hasSize(1);
        assertThat(terminal.err()).startsWith("dibble: ").contains(message);
        assertThat(stems).doesNotExist();
    }

    @Test
    void aPerformanceBecomesAFileForEachStripAndTheMix() throws Exception {
        assertThat(render(input.toString(), "-o", stems.toString(), "--rate", "48000", "--bits", "16", "--tail", "1"))
                .isZero();
        assertThat(terminal.out().lines())
                .hasSize(8)
                .contains(stems.resolve("Hand drums.wav") + ", 1.63 s", stems.resolve("mix.wav") + ", 1.63 s");
        assertThat(terminal.errors()).containsExactly("dibble: left out, on outside gear: Low winds");
        AudioFormat format = AudioSystem.getAudioFileFormat(
                        stems.resolve("mix.wav").toFile())
                .getFormat();
        assertThat(format.getSampleRate()).isEqualTo(48_000f);
        assertThat(format.getSampleSizeInBits()).isEqualTo(16);
    }

    @Test
    void partsAreNamedByIdOrNameAndTheMixCanBeAlone() throws Exception {
        assertThat(render(input.toString(), "-o", stems.toString(), "--parts", "sorrel/hands,Celesta", "--tail", "0"))
                .isZero();
        try (Stream<Path> made = Files.list(stems)) {
            assertThat(made.map(path -> path.getFileName().toString()))
                    .containsExactlyInAnyOrder("Celesta.wav", "Hand drums.wav", "mix.wav");
        }
        Path mix = folder.resolve("mix");
        assertThat(render(input.toString(), "-o", mix.toString(), "--mix-only", "--tail", "0"))
                .isZero();
        try (Stream<Path> made = Files.list(mix)) {
            assertThat(made.map(path -> path.getFileName().toString())).containsExactly("mix.wav");
        }
    }

    @Test
    void whatIsTooLoudOrMissingIsSaid() throws Exception {
        Session loud = StripEdits.change(
                LamplightersRound.session(),
                StripRef.of(new PartRef("sorrel", "hands")),
                strip -> strip.withLevel(6.0));
        loud = StripEdits.addSoundFile(loud, "Glass", "nowhere/glass.sf2", "0".repeat(64));
        write(dibble.edits.GearEdits.changePart(
                loud, CELESTA, part -> part.with().soundFile("glass").build()));
        Path hard = folder.resolve("hard.mid");
        MidiTrack.Builder pads = new MidiTrack.Builder().text(0, MidiTrack.META_TRACK_NAME, "Sedge pads");
        for (int pad = 53; pad < 69; pad++) {
            pads.add(0, ShortMessage.noteOn(9, pad, 127));
        }
        Files.write(hard, MidiFileWriter.write(new MidiFile(1, 480, List.of(pads.build(480)))));
        assertThat(render(hard.toString(), "-o", stems.toString(), "--mix-only", "--tail", "0"))
                .isZero();
        assertThat(terminal.errors()).hasSize(2);
        assertThat(terminal.errors().get(0)).contains("glass.sf2").contains("the usual sounds are played instead");
        assertThat(terminal.errors().get(1)).contains("over full scale");
    }

    @Test
    void mistakesAreSaidInALineAndNothingIsMade() {
        assertRefused(render("-o", stems.toString()), "has no tracks with notes (expected a recording, or IN.mid");
        assertRefused(
                render(input.toString(), "-o", stems.toString(), "--bits", "20"), "--bits 20 (expected 16, 24, float)");
        assertRefused(
                render(input.toString(), "-o", stems.toString(), "--rate", "1"), "rate 1 (expected 8000 to 192000)");
        assertRefused(
                render(input.toString(), "-o", stems.toString(), "--parts", "harp"),
                "--parts harp: no part of a built-in instrument (expected sorrel/celesta,");
        assertRefused(render("-o", stems.toString(), "--scene", "dusk"), "are for a recorded performance");
        assertRefused(
                render(input.toString(), "-o", stems.toString(), "--tail", "1000"), "tail 1000 s (expected 600 s");
    }
}
