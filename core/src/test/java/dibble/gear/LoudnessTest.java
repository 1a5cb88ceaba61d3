package dibble.gear;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class LoudnessTest {
    @Test
    void volumesAreThoseOfGeneralMidi2() {
        assertThat(Loudness.ofVolume(127)).isZero();
        assertThat(Loudness.ofVolume(64)).isCloseTo(-11.9, within(0.05));
        assertThat(Loudness.ofVolume(100)).isCloseTo(-4.15, within(0.01));
        assertThat(Loudness.ofVolume(0)).isEqualTo(Loudness.SILENCE);
        assertThat(Loudness.volume(6)).isEqualTo(127);
        assertThat(Loudness.gain(-6.0206)).isCloseTo(0.5, within(1e-5));
        assertThat(Loudness.gain(Loudness.SILENCE)).isZero();
        assertThat(Loudness.ofGain(0)).isEqualTo(Loudness.SILENCE);
    }

    @Property
    void aVolumeComesBackFromItsLevel(@ForAll @IntRange(max = 127) int volume) {
        assertThat(Loudness.volume(Loudness.ofVolume(volume))).isEqualTo(volume);
        assertThat(Strip.PLAIN.withVolume(volume).volume()).isEqualTo(volume);
    }

    @Property
    void panKeepsThePowerAndTheMiddleIsNothing(@ForAll @IntRange(max = 127) int pan) {
        double left = Loudness.left(pan);
        double right = Loudness.right(pan);
        assertThat(left * left + right * right).isCloseTo(2, within(1e-9));
        assertThat(Loudness.left(64)).isCloseTo(1, within(1e-9));
        assertThat(Loudness.right(64)).isCloseTo(1, within(1e-9));
    }

    @Property
    void levelsAreKeptInTenthsWithinTheirEnds(@ForAll @DoubleRange(min = -200, max = 50) double level) {
        Strip strip = Strip.PLAIN.withLevel(level);
        assertThat(strip.level()).isLessThanOrEqualTo(Loudness.MAX);
        if (level >= Loudness.MIN && level <= Loudness.MAX) {
            assertThat(strip.level()).isCloseTo(level, within(0.0501));
        } else if (level < Loudness.MIN) {
            assertThat(strip.level()).isEqualTo(Loudness.SILENCE);
        }
    }

    @Test
    void whatNoStripCanHaveIsRefused() {
        assertThatThrownBy(() -> new Strip(7.0, null, 0, 0, 1, 0))
                .hasMessageContaining("level 7 dB (expected -90 to 6, or silence)");
        assertThatThrownBy(() -> new Strip(null, null, 0, 0, 65, 0)).hasMessageContaining("output 65");
        assertThatThrownBy(() -> new Strip(null, null, 0, 0, 1, 9)).hasMessageContaining("group 9");
    }
}
