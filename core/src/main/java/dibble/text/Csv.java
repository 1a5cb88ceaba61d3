package dibble.text;

import java.io.IOException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;

/** Comma-separated values (RFC 4180) as spreadsheets write them: some with semicolons, some with a byte order mark. */
public final class Csv {
    private Csv() {}

    /**
     * The rows of a text under the heads of its first.
     *
     * @throws IOException where the first row cannot be read
     * @throws UserException where a head is missing or stands there twice
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
