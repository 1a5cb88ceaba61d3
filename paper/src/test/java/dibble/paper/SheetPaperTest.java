package dibble.paper;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.MiddleC;
import dibble.midi.Range;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.sheet.Sheet;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.w3c.dom.Document;

/** What stands on paper, read back from it. */
class SheetPaperTest {
    private static final LocalDate DAY = LocalDate.of(2026, 11, 28);
    private final Session demo = LamplightersRound.session();

    private static byte[] pdf(Sheet sheet, PaperSize size) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        SheetPdf.write(sheet, MiddleC.C4, size, bytes);
        return bytes.toByteArray();
    }

    private Sheet sheet() {
        return Sheet.of(demo, LamplightersRound.performance(), DAY);
    }

    /** Words without the breaks of lines that paper has. */
    private static String flat(String text) {
        return text.replaceAll("\\s+", " ");
    }

    private static void assertHas(String read, String words) {
        assertThat(read).contains(flat(words).strip());
    }

    @ParameterizedTest
    @EnumSource(PaperSize.class)
    void theTextOfThePdfIsThatOfTheSheet(PaperSize size) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf(sheet(), size))) {
            String read = flat(new PDFTextStripper().getText(document));
            for (Sheet.Page page : sheet().pages()) {
                assertHas(read, page.title());
                for (Sheet.Block block : page.blocks()) {
                    assertIsThere(read, block);
                }
            }
            assertThat(read).contains("28 November 2026").contains("page 1 of " + document.getNumberOfPages());
            float width = document.getPage(0).getMediaBox().getWidth();
            assertThat(width).isBetween(size == PaperSize.A4 ? 595f : 612f, size == PaperSize.A4 ? 595.5f : 612.5f);
        }
    }

    /** A name without an end is cut: laying out one word takes time that grows with its square. */
    @Test
    void namesOfTenThousandLettersAreCut() throws IOException {
        Session named = demo.withName("x".repeat(10_000))
                .withSources(demo.sources().stream()
                        .map(source -> source.withName("y ".repeat(10_000)))
                        .toList());
        try (PDDocument document =
                Loader.loadPDF(pdf(Sheet.of(named, LamplightersRound.performance(), DAY), PaperSize.A4))) {
            String read = new PDFTextStripper().getText(document);
            assertThat(read).contains("x".repeat(20)).contains("…");
            assertThat(read.length()).isLessThan(100_000);
        }
    }

    private static void assertIsThere(String read, Sheet.Block block) {
        if (block instanceof Sheet.Table table) {
            assertHas(read, table.title());
            // A cell that is wrapped stands beside others: word by word, then.
            table.rows()
                    .forEach(row -> row.forEach(cell -> {
                        for (String word : cell.text().split(" ")) {
                            assertHas(read, word);
                        }
                    }));
        } else if (block instanceof Sheet.Board board) {
            assertHas(read, board.name());
            for (Sheet.Band band : board.bands()) {
                assertHas(read, band.channel() + " " + band.name());
                assertHas(read, band.details().get(1));
            }
        }
    }

    @Test
    void allFacesAreOursAndInTheFile() throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf(sheet(), PaperSize.A4))) {
            for (var page : document.getPages()) {
                for (var name : page.getResources().getFontNames()) {
                    PDFont font = page.getResources().getFont(name);
                    assertThat(font.getName()).contains("Dibble");
                    assertThat(font.isEmbedded()).isTrue();
                }
            }
        }
    }

    @Test
    void theDemoHasAPageForEachScene() throws IOException {
        try (Pages pages = new Pages(pdf(sheet(), PaperSize.A4))) {
            assertThat(pages.count()).isEqualTo(1 + demo.scenes().size());
            BufferedImage picture = pages.picture(1, 300, true);
            assertThat(picture.getWidth()).isBetween(299, 301);
            assertThat(picture.getHeight()).isBetween(423, 426);
        }
    }

    @Test
    void htmlIsOneFileThatNeedsNothingAndIsWellFormed() throws Exception {
        String html = SheetHtml.of(sheet(), MiddleC.C4, PaperSize.A4);
        Document read = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(html.getBytes(StandardCharsets.UTF_8)));
        for (String outside : List.of("script", "link", "img", "iframe")) {
            assertThat(read.getElementsByTagName(outside).getLength()).isZero();
        }
        assertThat(html).doesNotContain("http:", "https:", "url(").contains("lang=\"en\"");
        assertThat(read.getElementsByTagName("h1").getLength())
                .isEqualTo(sheet().pages().size());
        for (int i = 0; i < read.getElementsByTagName("table").getLength(); i++) {
            assertThat(read.getElementsByTagName("th").getLength()).isPositive();
        }
    }

    @Test
    void namesThatLookLikeMarkupAreNames() throws IOException {
        Session odd = demo.withName("<b>\"Round\" & \\ </style>\u0007 $NAME");
        Sheet sheet = Sheet.of(odd, LamplightersRound.performance(), DAY);
        try (PDDocument document = Loader.loadPDF(pdf(sheet, PaperSize.A4))) {
            assertThat(new PDFTextStripper().getText(document)).contains("<b>\"Round\" & \\ </style> $NAME");
        }
    }

    @Test
    void sixtyZonesAndSixteenTimesSixteenFillAsManyPagesAsTheyNeed() throws IOException {
        List<Part> parts = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        List<Source> sources = new ArrayList<>();
        for (int i = 0; i < 16; i++) {
            parts.add(Part.of("p" + i, "Part " + (i + 1), i + 1, i, Range.ALL, i + 1));
            sources.add(Source.keyboard("s" + i, "Keys " + (i + 1), "in-" + i, new Range(21, 108)));
            for (int j = 0; j < 16; j++) {
                zones.add(Zone.of(
                        "z" + i + "-" + j,
                        "Zone " + i + "." + j,
                        "s" + i,
                        new Range(21 + 5 * j, 27 + 5 * j),
                        new PartRef("m", "p" + j)));
            }
        }
        Session much = Session.empty("Sixteen by sixteen")
                .withSources(sources)
                .withInstruments(List.of(Instrument.of("m", "Module", false, "out", parts)))
                .withZones(zones);
        try (PDDocument document = Loader.loadPDF(pdf(Sheet.of(much, Performance.NEW, DAY), PaperSize.A4))) {
            String read = flat(new PDFTextStripper().getText(document));
            zones.forEach(zone -> assertHas(read, zone.name()));
            assertThat(document.getNumberOfPages()).isGreaterThan(4);
        }
    }
}
