package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dibble.demo.LamplightersRound;
import dibble.files.SessionContent;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileReader;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.text.Version;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The command line as people of Unix expect it. */
class CommandLineTest {
    private static final ObjectMapper JSON = new ObjectMapper();

    @TempDir
    private Path folder;

    private final Terminal terminal = new Terminal();
    private Path session;
    private Path midi;
    private Path output;

    @BeforeEach
    void files() throws IOException {
        session = folder.resolve("session.json");
        Files.write(session, SessionContent.json(LamplightersRound.session(), LamplightersRound.performance()));
        midi = folder.resolve("in.mid");
        MidiTrack track = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "larkspur")
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(10, ShortMessage.noteOff(0, 60, 64))
                .build();
        Files.write(midi, MidiFileWriter.write(new MidiFile(1, 480, List.of(track))));
        output = folder.resolve("out.mid");
    }

    private int run(String... args) {
        return terminal.run(args);
    }

    private void assertRefused(String... words) {
        assertThat(terminal.errors()).hasSize(1);
        assertThat(terminal.err()).startsWith("dibble: ").contains(words);
    }

    @Test
    void standardInputAndOutputAreNamedByAHyphen() throws IOException {
        terminal.input(Files.readAllBytes(session));
        assertThat(run("route", "-", midi.toString(), "-o", "-")).isZero();
        byte[] piped = terminal.bytes();
        assertThat(run("route", session.toString(), midi.toString(), "-o", output.toString()))
                .isZero();
        assertThat(piped).isEqualTo(Files.readAllBytes(output));
        terminal.input(Files.readAllBytes(midi));
        assertThat(run("route", session.toString(), "-", "-o", "-")).isZero();
        assertThat(terminal.bytes()).isEqualTo(piped);
        assertThat(run("sort", "-", "--by", "key", "-o", "-")).isZero();
        assertThat(MidiFileReader.read(terminal.bytes()).tracks()).hasSize(2);
        assertThat(run("route", "-", "-", "-o", "-")).isEqualTo(2);
        assertRefused("standard input is both SESSION and IN.mid");
        assertThat(run("check", "--fix", "doubled", "-")).isEqualTo(2);
        assertRefused("cannot be saved");
        terminal.input("nothing of the kind".getBytes());
        assertThat(run("check", "-")).isEqualTo(2);
        assertRefused("standard input: not a session");
    }

    @ParameterizedTest
    @ValueSource(strings = {"check SESSION", "check SESSION --json", "ports", "route SESSION IN -o -", "--help"})
    void outputThatCannotBeWrittenIsAnErrorAndQuietlySoWhereNobodyReadsOn(String words) {
        String[] args = words.replace("SESSION", session.toString())
                .replace("IN", midi.toString())
                .split(" ");
        assertThat(terminal.run(Terminal.failing("No space left on device"), args))
                .isEqualTo(2);
        assertRefused("standard output: No space left on device");
        assertThat(terminal.run(Terminal.failing("Broken pipe"), args)).isEqualTo(2);
        assertThat(terminal.err()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "chekc SESSION | no command \"chekc\" (did you mean check?)",
                "sotr | no command \"sotr\" (did you mean sort?)",
                "dance | no command \"dance\"",
                "missing.dibble | no such file: missing.dibble",
                "check --jsn SESSION | no option --jsn (did you mean --json?)",
                "check | SESSION is missing",
                "check SESSION more | \"more\" is one argument too many",
                "check '' | the name of SESSION is empty",
                "sort IN -o '' --by key | the output name is empty",
                "sort IN --by key | --output OUT.mid is missing",
                "trace SESSION --source larkspur --note 60 --channel x | --channel x (expected a whole number)",
                "trace SESSION --source larkspur --note 60 --channel 99999999999 | --channel 99999999999 (expected a whole number)",
                "route SESSION IN -o OUT --source larkspur | --source larkspur (expected TRACK=ID)",
                "route SESSION IN -o OUT --source x=larkspur | --source x",
                "route SESSION IN -o OUT --scene dawn | no scene \"dawn\" in",
                "sort IN -o IN --by key | is also IN.mid (expected another file",
                "route SESSION IN -o SESSION | is also SESSION (expected another file",
                "route SESSION IN --events -o - | both go to standard output",
                "check no/such/file.dibble | no such file: no/such/file.dibble",
                "check FOLDER | is a folder",
                "check @SESSION | no such file: @",
            })
    void whatIsWrongWithTheArgumentsIsSaidInOneLine(String words, String message) {
        String[] args = words.strip().split(" ");
        for (int i = 0; i < args.length; i++) {
            args[i] = args[i].replace("''", "")
                    .replace("SESSION", session.toString())
                    .replace("IN", midi.toString())
                    .replace("OUT", output.toString())
                    .replace("FOLDER", folder.toString());
        }
        assertThat(run(args)).isEqualTo(2);
        assertRefused(message);
        assertThat(terminal.out()).isEmpty();
        assertThat(output).doesNotExist();
    }

    @Test
    void namesThatBeginWithAHyphenAreFiles() throws IOException {
        Path odd = Path.of("-x.mid");
        try {
            assertThat(run("sort", midi.toString(), "--by", "key", "-o=-x.mid")).isZero();
            assertThat(odd).exists();
            assertThat(run("sort", "--by", "key", "-o", output.toString(), "--", "-x.mid"))
                    .isZero();
            assertThat(output).exists();
        } finally {
            Files.deleteIfExists(odd);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "route", "trace", "check", "sort", "ports"})
    void everyCommandHasAVersionAndAHelpWithItsExitCodes(String command) {
        String[] help = command.isEmpty() ? new String[] {"--help"} : new String[] {command, "--help"};
        assertThat(run(help)).isZero();
        assertThat(terminal.out())
                .contains("Exit codes:", "bad arguments, bad input")
                .contains("Usage: dibble");
        assertThat(terminal.out().lines()).allMatch(line -> line.length() <= 80);
        help[help.length - 1] = "--version";
        assertThat(run(help)).isZero();
        assertThat(terminal.out().strip()).isEqualTo("Dibble " + Version.NUMBER);
        assertThat(run("--help")).isZero();
        assertThat(terminal.out()).contains("FILE", "demo", "route", "check");
    }

    @Test
    void aMessageNeverHasWordsOfALibrary() throws IOException {
        for (String bad : List.of(
                "{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"x\":" + "[".repeat(3000)
                        + "]".repeat(3000) + "}",
                "{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"x\":" + "1".repeat(2000) + "}",
                "{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"sources\":[{\"id\":\"A B\\u001b[31m\"}]}",
                "{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"zones\":[{\"id\":\"z\",\"source\":\"a\",\"to\":{\"instrument\":\"i\",\"channel\":\"x\"}}]}",
                "{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",}",
                "{\"a\u0000")) {
            Files.writeString(session, bad);
            assertThat(run("check", session.toString())).isEqualTo(2);
            assertRefused("expected");
            assertThat(terminal.err())
                    .doesNotContain("Stream", "Unexpected", "regex", "constant", "com.fasterxml", "\u001b");
        }
    }

    @Test
    void whatAFileIsCalledCannotDoAnythingToATerminal() throws IOException {
        Files.write(
                session,
                SessionContent.json(
                        LamplightersRound.session()
                                .withSources(List.of(LamplightersRound.session()
                                        .source("larkspur")
                                        .orElseThrow()
                                        .with()
                                        .name("Lark\u001b[2Jspur\u0007")
                                        .build())),
                        LamplightersRound.performance()));
        assertThat(run("trace", session.toString(), "--source", "larkspur", "--note", "60"))
                .isZero();
        assertThat(terminal.out()).contains("Lark\\u001b[2Jspur\\u0007").doesNotContain("\u001b");
    }

    /** A session with more ports of instruments than can be told apart. */
    @Test
    void tooManyPortsAreSaid() throws IOException {
        StringBuilder json =
                new StringBuilder("{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"instruments\":[");
        for (int i = 0; i < 300; i++) {
            json.append(i == 0 ? "" : ",").append("{\"id\":\"i").append(i).append("\"}");
        }
        Files.writeString(session, json.append("]}"));
        assertThat(run("check", session.toString())).isEqualTo(2);
        assertRefused("(expected at most 256)");
    }

    @Test
    void whatIsPrintedAsJsonIsAsItsSchemaSays() throws IOException {
        JsonNode text;
        try (InputStream in = Main.class.getResourceAsStream("output.schema.json")) {
            text = JSON.readTree(in);
        }
        for (String[] args : new String[][] {
            {"check", session.toString(), "--json"},
            {"trace", session.toString(), "--source", "larkspur", "--note", "60", "--json"},
            {"trace", session.toString(), "--source", "tansy", "--bend", "0", "--channel", "1", "--json"},
            {"sort", midi.toString(), "--by", "hand", "-o", output.toString(), "--json"},
            {"ports", "--json"},
            {"route", session.toString(), midi.toString(), "--events"}
        }) {
            assertThat(run(args)).isBetween(0, 1);
            Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                    .getSchema(((com.fasterxml.jackson.databind.node.ObjectNode) text.deepCopy())
                            .put("$id", "urn:dibble:" + args[0])
                            .put("$ref", "#/$defs/" + args[0]));
            for (String line : terminal.out().lines().toList()) {
                assertThat(schema.validate(JSON.readTree(line)))
                        .as(args[0] + ": " + line)
                        .isEmpty();
            }
            assertThat(terminal.bytes())
                    .isEqualTo(terminal.out().getBytes(StandardCharsets.UTF_8))
                    .isNotEmpty();
        }
    }

    @ParameterizedTest
    @CsvSource({
        "edit --do half-time -o a -o b",
        "edit -o a -o b --do x",
        "sort --by key --by x -o",
        "render --rate 1 --rate 2 q",
        "quantize -o x -o y"
    })
    void doubledOptionsWithAnotherMistakeAreOneLine(String line) {
        assertThat(run(line.split(" "))).isEqualTo(2);
        assertThat(terminal.errors()).hasSize(1);
        assertThat(terminal.err()).startsWith("dibble: ").contains("expected once");
    }

    @ParameterizedTest
    @ValueSource(strings = {"/", "a\\u0000b", "", " "})
    void setsNameSessionsByPathsThatFilesCanHave(String file) throws IOException {
        Path set = folder.resolve("evening.dibbleset");
        Files.writeString(
                set, "{\"format\": \"dibble-set\", \"version\": 1, \"sessions\": [{\"file\": \"" + file + "\"}]}");
        assertThat(run("sheet", set.toString(), "-o", folder.resolve("s.pdf").toString()))
                .isEqualTo(2);
        assertRefused("expected the path of a session");
    }

    @ParameterizedTest
    @ValueSource(strings = {"half-time", "double-time", "fit=2", "reverse", "legato=10", "into-scale=c,major"})
    void offsWithoutTheirNotesStopNoChange(String change) throws IOException {
        MidiTrack offs = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOff(0, 60, 64))
                .add(480, ShortMessage.noteOn(0, 61, 80))
                .add(500, ShortMessage.noteOff(0, 62, 64))
                .add(700, ShortMessage.noteOff(0, 61, 64))
                .build();
        Files.write(midi, MidiFileWriter.write(new MidiFile(1, 480, List.of(offs))));
        assertThat(run("edit", midi.toString(), "--do", change, "-o", output.toString()))
                .isZero();
        assertThat(MidiFileReader.read(output).tracks()).hasSize(1);
    }
}
