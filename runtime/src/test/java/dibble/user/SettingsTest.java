package dibble.user;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dibble.midi.MiddleC;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SettingsTest {
    @TempDir
    private Path folder;

    @Test
    void settingsComeBackAndWhatAnotherVersionKeepsStays() throws IOException {
        assertThat(Settings.read(folder)).isEqualTo(Settings.PLAIN);
        Settings settings = Settings.PLAIN
                .withMiddleC(MiddleC.C3)
                .withTheme(Settings.Theme.NIGHT)
                .withLarge(true)
                .withLetters(Settings.Letters.QWERTZ)
                .withHidden("midi:a", true)
                .withHidden("midi:b", true)
                .withHidden("midi:a", false);
        Path inside = folder.resolve("not/there/yet");
        settings.write(inside);
        assertThat(Settings.read(inside)).isEqualTo(settings);
        assertThat(settings.hiddenPorts()).containsExactly("midi:b");
        Path file = inside.resolve("settings.json");
        Files.writeString(file, "{\"night\": true, \"later\": [1]}");
        Settings read = Settings.read(inside);
        assertThat(read).isEqualTo(Settings.PLAIN.withTheme(Settings.Theme.NIGHT));
        read.write(inside);
        assertThat(Files.readString(file)).contains("later");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "null",
                "",
                "{\"night\": ",
                "[1]",
                "\u0000\u0001",
                "{\"letters\": \"NONE\"}",
                "{\"hiddenPorts\": {\"a\": 1}}",
                "{\"large\": \"perhaps\", \"middleC\": 7.5}"
            })
    void whatCannotBeReadIsAsAtFirstAndIsSaidOnceAndKept(String text) throws IOException {
        Path file = Files.writeString(folder.resolve("settings.json"), text);
        List<String> said = new ArrayList<>();
        assertThat(Settings.load(folder, said::add)).isEqualTo(Settings.PLAIN);
        assertThat(said).singleElement().asString().contains("settings.damaged.json");
        assertThat(folder.resolve("settings.damaged.json")).hasContent(text);
        assertThat(Settings.load(folder, said::add)).isEqualTo(Settings.PLAIN);
        assertThat(said).hasSize(1);
        Settings.PLAIN.withLarge(true).write(folder);
        assertThat(Settings.read(folder).large()).isTrue();
        assertThat(file).exists();
    }

    @Test
    void oneSettingThatCannotBeReadCostsNoOther() throws IOException {
        Files.writeString(folder.resolve("settings.json"), "{\"letters\": \"NONE\", \"night\": true}");
        List<String> said = new ArrayList<>();
        assertThat(Settings.load(folder, said::add)).isEqualTo(Settings.PLAIN.withTheme(Settings.Theme.NIGHT));
        assertThat(said).singleElement().asString().contains("\"letters\"");
    }

    @Test
    void theFolderIsWhereEachSystemKeepsSuchThings() {
        Properties properties = new Properties();
        properties.setProperty("user.home", "/home/player");
        properties.setProperty("os.name", "Linux");
        assertThat(UserFolder.path(properties, Map.of())).isEqualTo(Path.of("/home/player/.local/share/dibble"));
        assertThat(UserFolder.path(properties, Map.of("XDG_DATA_HOME", "/data")))
                .isEqualTo(Path.of("/data/dibble"));
        properties.setProperty("os.name", "Mac OS X");
        assertThat(UserFolder.path(properties, Map.of()))
                .isEqualTo(Path.of("/home/player/Library/Application Support/Dibble"));
        properties.setProperty("os.name", "Windows 11");
        assertThat(UserFolder.path(properties, Map.of("APPDATA", "/roaming"))).isEqualTo(Path.of("/roaming/Dibble"));
        properties.setProperty(UserFolder.PROPERTY, "/elsewhere");
        assertThat(UserFolder.path(properties, Map.of())).isEqualTo(Path.of("/elsewhere"));
    }

    /** A pipe in the place of the settings would be waited for without end. */
    @Test
    void aPipeIsNoFileOfSettings() throws Exception {
        Path pipe = folder.resolve("settings.json");
        assumeTrue(Files.isExecutable(Path.of("/usr/bin/mkfifo")), "SKIPPED: no mkfifo");
        assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor())
                .isZero();
        assertThat(Settings.read(folder)).isEqualTo(Settings.PLAIN);
        List<String> said = new ArrayList<>();
        assertThat(Settings.load(folder, said::add)).isEqualTo(Settings.PLAIN);
        assertThat(said).hasSize(1);
    }
}
