package dibble.desktop.ui;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.user.Settings;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class SystemThemeTest {
    @ParameterizedTest
    @CsvSource({
        "Linux, gsettings, 'prefer-dark', true",
        "Linux, gsettings, 'default', false",
        "Linux, gsettings, '', false",
        "Mac OS X, defaults, Dark, true",
        "Mac OS X, defaults, '', false",
        "Windows 11, reg, 'AppsUseLightTheme    REG_DWORD    0x0', true",
        "Windows 11, reg, 'AppsUseLightTheme    REG_DWORD    0x1', false"
    })
    void eachSystemIsAskedInItsWay(String system, String command, String answer, boolean dark) {
        assertThat(SystemTheme.isDark(system, asked -> {
                    assertThat(asked.get(0)).isEqualTo(command);
                    return answer;
                }))
                .isEqualTo(dark);
    }

    @ParameterizedTest
    @EnumSource(Settings.Theme.class)
    void everyThemeHasColoursThatCanBeRead(Settings.Theme theme) {
        Palette palette = SystemTheme.palette(theme);
        double least = theme == Settings.Theme.CONTRAST ? 7 : 4.5;
        assertThat(Palette.contrast(palette.get("ink"), palette.get("paper"))).isGreaterThan(least);
        assertThat(Palette.contrast(palette.get("soft"), palette.get("sheet"))).isGreaterThan(least);
        assertThat(Palette.contrast(palette.get("leaf"), palette.get("paper"))).isGreaterThan(least);
    }
}
