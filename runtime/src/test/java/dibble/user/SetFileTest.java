package dibble.user;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.files.SessionFormatException;
import dibble.gear.UnknownFields;
import dibble.session.SessionSet;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SetFileTest {
    @Test
    void aSetComesBackAsItWas(@TempDir Path folder) throws Exception {
        SessionSet set = SessionSet.empty("Evening")
                .with(new SessionSet.Entry("round.dibble", "lamps first", 72.5, UnknownFields.NONE))
                .with(new SessionSet.Entry("../snow.dibble"))
                .withPedals(80, null)
                .swapped(0, 1);
        Path file = folder.resolve("evening" + SetFile.ENDING);
        SetFile.write(set, file);
        assertThat(SetFile.read(file)).isEqualTo(set);
    }

    @Test
    void whatIsNotKnownIsKept() throws Exception {
        String json = "{\"format\":\"dibble-set\",\"version\":1,\"name\":\"E\",\"hall\":\"small\","
                + "\"sessions\":[{\"file\":\"a.dibble\",\"light\":\"blue\"}]}";
        SessionSet set = SetFile.read(json.getBytes(StandardCharsets.UTF_8), "e");
        assertThat(new String(SetFile.write(set), StandardCharsets.UTF_8)).contains("\"small\"", "\"blue\"");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{} | not a set",
                "[ | not JSON",
                "{\"format\":\"dibble-set\",\"sessions\":[{}]} | file",
                "{\"format\":\"dibble-set\",\"next\":128} | 128 (expected 0 to 127)",
                "{\"format\":\"dibble-set\",\"version\":2} | 2 (expected 1 to 1)",
                "{\"format\":\"dibble-set\",\"sessions\":[{\"file\":\"a\",\"tempo\":1}]} | expected 5"
            })
    void whatCannotBeReadIsSaidInOneLine(String json, String message) {
        assertThatThrownBy(() -> SetFile.read(json.getBytes(StandardCharsets.UTF_8), "e"))
                .isInstanceOf(SessionFormatException.class)
                .hasMessageContaining(message)
                .extracting(Throwable::getMessage)
                .asString()
                .doesNotContain("\n");
    }
}
