package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class WheelStepsTest {
    private final WheelSteps wheel = new WheelSteps();

    @Test
    void notchIsOneStep() {
        assertThat(wheel.add(40)).isEqualTo(1);
        assertThat(wheel.add(-40)).isEqualTo(-1);
        assertThat(wheel.add(120)).isEqualTo(3);
    }

    @Test
    void sixtyPixelsOfATrackpadAreOneStep() {
        int steps = 0;
        for (int i = 0; i < 40; i++) {
            steps += wheel.add(1.5);
        }
        assertThat(steps).isEqualTo(1);
    }

    @Test
    void turningBackStartsAgain() {
        assertThat(wheel.add(39)).isZero();
        assertThat(wheel.add(-39)).isZero();
        assertThat(wheel.add(-1)).isEqualTo(-1);
    }
}
