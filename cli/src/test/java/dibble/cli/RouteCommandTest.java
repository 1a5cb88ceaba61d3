package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.files.SessionContent;
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

class RouteCommandTest {
    @TempDir
    private Path folder;

    private Path session;
    private Path input;
    private Path output;
    private final Terminal terminal = new Terminal();

    @BeforeEach
    void write() throws Exception {
        session = folder.resolve("session.json");
        input = folder.resolve("in.mid");
        output = folder.resolve("out.mid");
        Files.write(session, SessionContent.json(LamplightersRound.session(), LamplightersRound.performance()));
        MidiTrack conductor = new MidiTrack.Builder()
                .meta(0, MidiTrack.META_TEMPO, new byte[] {7, (byte) 0xA1, 32})
                .text(100, MidiTrack.META_MARKER, "verse")
                .build();
        MidiTrack larkspur = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "LARKSPUR 73")
                .add(0, ShortMessage.noteOn(0, 40, 100))
                .add(0, ShortMessage.controller(0, 64, 127))
                .add(240, ShortMessage.noteOff(0, 40, 50))
                .add(480, ShortMessage.noteOn(0, 70, 60))
                .build();
        Files.write(input, MidiFileWriter.write(new MidiFile(1, 480, List.of(conductor, larkspur))));
    }

    private int run(String... args) {
        return terminal.run(args);
    }

    private void assertRefused(int code, String message) {
        assertThat(code).isEqualTo(2);
        assertThat(terminal.err().lines().count()).isEqualTo(1);
        assertThat(terminal.err()).startsWith("dibble: ").contains(message);
        assertThat(output).doesNotExist();
    }

    @Test
    void eachDestinationGetsANamedTrackInTheOrderOfTheSession() throws Exception {
        assertThat(run("route", session.toString(), input.toString(), "-o", output.toString()))
                .isZero();
        MidiFile routed = MidiFileReader.read(output);
        assertThat(routed.type()).isEqualTo(1);
        assertThat(routed.division()).isEqualTo(480);
        assertThat(routed.tracks())
                .extracting(track -> track.name().orElse("-"))
                .containsExactly("-", "Sorrel / Celesta", "Sorrel / Upright bass", "Sorrel / Glass bowls");
        MidiTrack first = routed.tracks().get(0);
        assertThat(first.isMeta(0, MidiTrack.META_TEMPO)).isTrue();
        assertThat(first.isMeta(1, MidiTrack.META_MARKER)).isTrue();
        MidiTrack bass = routed.tracks().get(2);
        assertThat(bass.message(1)).isEqualTo(ShortMessage.noteOn(1, 28, 100));
        assertThat(bass.message(2)).isEqualTo(ShortMessage.noteOff(1, 28, 50));
    }

    @Test
    void eventsArePrintedInTheOrderInWhichTheyLeave() {
        assertThat(run("route", session.toString(), input.toString(), "--events"))
                .isZero();
        assertThat(terminal.out().lines())
                .containsExactly(
                        "{\"tick\":0,\"to\":\"sorrel\",\"channel\":2,\"message\":[145,28,100]}",
                        "{\"tick\":0,\"to\":\"sorrel\",\"channel\":1,\"message\":[176,64,127]}",
                        "{\"tick\":0,\"to\":\"sorrel\",\"channel\":6,\"message\":[181,64,127]}",
                        "{\"tick\":240,\"to\":\"sorrel\",\"channel\":2,\"message\":[129,28,50]}",
                        "{\"tick\":480,\"to\":\"sorrel\",\"channel\":1,\"message\":[144,70,60]}",
                        "{\"tick\":480,\"to\":\"sorrel\",\"channel\":6,\"message\":[149,70,60]}",
                        "{\"tick\":480,\"to\":\"sorrel\",\"channel\":1,\"message\":[128,70,64]}",
                        "{\"tick\":480,\"to\":\"sorrel\",\"channel\":6,\"message\":[133,70,64]}",
                        "{\"tick\":480,\"to\":\"sorrel\",\"channel\":1,\"message\":[176,64,0]}",
                        "{\"tick\":480,\"to\":\"sorrel\",\"channel\":6,\"message\":[181,64,0]}");
    }

    @Test
    void anotherSceneRoutesOtherwise() {
        assertThat(run("route", session.toString(), input.toString(), "--events", "--scene", "snow"))
                .isZero();
        assertThat(terminal.out()).doesNotContain("\"channel\":6");
        assertRefused(
                run("route", session.toString(), input.toString(), "-o", output.toString(), "--scene", "noon"),
                "no scene \"noon\"");
    }

    @Test
    void aTrackIsNamedByItsNumberOnTheCommandLine() {
        assertThat(run("route", session.toString(), input.toString(), "--events", "--source", "2=tansy"))
                .isZero();
        // Tansy lets in channel 2 only.
        assertThat(terminal.out()).isEmpty();
        assertRefused(
                run("route", session.toString(), input.toString(), "-o", output.toString(), "--source", "2=harp"),
                "no source \"harp\" (expected one of larkspur, tansy, sedge, fern, teasel)");
    }

    @Test
    void noTrackThatNamesASourceIsAnError() throws Exception {
        MidiTrack stranger =
                new MidiTrack.Builder().add(0, ShortMessage.noteOn(0, 40, 100)).build();
        Files.write(input, MidiFileWriter.write(new MidiFile(0, 480, List.of(stranger))));
        assertThat(run("route", session.toString(), input.toString(), "-o", output.toString()))
                .isEqualTo(2);
        assertThat(terminal.err()).contains("names a source (expected one of larkspur, tansy");
        assertThat(output).doesNotExist();
    }

    @Test
    void badInputIsOneLineAndNothingIsWritten() throws Exception {
        assertRefused(run("route", session.toString(), session.toString(), "-o", output.toString()), "not a MIDI file");
    }

    @Test
    void aDamagedSessionSaysWhere() throws Exception {
        Files.writeString(session, Files.readString(session).replaceFirst("\"program\" : 8", "\"program\" : 800"));
        assertRefused(
                run("route", session.toString(), input.toString(), "-o", output.toString()),
                "$.instruments[0].parts[0].program");
    }

    @Test
    void aFileThatIsNotThereIsSaid() {
        assertRefused(
                run("route", session.toString(), folder.resolve("none.mid").toString(), "-o", output.toString()),
                "no such file");
    }

    @Test
    void badArgumentsAreOneLine() {
        assertRefused(run("route", session.toString(), input.toString(), "--frobnicate"), "no option --frobnicate");
    }

    @Test
    void withSoundsGivesEachPartItsSoundFirst() {
        assertThat(run("route", session.toString(), input.toString(), "--events", "--with-sounds"))
                .isZero();
        assertThat(terminal.out()).startsWith("{\"tick\":0,\"to\":\"sorrel\",\"channel\":1,\"message\":[192,8]}");
    }

    @Test
    void whatBelongsToNoDestinationIsOnATrackOfItsOwn() throws Exception {
        MidiTrack played = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "larkspur")
                .meta(0, MidiTrack.META_KEY, new byte[] {-1, 1})
                .meta(0, MidiTrack.META_SMPTE_OFFSET, new byte[] {1, 2, 3, 4, 5})
                .text(0, 0x05, "la")
                .exclusive(0, 0xF0, new byte[] {0x7D, 1, (byte) 0xF7})
                .add(0, ShortMessage.noteOn(0, 70, 60))
                .meta(3, 0x7F, new byte[] {9})
                .add(9, ShortMessage.noteOff(0, 70, 60))
                .build();
        MidiTrack words = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Words")
                .text(5, MidiTrack.META_TEXT, "slowly")
                .text(6, MidiTrack.META_CUE, "curtain")
                .build();
        Files.write(input, MidiFileWriter.write(new MidiFile(1, 480, List.of(played, words))));
        assertThat(run("route", session.toString(), input.toString(), "-o", output.toString()))
                .isZero();
        List<MidiTrack> tracks = MidiFileReader.read(output).tracks();
        assertThat(tracks)
                .extracting(track -> track.name().orElse("-"))
                .startsWith("-", "Sorrel / Celesta")
                .endsWith("larkspur, other events", "Words, other events");
        MidiTrack first = tracks.get(0);
        assertThat(List.of(first.metaType(0), first.metaType(1), first.metaType(2)))
                .containsExactly(MidiTrack.META_KEY, MidiTrack.META_SMPTE_OFFSET, MidiTrack.META_CUE);
        MidiTrack others = tracks.get(tracks.size() - 2);
        assertThat(others.text(1)).isEqualTo("la");
        assertThat(others.status(2)).isEqualTo(0xF0);
        assertThat(others.metaType(3)).isEqualTo(0x7F);
    }

    @Test
    void notesWithoutAnOffLastToTheEndOfTheFile() throws Exception {
        MidiTrack open = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "larkspur")
                .add(0, ShortMessage.noteOn(0, 40, 60))
                .build();
        MidiTrack longer = new MidiTrack.Builder().build(960);
        Files.write(input, MidiFileWriter.write(new MidiFile(1, 480, List.of(open, longer))));
        assertThat(run("route", session.toString(), input.toString(), "--events"))
                .isZero();
        assertThat(terminal.out().lines().toList().get(1))
                .startsWith("{\"tick\":960,")
                .contains("[129,");
    }

    @Test
    void piecesOfAType2FileFollowEachOther() throws Exception {
        MidiTrack piece = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "larkspur")
                .add(0, ShortMessage.noteOn(0, 40, 60))
                .add(100, ShortMessage.noteOff(0, 40, 60))
                .build(480);
        Files.write(input, MidiFileWriter.write(new MidiFile(2, 480, List.of(piece, piece))));
        assertThat(run("route", session.toString(), input.toString(), "--events"))
                .isZero();
        assertThat(terminal.out().lines().map(line -> line.substring(0, line.indexOf(','))))
                .contains("{\"tick\":480");
    }

    @Test
    void whatIsNotAsItShouldBeInAFileIsSaidAndTheRestIsRead() throws Exception {
        byte[] file = Files.readAllBytes(input);
        byte[] longer = java.util.Arrays.copyOf(file, file.length + 5);
        Files.write(input, longer);
        assertThat(run("route", session.toString(), input.toString(), "-o", output.toString()))
                .isZero();
        assertThat(terminal.errors())
                .singleElement()
                .asString()
                .contains(input + ": 5 bytes after the last track are ignored.");
    }
}
