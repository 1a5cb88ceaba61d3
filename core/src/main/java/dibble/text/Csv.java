package dibble.text;

import java.io.IOException;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;

/** Comma-separated values (RFC 4180) as spreadsheets write them: some with semicolons, some with a byte order mark. */
public final class Csv {
    private static final Pattern RUNS = Pattern.compile("(?s)'*[=+\\-@\t\r].*");
    private static final Pattern NUMBER = Pattern.compile("[+-]?\\d+([.,]\\d+)?");

    private Csv() {}

    /** Returns the text of a cell as it is written: where a spreadsheet would run it, with an apostrophe before it. */
    public static String cell(String text) {
        return RUNS.matcher(text).matches() && !NUMBER.matcher(text).matches() ? "'" + text : text;
    }

    /** Returns the text of a cell that {@link #cell} wrote. */
    public static String text(String cell) {
        return cell.startsWith("'") && RUNS.matcher(cell).matches() ? cell.substring(1) : cell;
    }

    /**
     * Returns the rows of a text under the headings of its first row.
     *
     * @throws IOException if the first row cannot be read
     * @throws UserException if a heading is missing or repeated
     */
    public static CSVParser rows(String text) throws IOException {
        String plain = text.startsWith("\uFEFF") ? text.substring(1) : text;
        int end = plain.indexOf('\n');
        String first = end < 0 ? plain : plain.substring(0, end);
        return CSVParser.parse(
                plain,
                CSVFormat.RFC4180
                        .builder()
                        .setDelimiter(first.indexOf(';') >= 0 && first.indexOf(',') < 0 ? ';' : ',')
                        .setHeader()
                        .setSkipHeaderRecord(true)
                        .setIgnoreHeaderCase(true)
                        .setIgnoreEmptyLines(true)
                        .setIgnoreSurroundingSpaces(true)
                        .get());
    }
}
