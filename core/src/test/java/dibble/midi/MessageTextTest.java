package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

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
                "key pressure C4 40; A2 3C 28"
            })
    void messagesAreReadAsTheyAreTyped(String text, String bytes) {
        StringBuilder read = new StringBuilder();
        for (byte each : ShortMessage.bytes(MessageText.parse(text, 2, MiddleC.C4))) {
            read.append(String.format("%02X ", each));
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
                "C4 0",
                "C4 1 2 3 4"
            })
    void whatCannotBeReadIsSaidWithWhatWasExpected(String text) {
        assertThatThrownBy(() -> MessageText.parse(text, 0, MiddleC.C4))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("expected");
    }

    @Test
    void controllersHaveTheStandardsNames() {
        assertThat(ControllerNames.numberAndName(64)).isEqualTo("CC 64 sustain");
        assertThat(ControllerNames.name(3)).isEmpty();
    }
}
