package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class NoteNamesTest {
    @ParameterizedTest
    @CsvSource({
        "C4, 60",
        "c4, 60",
        "F#3, 54",
        "F♯3, 54",
        "Gb3, 54",
        "G♭3, 54",
        "B3, 59",
        "Bb3, 58",
        "54, 54",
        "F♯3 54, 54",
        "C-1, 0",
        "G9, 127"
    })
    void namesAndNumbersAreUnderstood(String text, int note) {
        assertThat(NoteNames.parse(text, MiddleC.C4)).hasValue(note);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "H3", "G#9", "128", "C", "C4 x", "-5"})
    void theRestIsNot(String text) {
        assertThat(NoteNames.parse(text, MiddleC.C4)).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(MiddleC.class)
    void everyNameIsReadAsItsNote(MiddleC middleC) {
        assertThat(NoteNames.name(60, middleC)).isEqualTo(middleC.name());
        for (int note = 0; note < 128; note++) {
            assertThat(NoteNames.parse(NoteNames.nameAndNumber(note, middleC), middleC))
                    .hasValue(note);
        }
    }
}
