package dibble.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.time.TempoMap.Meter;
import dibble.time.TempoMap.Place;
import dibble.time.TempoMap.Tempo;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class TempoMapTest {
    private final TempoMap map = new TempoMap(
            List.of(new Tempo(0, 60), new Tempo(3840, 120), new Tempo(9600, 93.7)),
            List.of(new Meter(0, 4, 4), new Meter(7680, 6, 8)));

    @Test
    void ticksBecomeTimeByTheTempoInForce() {
        assertThat(map.nanos(960)).isEqualTo(1_000_000_000L);
        assertThat(map.nanos(3840 + 960)).isEqualTo(4_500_000_000L);
    }

    @Property
    void timeAndTicksAreEachOthersInverse(@ForAll @LongRange(min = 0, max = 10_000_000) long tick) {
        assertThat(map.ticks(map.nanos(tick))).isEqualTo(tick);
    }

    @Test
    void placesAreCountedFromOneThroughTheMeters() {
        assertThat(map.place(0)).isEqualTo(new Place(1, 1, 0));
        assertThat(map.place(3839)).isEqualTo(new Place(1, 4, 959));
        assertThat(map.place(7680)).isEqualTo(new Place(3, 1, 0));
        assertThat(map.place(7680 + 2880)).isEqualTo(new Place(4, 1, 0));
        assertThat(map.barStart(4)).isEqualTo(7680 + 2880);
    }

    @Property
    void aBarBeginsOnItsFirstBeat(@ForAll @LongRange(min = 1, max = 5000) long bar) {
        assertThat(map.place(map.barStart(bar))).isEqualTo(new Place(bar, 1, 0));
    }

    @Test
    void badTemposAreRefused() {
        assertThatThrownBy(() -> new Tempo(0, Double.NaN)).hasMessage("tempo of NaN (expected 5 to 999)");
        assertThatThrownBy(() -> new TempoMap(List.of(new Tempo(5, 100)), List.of(new Meter(0, 4, 4))))
                .hasMessage("no tempo at tick 0");
    }
}
