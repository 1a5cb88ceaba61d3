package dibble.desktop.ui;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.user.Settings;
import javafx.scene.paint.Color;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class PaletteTest {
    @ParameterizedTest
    @EnumSource(Palette.class)
    void textIsReadOnEveryGroundItStandsOn(Palette palette) {
        for (String ground : new String[] {"paper", "sheet", "raised", "bed"}) {
            for (String text : new String[] {"ink", "soft", "leaf"}) {
                assertThat(Palette.contrast(palette.get(text), palette.get(ground)))
                        .as("%s on %s", text, ground)
                        .isGreaterThanOrEqualTo(4.5);
            }
        }
        assertThat(Palette.contrast(palette.get("ink"), palette.get("leaf-wash")))
                .isGreaterThanOrEqualTo(4.5);
        assertThat(Palette.contrast(palette.get("ink"), palette.get("check-wash")))
                .isGreaterThanOrEqualTo(4.5);
        assertThat(Palette.contrast(palette.get("record"), palette.get("paper")))
                .isGreaterThanOrEqualTo(4.5);
        assertThat(Palette.contrast(Palette.SOFT_ON_DARK, palette.get("live"))).isGreaterThanOrEqualTo(4.5);
        assertThat(Palette.contrast(Palette.ON_DARK, palette.get("live"))).isGreaterThanOrEqualTo(4.5);
    }

    @Test
    void everyPartCarriesItsLabel() {
        for (int colour = 0; colour <= 16; colour++) {
            assertThat(Palette.contrast(PartColours.of(colour), PartColours.ink(colour)))
                    .as("colour %d", colour)
                    .isGreaterThanOrEqualTo(4.5);
        }
    }

    @ParameterizedTest
    @CsvSource({"#000000, #FFFFFF, 21", "#777777, #777777, 1"})
    void contrastIsThatOfTheGuidelines(String a, String b, double expected) {
        assertThat(Palette.contrast(Color.web(a), Color.web(b))).isEqualTo(expected);
    }

    @ParameterizedTest
    @EnumSource(Settings.Theme.class)
    void everyThemeHasColoursThatCanBeRead(Settings.Theme theme) {
        Palette palette = Palette.of(theme);
        double least = theme == Settings.Theme.CONTRAST ? 7 : 4.5;
        assertThat(Palette.contrast(palette.get("ink"), palette.get("paper"))).isGreaterThan(least);
        assertThat(Palette.contrast(palette.get("soft"), palette.get("sheet"))).isGreaterThan(least);
        assertThat(Palette.contrast(palette.get("leaf"), palette.get("paper"))).isGreaterThan(least);
    }
}
