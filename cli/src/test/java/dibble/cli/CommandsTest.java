package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.GearEdits;
import dibble.edits.ZoneEdits;
import dibble.files.SessionContent;
import dibble.gear.PartRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.SceneSwitch;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** {@code trace}, {@code check} and {@code ports}, and {@code route} with scenes and controls. */
class CommandsTest {
    @TempDir
    private Path folder;

    private Path file;
    private final Terminal terminal = new Terminal();

    @BeforeEach
    void write() throws Exception {
        file = folder.resolve("session.json");
        write(LamplightersRound.session());
    }

    private void write(Session session) throws Exception {
        Files.write(file, SessionContent.json(session, LamplightersRound.performance()));
    }

    private int run(String... args) {
        return terminal.run(args);
    }

    private static Session withoutSceneControls(Session session) {
        return session.withScenes(session.scenes().stream()
                .map(scene -> scene.withControls(List.of()))
                .toList());
    }

    @Test
    void traceSaysInWordsWhatAKeyDoes() throws Exception {
        Session demo = LamplightersRound.session();
        write(withoutSceneControls(demo).withControls(demo.controls().subList(0, 1)));
        assertThat(run("trace", file.toString(), "--source", "larkspur", "--note", "F#4"))
                .isZero();
        assertThat(terminal.out().lines())
                .startsWith(
                        "Larkspur 73, channel 1: note-on F♯4 66, velocity 96, scene Dusk",
                        "  control map Breath opens the winds: silent, belongs to another source",
                        "  zone Bass hand: silent, the key is above its range",
                        "  zone Celesta: Sorrel, channel 1: note-on F♯4 66, velocity 96",
                        "  zone Marimba: silent, belongs to another source")
                .endsWith("  zone Glass bowls, soft: silent, louder than its velocities");
    }

    @Test
    void traceAsJsonIsThatOfTheContract() throws Exception {
        ControlMap fade = ControlMap.of(
                "fade",
                "larkspur",
                ControlMap.Trigger.controller(21),
                ControlMap.Send.controller(11, new ZoneTarget.ToPart(new PartRef("sorrel", "celesta"))));
        ControlMap next = ControlMap.of(
                "next",
                "larkspur",
                ControlMap.Trigger.controller(21),
                new ControlMap.Send(
                        ControlKind.SCENE, 0, 0, 127, null, new SendTarget.ToScene(SendTarget.ToScene.NEXT)));
        write(withoutSceneControls(LamplightersRound.session())
                .withControls(List.of(fade, next))
                .withZones(List.of()));
        assertThat(run(
                        "trace",
                        file.toString(),
                        "--source",
                        "larkspur",
                        "--controller",
                        "21",
                        "--value",
                        "5",
                        "--json"))
                .isZero();
        assertThat(terminal.out().strip())
                .isEqualTo("{\"gate\":null,\"controls\":[{\"id\":\"fade\",\"messages\":"
                        + "[{\"to\":\"sorrel\",\"channel\":1,\"message\":[176,11,5]}]},"
                        + "{\"id\":\"next\",\"messages\":[],\"scene\":\"next\"}],"
                        + "\"zones\":[{\"id\":\"bowls-soft\",\"reason\":\"taken by a control map\"}]}");
        assertThat(run("trace", file.toString(), "--source", "tansy", "--bend", "0", "--channel", "1", "--json"))
                .isZero();
        assertThat(terminal.out()).startsWith("{\"gate\":\"not listening\",");
    }

    @ParameterizedTest
    @CsvSource({
        "--note 128, --note 128 (expected a key",
        "--note C4 --velocity 0, --velocity 0 (expected 1 to 127)",
        "--controller 64 --value 200, --value 200 (expected 0 to 127)",
        "--bend 20000, --bend 20000 (expected 0 to 16383)",
        "--note C4 --channel 17, --channel 17 (expected 1 to 16)",
        "--note C4 --scene dawn, no scene \"dawn\"",
        "--pressure 4 --program 5, only one event at a time",
        "--channel 1, missing"
    })
    void traceRefusesInOneLine(String words, String message) {
        String[] own = words.split(" ");
        String[] args = new String[own.length + 4];
        System.arraycopy(new String[] {"trace", file.toString(), "--source", "larkspur"}, 0, args, 0, 4);
        System.arraycopy(own, 0, args, 4, own.length);
        assertThat(run(args)).isEqualTo(2);
        assertThat(terminal.err().lines().count()).isEqualTo(1);
        assertThat(terminal.err()).contains(message);
    }

    @Test
    void checkAnswersWithItsExitCode() throws Exception {
        assertThat(run("check", file.toString())).isZero();
        write(ZoneEdits.changeZone(
                LamplightersRound.session(),
                "celesta",
                zone -> zone.withKeys(new Range(54, 100)).withTranspose(-12)));
        assertThat(run("check", file.toString())).isEqualTo(1);
        assertThat(terminal.out()).contains("warning outside-part: Zone \"Celesta\" of Larkspur 73, F♯3 54 to F4 65");
        Session doubled = ZoneEdits.addZone(
                LamplightersRound.session(),
                Zone.of("again", "Play again", "larkspur", new Range(90, 100), new PartRef("sorrel", "celesta")),
                null);
        write(doubled);
        assertThat(run("check", file.toString(), "--json")).isEqualTo(1);
        assertThat(terminal.out())
                .contains("{\"code\":\"doubled\",\"level\":\"warning\",\"ids\":[\"larkspur\",\"celesta\",\"again\"]");
    }

    @Test
    void checkMendsTheFileAndKeepsWhatItDoesNotConcern() throws Exception {
        Session session = ZoneEdits.addZone(
                LamplightersRound.session(),
                Zone.of("again", "Play again", "larkspur", new Range(50, 100), new PartRef("sorrel", "celesta")),
                null);
        String json = new String(SessionContent.json(session, LamplightersRound.performance()))
                .replaceFirst(
                        "\"takes\" : \\[ ]",
                        "\"takes\" : [ {\"id\": \"take-1\", \"file\": \"takes/take-1.jsonl\"} ], \"hue\" : 5");
        Files.writeString(file, json);
        run("check", file.toString(), "--fix", "doubled");
        assertThat(terminal.out()).doesNotContain("doubled");
        SessionContent mended = SessionFile.read(file);
        assertThat(mended.session().zone("again").orElseThrow().keys()).isEqualTo(new Range(50, 53));
        assertThat(mended.session().scenes()).isEqualTo(session.scenes());
        assertThat(Files.readString(file)).contains("take-1.jsonl", "hue");
        run("check", file.toString(), "--fix", "doubled");
        assertThat(terminal.err()).contains("there is no suggested fix for what doubled finds");
        assertThat(run("check", file.toString(), "--fix", "everything")).isEqualTo(2);
        assertThat(terminal.err()).contains("no check \"everything\" (expected one of part-missing, source-missing");
    }

    @Test
    void checkMendsAContainerWithItsTakes() throws Exception {
        Path container = folder.resolve("round.dibble");
        Session session = ZoneEdits.addZone(
                LamplightersRound.session(),
                Zone.of("again", "Play again", "larkspur", new Range(50, 100), new PartRef("sorrel", "celesta")),
                null);
        Take take = new Take("take-1", "Take 1", List.of(), new EventStore(), List.of(), TempoMap.of(120), 5, 0);
        SessionFile.write(container, session.withTakes(List.of(take)), LamplightersRound.performance());
        run("check", container.toString(), "--fix", "doubled");
        SessionContent mended = SessionFile.read(container);
        assertThat(mended.session().takes()).hasSize(1);
        assertThat(mended.session().zone("again").orElseThrow().keys().high()).isEqualTo(53);
    }

    @Test
    void aDamagedContainerIsNamedAndNeverMended() throws Exception {
        Path container = folder.resolve("round.dibble");
        Take take = new Take("take-1", "Take 1", List.of(), new EventStore(), List.of(), TempoMap.of(120), 5, 0);
        SessionFile.write(
                container, LamplightersRound.session().withTakes(List.of(take)), LamplightersRound.performance());
        byte[] whole = Files.readAllBytes(container);
        byte[] cut = java.util.Arrays.copyOf(whole, whole.length - 100);
        Files.write(container, cut);
        assertThat(run("check", container.toString())).isEqualTo(2);
        assertThat(terminal.err()).contains(container + ": the session is damaged: the file was cut off");
        assertThat(run("check", container.toString(), "--fix", "doubled")).isEqualTo(2);
        assertThat(terminal.err().lines()).hasSize(1);
        assertThat(Files.readAllBytes(container)).isEqualTo(cut);
    }

    @Test
    void portsListsTheStandIns() {
        assertThat(run("ports")).isZero();
        assertThat(terminal.out()).contains("MIDI ports of this computer:", "stand-in:larkspur", "stand-in:sorrel");
    }

    private void play(int... messages) throws Exception {
        MidiTrack.Builder track = new MidiTrack.Builder().text(0, MidiTrack.META_TRACK_NAME, "larkspur");
        for (int i = 0; i < messages.length; i++) {
            track.add(i * 10L, messages[i]);
        }
        track.exclusive(messages.length * 10L, 0xF0, new byte[] {0x7D, 1, (byte) 0xF7});
        Files.write(folder.resolve("in.mid"), MidiFileWriter.write(new MidiFile(1, 480, List.of(track.build()))));
    }

    @Test
    void routeCarriesOutScenesControlsAndSystemExclusive() throws Exception {
        Session session = GearEdits.changeSource(
                        LamplightersRound.session(), "larkspur", source -> source.withSysexTo(List.of("sorrel")))
                .withSceneSwitch(new SceneSwitch("larkspur", 1))
                .withControls(List.of(ControlMap.of(
                        "swell",
                        "larkspur",
                        ControlMap.Trigger.controller(21),
                        ControlMap.Send.controller(7, new SendTarget.AllParts()))));
        write(session);
        play(
                ShortMessage.noteOn(0, 70, 60),
                ShortMessage.programChange(0, 3),
                ShortMessage.noteOn(0, 71, 60),
                ShortMessage.controller(0, 21, 33));
        Path output = folder.resolve("out.mid");
        assertThat(run(
                        "route",
                        file.toString(),
                        folder.resolve("in.mid").toString(),
                        "--events",
                        "-o",
                        output.toString()))
                .isZero();
        assertThat(terminal.err()).isEmpty();
        List<String> lines = terminal.out().lines().toList();
        assertThat(lines.subList(0, 3))
                .containsExactly(
                        "{\"tick\":0,\"to\":\"sorrel\",\"channel\":1,\"message\":[144,70,60]}",
                        "{\"tick\":0,\"to\":\"sorrel\",\"channel\":6,\"message\":[149,70,60]}",
                        "{\"tick\":20,\"to\":\"sorrel\",\"channel\":1,\"message\":[144,71,60]}");
        assertThat(lines.subList(3, 13)).allMatch(line -> line.endsWith(",7,33]}"));
        assertThat(lines.get(13))
                .isEqualTo("{\"tick\":40,\"to\":\"sorrel\",\"channel\":null,\"message\":[240,125,1,247]}");
        assertThat(MidiFileReader.read(output).tracks())
                .extracting(track -> track.name().orElse(""))
                .endsWith("Sorrel");
    }

    /** Any damage to a file leads to one line at most, and never to a stack trace. */
    @Test
    void damagedFilesEndInOneLine() throws Exception {
        Random random = new Random(1);
        byte[] session = Files.readAllBytes(file);
        play(ShortMessage.noteOn(0, 70, 60));
        byte[] midi = Files.readAllBytes(folder.resolve("in.mid"));
        for (int i = 0; i < 10; i++) {
            Files.write(file, damaged(session, random));
            Files.write(folder.resolve("in.mid"), damaged(midi, random));
            for (String command : List.of("route", "trace", "check")) {
                String[] args = switch (command) {
                    case "route" -> new String[] {command, file.toString(), folder + "/in.mid", "--events"};
                    case "trace" -> new String[] {command, file.toString(), "--source", "larkspur", "--note", "60"};
                    default -> new String[] {command, file.toString()};
                };
                int code = run(args);
                assertThat(code).isBetween(0, 2);
                assertThat(terminal.err().lines().count())
                        .isEqualTo(code == 2 ? 1 : terminal.err().lines().count());
                assertThat(terminal.err()).doesNotContain("\tat ", "Exception", "should not have happened");
            }
        }
    }

    private static byte[] damaged(byte[] bytes, Random random) {
        byte[] damaged = random.nextInt(4) == 0 ? Arrays.copyOf(bytes, random.nextInt(bytes.length)) : bytes.clone();
        for (int i = random.nextInt(4); i > 0 && damaged.length > 0; i--) {
            damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(256);
        }
        return damaged;
    }
}
