package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.text.UserException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class MessageTextTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "F#3 100; 92 36 64",
                "f♯3, 100; 92 36 64",
                "54; 92 36 60",
                "F#3 54 100; 92 36 64",
                "CC 64 127; B2 40 7F",
                "cc 1; B2 01 7F",
                "controller 7 0; B2 07 00",
                "program 1; C2 00",
                "bend 8192; E2 00 40",
                "pressure 40; D2 28",
                "key pressure C4 40; A2 3C 28",
                "RPN 1 8197; B2 65 00 B2 64 01 B2 06 40 B2 26 05",
                "nrpn 300 0; B2 63 02 B2 62 2C B2 06 00 B2 26 00",
                "CC14 7 8197; B2 07 40 B2 27 05"
            })
    void messagesAreReadAsTheyAreTyped(String text, String bytes) {
        StringBuilder read = new StringBuilder();
        for (int message : MessageText.parse(text, 2, MiddleC.C4).whole()) {
            for (byte each : ShortMessage.bytes(message)) {
                read.append(String.format("%02X ", each));
            }
        }
        assertThat(read.toString().strip()).isEqualTo(bytes);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "H3",
                "CC",
                "CC 128",
                "program 0",
                "program 129",
                "bend 16384",
                "key C4 40",
                "RPN 16383 0",
                "RPN 0",
                "CC14 32 0",
                "C4 0",
                "C4 1 2 3 4"
            })
    void whatCannotBeReadIsSaidWithWhatWasExpected(String text) {
        assertThatThrownBy(() -> MessageText.parse(text, 0, MiddleC.C4))
                .isInstanceOf(UserException.class)
                .hasMessageContaining("expected");
    }

    @Test
    void controllersHaveTheStandardsNames() {
        assertThat(ControllerNames.numberAndName(64)).isEqualTo("CC 64 sustain");
        assertThat(ControllerNames.name(3)).isEmpty();
    }
}
