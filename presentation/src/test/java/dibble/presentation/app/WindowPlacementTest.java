package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.presentation.app.WindowPlacement.Area;
import dibble.user.Memory;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class WindowPlacementTest {
    private static final Area LAPTOP = new Area(0, 0, 1366, 728);
    private static final Area LAPTOP_AT_150 = new Area(0, 0, 910, 485);
    private static final Area DESK = new Area(1366, -200, 1920, 1080);

    private static Memory.Place place(double x, double y, double width, double height) {
        return new Memory.Place(x, y, width, height, false);
    }

    private static void assertWithin(Area window, Area screen) {
        assertThat(window.x()).isGreaterThanOrEqualTo(screen.x());
        assertThat(window.y()).isGreaterThanOrEqualTo(screen.y());
        assertThat(window.x() + window.width()).isLessThanOrEqualTo(screen.x() + screen.width() + 1e-6);
        assertThat(window.y() + window.height()).isLessThanOrEqualTo(screen.y() + screen.height() + 1e-6);
    }

    @Property(tries = 300)
    void firstWindowIsOnItsScreen(
            @ForAll @IntRange(min = 300, max = 4000) int width, @ForAll @IntRange(min = 200, max = 3000) int height) {
        Area screen = new Area(-50, 20, width, height);
        assertWithin(WindowPlacement.first(screen), screen);
    }

    @Property(tries = 300)
    void rememberedWindowIsOnOneOfTheScreens(
            @ForAll @DoubleRange(min = -3000, max = 5000) double x,
            @ForAll @DoubleRange(min = -2000, max = 3000) double y,
            @ForAll @DoubleRange(min = 200, max = 4000) double width,
            @ForAll @DoubleRange(min = 200, max = 4000) double height) {
        WindowPlacement.fit(place(x, y, width, height), List.of(LAPTOP, DESK)).ifPresent(window -> {
            boolean left = window.x() < DESK.x();
            assertWithin(window, left ? LAPTOP : DESK);
        });
    }

    @Test
    void windowThatFitsStaysWhereItWas() {
        assertThat(WindowPlacement.fit(place(1500, 0, 1200, 700), List.of(LAPTOP, DESK)))
                .contains(new Area(1500, 0, 1200, 700));
    }

    @Test
    void windowOfALargeScreenShrinksOnASmallOne() {
        assertThat(WindowPlacement.fit(place(60, 30, 1280, 830), List.of(LAPTOP_AT_150)))
                .contains(LAPTOP_AT_150);
    }

    @Test
    void windowOfAScreenThatIsGoneIsPlacedAsAFirstOne() {
        assertThat(WindowPlacement.fit(place(2000, 0, 1200, 700), List.of(LAPTOP)))
                .isEmpty();
    }
}
