package dibble.sheet;

import dibble.midi.Range;
import dibble.session.Performance;
import dibble.session.Session;
import java.time.LocalDate;
import java.util.List;

/**
 * The content of a paper sheet for a music stand: a session in words, in reading order, without a layout.
 *
 * @param title the session's name
 * @param date the date of the sheet
 */
public record Sheet(String title, LocalDate date, List<Page> pages) {
    /**
     * A page, or as many as it needs.
     *
     * @param about a line under its title; may be empty
     */
    public record Page(String title, String about, List<Block> blocks) {}

    /** A block of a page, from top to bottom. */
    public sealed interface Block permits Board, Table, Remark {}

    /**
     * A source's keyboard with its zones, drawn to scale.
     *
     * @param about its port and channels, and unusual settings
     * @param keys the drawn keys: those of the source and of its zones
     * @param ruler the keys over the whole width of the page, the same for all its keyboards
     * @param lanes the most bands above each other
     */
    public record Board(String name, String about, Range keys, Range ruler, int lanes, List<Band> bands)
            implements Block {
        Board withRuler(Range other) {
            return new Board(name, about, keys, other, lanes, bands);
        }
    }

    /**
     * A zone on a keyboard.
     *
     * @param letter its letter in the lines under the keyboard
     * @param lane the number of bands below it, so that none covers another
     * @param colour of its part, 1-16, or 0
     * @param channel the channel of its part, as on a badge
     * @param name the name of its target
     * @param details keys, transposition, velocities and unusual settings
     * @param always whether it holds in every scene
     */
    public record Band(
            String letter,
            Range keys,
            int lane,
            int colour,
            String channel,
            String name,
            List<String> details,
            boolean always) {}

    /** Rows under their heads. */
    public record Table(String title, List<String> heads, List<List<Cell>> rows) implements Block {}

    /**
     * A cell of a table.
     *
     * @param colour of a part whose badge precedes the text, 1-16, or 0 for no badge
     * @param chip the text of the badge
     */
    public record Cell(int colour, String chip, String text) {
        public static Cell of(String text) {
            return new Cell(0, "", text);
        }
    }

    /** A sentence. */
    public record Remark(String text) implements Block {}

    /** The sheet of a session as it is now. */
    public static Sheet of(Session session, Performance performance, LocalDate date) {
        return new SheetMaker(session, performance).sheet(date);
    }

    /** The sheets of several sessions one after the other, as one. */
    public static Sheet together(String title, LocalDate date, List<Sheet> sheets) {
        return new Sheet(
                title,
                date,
                sheets.stream()
                        .flatMap(sheet -> sheet.pages().stream()
                                .map(page ->
                                        new Page(sheet.title() + ": " + page.title(), page.about(), page.blocks())))
                        .toList());
    }
}
