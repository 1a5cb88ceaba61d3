package dibble.notes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.time.TempoMap;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class GridTest {
    private static Grid grid(String step, int swing) {
        return Grid.of(Grid.Step.parse(step), TempoMap.of(120), swing);
    }

    @ParameterizedTest
    @CsvSource({
        "1/4, 0, 470, 0", "1/4, 0, 480, 960", "1/8, 0, 700, 480", "1/8, 0, 730, 960", "1/16, 0, 359, 240",
        "1/16t, 0, 150, 160", "1/4t, 0, 900, 640", "1/4t, 0, 1000, 1280", "1/8d, 0, 700, 720", "1/64, 0, 61, 60",
        // Every second place comes later: at 100 it is the third of a triplet.
        "1/8, 100, 600, 640", "1/8, 50, 530, 560", "1/8, 100, 310, 0", "1/16, 100, 250, 320",
    })
    void theNearestPlaceIsFound(String step, int swing, long tick, long place) {
        assertThat(grid(step, swing).nearest(tick)).isEqualTo(place);
    }

    @Test
    void placesFollowEachOtherWhateverTheStep() {
        for (String step : List.of("1/4", "1/8t", "1/16d", "1/32", "1/64t")) {
            for (int swing : new int[] {0, 33, 100}) {
                Grid grid = grid(step, swing);
                long place = 0;
                for (int i = 0; i < 100; i++) {
                    long next = grid.after(place);
                    assertThat(next).isGreaterThan(place);
                    assertThat(grid.nearest(place)).isEqualTo(place);
                    assertThat(grid.before(next - 1)).isEqualTo(place);
                    place = next;
                }
            }
        }
    }

    @Test
    void itBeginsAnewWhereTheMeterChanges() {
        // 7/8 for a bar, then another meter: an eighth is no whole quarter.
        TempoMap tempo = new TempoMap(
                List.of(new TempoMap.Tempo(0, 120)),
                List.of(new TempoMap.Meter(0, 7, 8), new TempoMap.Meter(3360, 3, 4)));
        Grid quarters = Grid.of(Grid.Step.parse("1/4"), tempo, 0);
        assertThat(quarters.nearest(3300)).isEqualTo(3360);
        assertThat(quarters.after(2880)).isEqualTo(3360);
        assertThat(quarters.nearest(4300)).isEqualTo(4320);
    }

    @Test
    void aStepNeedNotBeWholeInAFile() {
        Grid grid = Grid.of(Grid.Step.parse("1/32t"), 100, List.of(), 0);
        assertThat(grid.nearest(24)).isEqualTo(25);
        assertThat(grid.nearest(100)).isEqualTo(100);
        assertThat(grid.nearest(200)).isEqualTo(200);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "1/3", "1/128", "2/4", "16", "1/16x"})
    void whatIsNoStepIsSaidToBeSo(String text) {
        assertThatThrownBy(() -> Grid.Step.parse(text)).hasMessageContaining("\"" + text + "\" (expected 1/16");
    }
}
