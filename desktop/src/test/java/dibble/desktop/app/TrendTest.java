package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class TrendTest {
    private static final double SHARE = 0.02;

    private static Trend of(IntToDoubleFunction value) {
        return Trend.ofSecondHalf(IntStream.range(0, 120).mapToDouble(value).toArray());
    }

    @Test
    void aSlowLeakIsSeenThroughNoiseAndOutliers() {
        Random random = new Random(1);
        Trend leak = of(i -> 100 + 0.1 * i + random.nextGaussian() + (i % 17 == 0 ? 50 : 0));
        assertThat(leak.slope()).isBetween(0.05, 0.15);
        assertThat(leak.rises(SHARE)).isTrue();
    }

    @Test
    void whatOnlyShakesOrWarmsUpDoesNotRise() {
        Random random = new Random(2);
        assertThat(of(i -> 100 + 5 * random.nextGaussian()).rises(SHARE)).isFalse();
        assertThat(of(i -> Math.min(i, 40)).rises(SHARE)).isFalse();
        assertThat(of(i -> 100).rises(SHARE)).isFalse();
        assertThat(of(i -> 100 - i).rises(SHARE)).isFalse();
    }

    @Test
    void aRiseThatIsSureButTinyIsNone() {
        assertThat(of(i -> 1000 + 0.01 * i).rises(SHARE)).isFalse();
        assertThat(of(i -> 1000 + 0.01 * i).rises(0)).isTrue();
    }

    @Test
    void fewSamplesProveNothing() {
        assertThat(Trend.ofSecondHalf(1, 2, 3, 4, 5, 6).rises(SHARE)).isFalse();
        assertThat(Trend.ofSecondHalf().rises(SHARE)).isFalse();
    }
}
