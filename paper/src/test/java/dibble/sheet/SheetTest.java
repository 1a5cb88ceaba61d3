package dibble.sheet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.gear.Part;
import dibble.midi.NoteNames;
import dibble.routing.ControlMap;
import dibble.routing.RandomRouting;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.junit.jupiter.api.Test;

class SheetTest {
    private static final LocalDate DAY = LocalDate.of(2026, 11, 28);
    private final Session demo = LamplightersRound.session();
    private final Performance performance = LamplightersRound.performance();

    /** Everything that a page says, a line for each cell. */
    private static String text(Sheet.Page page) {
        StringBuilder text = new StringBuilder(page.title() + "\n" + page.about() + "\n");
        for (Sheet.Block block : page.blocks()) {
            if (block instanceof Sheet.Table table) {
                text.append(table.title()).append("\n");
                table.rows()
                        .forEach(row -> text.append(row.stream()
                                        .map(cell -> cell.chip() + " " + cell.text())
                                        .collect(Collectors.joining(" | ")))
                                .append("\n"));
            } else if (block instanceof Sheet.Board board) {
                text.append(board.name()).append(" ").append(board.about()).append("\n");
                board.bands()
                        .forEach(band -> text.append(
                                band.channel() + " " + band.name() + " " + String.join(" · ", band.details()) + "\n"));
            } else {
                text.append(((Sheet.Remark) block).text()).append("\n");
            }
        }
        return text.toString();
    }

    @Test
    void theWholeSaysEachPartWithItsAddressAndWhoPlaysIt() {
        Sheet sheet = Sheet.of(demo, performance, DAY);
        String whole = text(sheet.pages().get(0));
        for (var instrument : demo.instruments()) {
            for (Part part : instrument.parts()) {
                String chip = SessionFormatter.channel(instrument.ref(part), demo.routing(performance));
                assertThat(whole).contains(chip + " " + part.name() + " |");
            }
        }
        assertThat(whole)
                .contains("Larkspur 73 E1–F3")
                .contains("9 Celesta")
                .contains("program change 2 of Larkspur 73 on channel 1")
                .contains("Low winds: CC 11 expression 0–127")
                .contains("main, −7.2 dB");
    }

    @Test
    void eachSceneHasItsPageWithAllThatIsActiveInIt() {
        Sheet sheet = Sheet.of(demo, performance, DAY);
        assertThat(sheet.pages()).hasSize(1 + demo.scenes().size());
        for (int i = 0; i < demo.scenes().size(); i++) {
            Scene scene = demo.scenes().get(i);
            String page = text(sheet.pages().get(1 + i));
            for (List<Zone> zones : List.of(demo.zones(), scene.zones())) {
                for (Zone zone : zones) {
                    assertThat(page)
                            .contains(SessionFormatter.zone(zone, demo))
                            .contains(NoteNames.nameAndNumber(zone.keys().low(), demo.middleC()) + "–"
                                    + NoteNames.nameAndNumber(zone.keys().high(), demo.middleC()));
                }
            }
            for (ControlMap map : scene.controls()) {
                assertThat(page).contains(SessionFormatter.controlMap(map, demo));
            }
        }
    }

    @Test
    void bandsThatOverlapLieInLanesAndAllKeyboardsOnOneRuler() {
        Sheet.Page dusk = Sheet.of(demo, performance, DAY).pages().get(1);
        List<Sheet.Board> boards = dusk.blocks().stream()
                .filter(Sheet.Board.class::isInstance)
                .map(Sheet.Board.class::cast)
                .toList();
        assertThat(boards.stream().map(Sheet.Board::ruler).distinct()).hasSize(1);
        for (Sheet.Board board : boards) {
            for (Sheet.Band one : board.bands()) {
                assertThat(board.bands().stream()
                                .filter(other -> other != one
                                        && other.lane() == one.lane()
                                        && other.keys().overlaps(one.keys())))
                        .isEmpty();
                assertThat(one.lane()).isLessThan(board.lanes());
            }
        }
    }

    @Test
    void rowsComeBackAsTheyWere() throws SheetFormatException {
        String csv = SheetCsv.of(demo);
        assertThat(SheetCsv.read(csv, demo)).isEqualTo(demo);
        // Into the same gear with nothing on it.
        Session bare = demo.withZones(List.of())
                .withControls(List.of())
                .withScenes(demo.scenes().stream()
                        .map(scene -> scene.withZones(List.of()).withControls(List.of()))
                        .toList());
        assertThat(SheetCsv.read(csv, bare)).isEqualTo(demo);
    }

    /** Spreadsheets of many countries write semicolons, and a mark of their encoding. */
    @Test
    void semicolonsAreReadToo() throws Exception {
        StringBuilder written = new StringBuilder("\uFEFF");
        try (CSVParser rows = CSVParser.parse(SheetCsv.of(demo), CSVFormat.RFC4180);
                CSVPrinter to = new CSVPrinter(
                        written, CSVFormat.RFC4180.builder().setDelimiter(';').get())) {
            to.printRecords(rows);
        }
        assertThat(SheetCsv.read(written.toString(), demo)).isEqualTo(demo);
    }

    @Property(tries = 200)
    void rowsOfAnySessionComeBackAsTheyWere(@ForAll long seed) throws SheetFormatException {
        Routing random = new RandomRouting(new Random(seed)).routing(12);
        Session session = Session.empty("Any, \"quoted\"")
                .withSources(random.sources())
                .withInstruments(random.instruments())
                .withZones(random.always())
                .withControls(random.controls())
                .withScenes(random.scenes());
        assertThat(SheetCsv.read(SheetCsv.of(session), session)).isEqualTo(session);
    }

    @Test
    void aRowThatIsWrongIsSaidWithItsPlace() {
        String csv = SheetCsv.of(demo);
        assertThatThrownBy(() -> SheetCsv.read(csv.replaceFirst(",1 to 127,", ",1 to 200,"), demo))
                .isInstanceOf(SheetFormatException.class)
                .hasMessage("row 2, column “velocity”: “1 to 200” (expected 0 to 127)");
        assertThatThrownBy(() -> SheetCsv.read("what,is,this\n1,2,3\n", demo))
                .isInstanceOf(SheetFormatException.class)
                .hasMessageContaining("no column kind");
        assertThatThrownBy(() -> SheetCsv.read("", demo)).isInstanceOf(SheetFormatException.class);
    }

    /** Bytes are changed, lost and doubled anywhere: it is read, or refused in one line. */
    @Property(tries = 100)
    void damagedRowsAreRefusedInOneLine(@ForAll long seed) {
        Random random = new Random(seed);
        StringBuilder csv = new StringBuilder(SheetCsv.of(demo));
        for (int n = random.nextInt(4); n >= 0; n--) {
            int at = random.nextInt(csv.length());
            switch (random.nextInt(4)) {
                case 0 -> csv.setCharAt(at, (char) random.nextInt(random.nextBoolean() ? 128 : 65_536));
                case 1 -> csv.delete(at, Math.min(csv.length(), at + random.nextInt(200)));
                case 2 -> csv.insert(at, csv.substring(at, Math.min(csv.length(), at + random.nextInt(200))));
                default -> csv.insert(at, "\"");
            }
        }
        try {
            SheetCsv.read(csv.toString(), demo);
        } catch (SheetFormatException e) {
            assertThat(e.getMessage()).isNotBlank().doesNotContain("\n").doesNotContain("Exception");
        }
    }

    @Test
    void sessionsAreComparedThingByThing() {
        assertThat(Comparison.of(demo, performance, demo, performance).differences())
                .isEmpty();
        Session other = ZoneEdits.changeZone(demo, "celesta", zone -> zone.withTranspose(12));
        other = other.withScenes(other.scenes().subList(0, 3));
        List<Comparison.Difference> differences =
                Comparison.of(demo, performance, other, performance).differences();
        assertThat(differences)
                .extracting(Comparison.Difference::text)
                .contains(
                        "zone Celesta: details: F♯3 54–E7 100 → F♯3 54–E7 100 · ↑12", "scene Snow: only in the first");
    }
}
