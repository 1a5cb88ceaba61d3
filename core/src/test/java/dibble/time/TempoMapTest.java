package dibble.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dibble.time.TempoMap.Meter;
import dibble.time.TempoMap.Place;
import dibble.time.TempoMap.Tempo;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
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

    private static TempoMap random(Random random) {
        List<Tempo> tempos = new ArrayList<>(List.of(new Tempo(0, 5 + random.nextInt(900))));
        List<Meter> meters = new ArrayList<>(List.of(new Meter(0, 1 + random.nextInt(9), 4)));
        long tick = 0;
        for (int i = 0; i < random.nextInt(40); i++) {
            tick += 1 + random.nextInt(4000);
            tempos.add(new Tempo(tick, 5 + random.nextInt(900)));
            if (random.nextInt(3) == 0) {
                meters.add(new Meter(tick, 1 + random.nextInt(9), 1 << random.nextInt(5)));
            }
        }
        return new TempoMap(tempos, meters);
    }

    /** Counting from the beginning, bar for bar and tempo for tempo. */
    @Property(tries = 200)
    void whatIsLookedUpIsWhatIsCounted(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap map = random(random);
        double nanos = 0;
        long bar = 0;
        long nextBar = 0;
        int tempo = 0;
        int meter = 0;
        for (long tick = 0; tick < 12_000; tick++) {
            while (tempo + 1 < map.tempos().size()
                    && map.tempos().get(tempo + 1).at() <= tick) {
                tempo++;
            }
            boolean newMeter = meter + 1 < map.meters().size()
                    && map.meters().get(meter + 1).at() == tick;
            meter += newMeter ? 1 : 0;
            if (newMeter || tick == nextBar) {
                bar++;
                nextBar = tick + map.meters().get(meter).ticksPerBar();
                assertThat(map.barStart(bar)).isEqualTo(tick);
            }
            if (tick % 97 == 0) {
                assertThat(map.bpm(tick)).isEqualTo(map.tempos().get(tempo).bpm());
                assertThat(map.meter(tick)).isEqualTo(map.meters().get(meter));
                assertThat(map.place(tick).bar()).isEqualTo(bar);
                assertThat((double) map.nanos(tick)).isCloseTo(nanos, within(2.0));
                long beat = map.beatAt(tick);
                assertThat(beat).isGreaterThanOrEqualTo(tick);
                assertThat(map.place(beat).tick()).isZero();
            }
            nanos += map.tempos().get(tempo).nanosPerTick();
        }
    }

    @Property(tries = 100)
    void aTempoThatIsSplicedIsTheOneBeforeAndTheOtherBehind(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap before = random(random);
        TempoMap behind = random(random);
        long at = random.nextInt(8_000);
        TempoMap spliced = before.spliced(at, behind);
        for (long tick = 0; tick < 16_000; tick += 131) {
            assertThat(spliced.bpm(tick)).isEqualTo((tick < at ? before : behind).bpm(tick));
        }
        assertThat(spliced.nanos(at)).isCloseTo(before.nanos(at), within(2L));
    }
}
