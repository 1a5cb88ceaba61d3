package dibble.paper;

import static dibble.text.CoreText.say;

import dibble.midi.MiddleC;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import dibble.session.Colours;
import dibble.sheet.Sheet;
import dibble.text.XmlText;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.regex.Pattern;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/**
 * A sheet as one HTML file that is well-formed XML, without scripts and external content. The {@link SheetPdf} is made
 * from the same file.
 */
public final class SheetHtml {
    private static final double LANE_MM = 5.2;
    private static final double KEYS_MM = 5.5;
    private static final double OCTAVE_MM = 3.8;
    private static final int OCTAVE = 12;

    /** A table of so few rows stays on one page. */
    private static final int SHORT = 12;

    private static final int MAX_TEXT = 1000;
    private static final Pattern LONG_WORD = Pattern.compile("(\\S{120})\\S+");

    private final XMLStreamWriter out;
    private final MiddleC middleC;

    private SheetHtml(XMLStreamWriter out, MiddleC middleC) {
        this.out = out;
        this.middleC = middleC;
    }

    /**
     * @param middleC the numbering of octaves under keyboards
     * @param paper the paper size for printing
     */
    public static String of(Sheet sheet, MiddleC middleC, PaperSize paper) {
        StringWriter text = new StringWriter();
        try {
            XMLStreamWriter out = XMLOutputFactory.newInstance().createXMLStreamWriter(text);
            text.write("<!DOCTYPE html>\n");
            new SheetHtml(out, middleC).write(sheet, paper);
            out.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException("a sheet that cannot be written to memory", e);
        }
        return text.toString();
    }

    private static String style(Sheet sheet, PaperSize paper) {
        try (InputStream in = SheetHtml.class.getResourceAsStream("sheet.css")) {
            String name = shortened(sheet.title()).replaceAll("[\"\\\\\\p{Cntrl}<>]", " ");
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .replace("$SIZE", paper.word())
                    .replace("$NAME", name + ", " + date(sheet))
                    .replace("$PAGE", say("sheet.page"))
                    .replace("$OF", say("sheet.of"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String date(Sheet sheet) {
        return DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.ENGLISH).format(sheet.date());
    }

    private void write(Sheet sheet, PaperSize paper) throws XMLStreamException {
        out.writeStartElement("html");
        out.writeAttribute("lang", "en");
        out.writeStartElement("head");
        out.writeEmptyElement("meta");
        out.writeAttribute("charset", "utf-8");
        element("title", "", sheet.title());
        start("style", "");
        out.writeCharacters(XmlText.of(style(sheet, paper)));
        out.writeEndElement();
        out.writeEndElement();
        out.writeStartElement("body");
        for (Sheet.Page page : sheet.pages()) {
            out.writeStartElement("section");
            out.writeStartElement("header");
            element("p", "session", sheet.title());
            element("p", "date", date(sheet));
            element("h1", "", page.title());
            if (!page.about().isEmpty()) {
                element("p", "about", page.about());
            }
            out.writeEndElement();
            for (Sheet.Block block : page.blocks()) {
                block(block);
            }
            out.writeEndElement();
        }
        out.writeEndElement();
        out.writeEndElement();
    }

    private void element(String name, String css, String text) throws XMLStreamException {
        start(name, css);
        text(text);
        out.writeEndElement();
    }

    private void text(String text) throws XMLStreamException {
        out.writeCharacters(XmlText.of(shortened(text)));
    }

    /** No page has room for more, and laying it out takes time that grows with the square of a word. */
    private static String shortened(String text) {
        String cut = text.length() <= MAX_TEXT ? text : text.substring(0, MAX_TEXT) + "…";
        return LONG_WORD.matcher(cut).replaceAll("$1…");
    }

    private void start(String name, String css) throws XMLStreamException {
        out.writeStartElement(name);
        if (!css.isEmpty()) {
            out.writeAttribute("class", css);
        }
    }

    private void block(Sheet.Block block) throws XMLStreamException {
        if (block instanceof Sheet.Table table) {
            table(table);
        } else if (block instanceof Sheet.Board board) {
            board(board);
        } else if (block instanceof Sheet.Remark remark) {
            element("p", "remark", remark.text());
        }
    }

    private void table(Sheet.Table table) throws XMLStreamException {
        String columns = "columns-" + table.heads().size();
        start("table", table.rows().size() > SHORT ? columns : columns + " short");
        element("caption", "", table.title());
        out.writeStartElement("thead");
        out.writeStartElement("tr");
        boolean hasChips =
                table.rows().stream().anyMatch(row -> !row.get(0).chip().isEmpty());
        if (hasChips) {
            element("td", "chip-column", "");
        }
        for (String head : table.heads()) {
            out.writeStartElement("th");
            out.writeAttribute("scope", "col");
            text(head);
            out.writeEndElement();
        }
        out.writeEndElement();
        out.writeEndElement();
        out.writeStartElement("tbody");
        for (var row : table.rows()) {
            out.writeStartElement("tr");
            if (hasChips) {
                chip(row.get(0).colour(), row.get(0).chip());
            }
            for (int i = 0; i < row.size(); i++) {
                start(i == 0 ? "th" : "td", i == 1 ? "second" : i == row.size() - 2 ? "last-but-one" : "");
                if (i == 0) {
                    out.writeAttribute("scope", "row");
                }
                text(row.get(i).text());
                out.writeEndElement();
            }
            out.writeEndElement();
        }
        out.writeEndElement();
        out.writeEndElement();
    }

    /** A separate cell, so that the badge is never above its name. */
    private void chip(int colour, String text) throws XMLStreamException {
        start("td", "chip-column");
        if (!text.isEmpty()) {
            start("span", "chip");
            out.writeAttribute("style", paint(colour));
            text(text);
            out.writeEndElement();
        }
        out.writeEndElement();
    }

    private static String paint(int colour) {
        return "background: " + Colours.hex(colour) + "; color: " + Colours.inkHex(colour) + ";";
    }

    private void board(Sheet.Board board) throws XMLStreamException {
        start("div", "board");
        element("h2", "", board.name());
        element("p", "about", board.about());
        start("div", "keyboard");
        out.writeAttribute(
                "style", String.format(Locale.ROOT, "height: %.1fmm", board.lanes() * LANE_MM + KEYS_MM + OCTAVE_MM));
        for (Sheet.Band band : board.bands()) {
            band(board, band);
        }
        keys(board, board.lanes() * LANE_MM);
        out.writeEndElement();
        lines(board);
        out.writeEndElement();
    }

    private static String place(Range keys, int low, int high) {
        double count = keys.high() - keys.low() + 1;
        return String.format(
                Locale.ROOT,
                "left: %.3f%%; width: %.3f%%; ",
                100 * (Math.max(low, keys.low()) - keys.low()) / count,
                100 * (Math.min(high, keys.high()) - Math.max(low, keys.low()) + 1) / count);
    }

    private void band(Sheet.Board board, Sheet.Band band) throws XMLStreamException {
        start("div", band.always() ? "band" : "band own");
        out.writeAttribute(
                "style",
                place(board.ruler(), band.keys().low(), band.keys().high())
                        + String.format(Locale.ROOT, "top: %.1fmm; ", (board.lanes() - 1 - band.lane()) * LANE_MM)
                        + paint(band.colour()));
        element("b", "", band.letter());
        text(" " + band.name());
        out.writeEndElement();
    }

    /** A column for each key, the black ones dark and short; below the Cs their names. */
    private void keys(Sheet.Board board, double top) throws XMLStreamException {
        Range keys = board.keys();
        Range ruler = board.ruler();
        start("div", "whites");
        out.writeAttribute(
                "style", place(ruler, keys.low(), keys.high()) + String.format(Locale.ROOT, "top: %.1fmm", top));
        out.writeEndElement();
        for (int key = keys.low(); key <= keys.high(); key++) {
            boolean black = NoteNames.isBlack(key);
            // Where two white keys meet with no black one between them there is a line.
            if (black || key % OCTAVE == 0 || key % OCTAVE == 5) {
                start("div", black ? "black" : "edge");
                out.writeAttribute("style", place(ruler, key, key) + String.format(Locale.ROOT, "top: %.1fmm", top));
                out.writeEndElement();
            }
            if (key % OCTAVE == 0 && key + 3 <= keys.high()) {
                start("div", "octave");
                out.writeAttribute(
                        "style", place(ruler, key, key + 3) + String.format(Locale.ROOT, "top: %.1fmm", top + KEYS_MM));
                text(NoteNames.name(key, middleC));
                out.writeEndElement();
            }
        }
    }

    private void lines(Sheet.Board board) throws XMLStreamException {
        start("table", "lines");
        out.writeStartElement("tbody");
        for (Sheet.Band band : board.bands()) {
            out.writeStartElement("tr");
            element("td", "letter", band.letter());
            chip(band.colour(), band.channel());
            out.writeStartElement("th");
            out.writeAttribute("scope", "row");
            text(band.name());
            out.writeEndElement();
            out.writeStartElement("td");
            text(String.join(" · ", band.details()) + (band.always() ? "" : " · " + say("sheet.in-this-scene-only")));
            out.writeEndElement();
            out.writeEndElement();
        }
        out.writeEndElement();
        out.writeEndElement();
    }
}
