package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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
}
