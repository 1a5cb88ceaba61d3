package dibble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.files.SessionContent;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.sheet.SheetCsv;
import dibble.user.SetFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Sheets of sessions, and their comparison. */
class SheetCommandTest {
    @TempDir
    private Path folder;

    private Path session;
    private final Terminal terminal = new Terminal();

    @BeforeEach
    void write() throws Exception {
        session = write("session.json", LamplightersRound.session());
    }

    private Path write(String name, Session written) throws Exception {
        return Files.write(folder.resolve(name), SessionContent.json(written, LamplightersRound.performance()));
    }

    private int sheet(String name, String... more) {
        String[] args = {"sheet", session.toString(), "-o", folder.resolve(name).toString()};
        String[] all = Arrays.copyOf(args, args.length + more.length);
        System.arraycopy(more, 0, all, args.length, more.length);
        return terminal.run(all);
    }

    @Test
    void theKindOfTheFileIsThatOfItsName() throws Exception {
        assertThat(sheet("round.pdf", "--paper", "letter")).isZero();
        assertThat(new String(Files.readAllBytes(folder.resolve("round.pdf")), 0, 5, StandardCharsets.ISO_8859_1))
                .isEqualTo("%PDF-");
        assertThat(sheet("round.HTML")).isZero();
        // Paper has the signs that print has, though a terminal has not.
        assertThat(Files.readString(folder.resolve("round.HTML"))).contains("<h1>Scene Dusk</h1>", "velocities 1–78");
        assertThat(sheet("round.csv")).isZero();
        assertThat(SheetCsv.read(Files.readString(folder.resolve("round.csv")), LamplightersRound.session()))
                .isEqualTo(LamplightersRound.session());
        assertThat(terminal.err()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "round.txt || expected a name that ends with .pdf, .html or .csv",
                "round.pdf | a3 | --paper a3 (expected one of a4, letter)"
            })
    void whatCannotBeMadeIsSaidInOneLine(String name, String paper, String message) {
        assertThat(sheet(name, paper == null ? new String[0] : new String[] {"--paper", paper}))
                .isEqualTo(2);
        assertThat(terminal.errors()).hasSize(1);
        assertThat(terminal.err()).startsWith("dibble: ").contains(message);
        assertThat(folder.resolve(name)).doesNotExist();
    }

    @Test
    void sessionsThatDifferAnswerOne() throws Exception {
        Path same = write("same.json", LamplightersRound.session());
        assertThat(terminal.run("compare", session.toString(), same.toString())).isZero();
        assertThat(terminal.out()).isEqualTo("no differences\n");
        Path other = write(
                "other.json",
                ZoneEdits.changeZone(LamplightersRound.session(), "celesta", zone -> zone.withTranspose(12)));
        assertThat(terminal.run("compare", session.toString(), other.toString()))
                .isEqualTo(1);
        assertThat(terminal.out().lines()).hasSize(1).first().asString().startsWith("zone Celesta: details: ");
        assertThat(terminal.run("compare", "--json", session.toString(), other.toString()))
                .isEqualTo(1);
        JsonNode change = new ObjectMapper().readTree(terminal.out()).at("/differences/0/changes/0");
        assertThat(change.at("/second").asText()).endsWith("↑12");
    }

    @Test
    void aParameterIsTracedAsOneValue() {
        assertThat(terminal.run("trace", session.toString(), "--source", "larkspur", "--rpn", "1", "--value", "8197"))
                .isZero();
        assertThat(terminal.out()).contains("RPN 1, value 8197").contains("zone Celesta: Sorrel, channel 1: RPN 1");
        assertThat(terminal.run("trace", session.toString(), "--source", "larkspur", "--nrpn", "16383"))
                .isEqualTo(2);
        assertThat(terminal.err()).contains("--nrpn 16383 (expected 0 to 16382)");
    }

    @Test
    void aSetIsOneDocument() throws Exception {
        write("first.json", LamplightersRound.session().withName("First"));
        SetFile.write(
                SessionSet.empty("Evening")
                        .with(new SessionSet.Entry("first.json"))
                        .with(new SessionSet.Entry("session.json")),
                folder.resolve("evening.dibbleset"));
        Path to = folder.resolve("evening.html");
        assertThat(terminal.run("sheet", folder.resolve("evening.dibbleset").toString(), "-o", to.toString()))
                .isZero();
        assertThat(Files.readString(to))
                .contains("<h1>First: Scene Dusk</h1>", "<h1>The Lamplighter’s Round: Scene Snow</h1>");
        assertThat(terminal.run("sheet", folder.resolve("evening.dibbleset").toString(), "-o", "evening.csv"))
                .isEqualTo(2);
    }
}
