package dibble.jack;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class BlockTimeTest {
    private final BlockTime time = new BlockTime();

    @Property
    void whatIsHeardOnAFrameIsSentOnItInTheSameBlock(
            @ForAll @LongRange(min = -1L << 60, max = 1L << 60) long start,
            @ForAll @IntRange(min = 16, max = 8192) int frames,
            @ForAll @IntRange(min = 8000, max = 192_000) int rate,
            @ForAll @IntRange(min = 0, max = 8191) int frame) {
        time.begin(start, frames, rate);
        int at = frame % frames;
        assertThat(time.frame(time.stamp(at))).isEqualTo(at);
    }

    @Test
    void whatComesWhileABlockIsMadeGoesOutABlockLater() {
        time.begin(0, 480, 48_000);
        assertThat(time.frame(0)).isEqualTo(480);
        assertThat(time.frame(5_000_000)).isEqualTo(720);
        time.begin(10_000_000, 480, 48_000);
        assertThat(time.frame(5_000_000)).isEqualTo(240);
    }

    @Test
    void whatIsLateGoesOutAtOnce() {
        time.begin(5_000_000_000L, 480, 48_000);
        assertThat(time.frame(4_900_000_000L)).isZero();
        assertThat(time.frame(0)).isZero();
        assertThat(time.frame(Long.MAX_VALUE)).isGreaterThan(480);
    }
}
