package dibble.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.StringLength;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.junit.jupiter.api.Test;

class PlainTextTest {
    @Test
    void textOfEachUnicodeEncodingIsReadAndAnotherIsRefusedByLine() {
        String text = "name\nClarté, 雪\n";
        for (Charset charset : List.of(StandardCharsets.UTF_8, StandardCharsets.UTF_16LE, StandardCharsets.UTF_16BE)) {
            assertThat(PlainText.decode(("\uFEFF" + text).getBytes(charset))).isEqualTo(text);
        }
        assertThat(PlainText.decode(text.getBytes(StandardCharsets.UTF_8))).isEqualTo(text);
        assertThat(PlainText.decode(new byte[0])).isEmpty();
        assertThatThrownBy(() -> PlainText.decode("name\nClarté\n".getBytes(StandardCharsets.ISO_8859_1)))
                .isInstanceOf(UserException.class)
                .hasMessageContaining("line 2: not in UTF-8");
    }

    /** A spreadsheet executes no cell, and the text is read back unchanged. */
    @Property(tries = 2000)
    void cellsComeBackAndNoneIsAFormula(
            @ForAll @StringLength(max = 6) @CharRange(from = ' ', to = '?') @CharRange(from = '\t', to = '\t')
                    String text) {
        String cell = Csv.cell(text);
        assertThat(Csv.text(cell)).isEqualTo(text);
        assertThat(cell)
                .satisfiesAnyOf(
                        it -> assertThat(it).doesNotMatch("(?s)[=+\\-@\t\r].*"),
                        it -> assertThat(it).matches("[+-]?[0-9.,]+"));
    }

    @Property(tries = 500)
    void rowsComeBack(@ForAll @StringLength(max = 8) @CharRange(from = ' ', to = '~') String text) throws IOException {
        String trimmed = text.strip();
        String row = CSVFormat.RFC4180.format("name", Csv.cell(trimmed)).replace("\r\n", "");
        try (CSVParser rows = Csv.rows("a,b\n" + row + "\n")) {
            assertThat(Csv.text(rows.getRecords().get(0).get("b"))).isEqualTo(trimmed);
        }
    }
}
