package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.NoteNames;
import dibble.midi.Range;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PianoTest {
    private static final Range KEYS = new Range(28, 100);

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void everyKeyIsFoundWhereItIsDrawn(boolean columns) {
        Piano piano = columns ? Piano.columns(KEYS, 10, 900) : Piano.row(KEYS, 10, 900);
        for (int key = KEYS.low(); key <= KEYS.high(); key++) {
            double middle = piano.x(key) + piano.width(key) / 2;
            assertThat(piano.keyAt(middle, NoteNames.isBlack(key) ? 0.3 : 0.9)).isEqualTo(key);
        }
        assertThat(piano.keyAt(5, 0.9)).isEqualTo(-1);
        assertThat(piano.keyAt(50, 1.2)).isEqualTo(-1);
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void whiteKeysFillTheWidthWithoutGaps(boolean columns) {
        Piano piano = columns ? Piano.columns(KEYS, 10, 900) : Piano.row(KEYS, 10, 900);
        double x = 10;
        for (int key = KEYS.low(); key <= KEYS.high(); key++) {
            if (!NoteNames.isBlack(key)) {
                assertThat(piano.x(key)).isCloseTo(x, org.assertj.core.data.Offset.offset(1e-6));
                x += piano.width(key);
            }
        }
        assertThat(x).isCloseTo(910, org.assertj.core.data.Offset.offset(1e-6));
    }

    @Test
    void columnsOfTwoKeyboardsOnOneRulerLineUp() {
        Piano whole = Piano.columns(new Range(24, 107), 0, 840);
        Piano part = Piano.columns(new Range(53, 84), 290, 320);
        assertThat(part.x(61)).isCloseTo(whole.x(61), org.assertj.core.data.Offset.offset(1e-6));
    }
}
