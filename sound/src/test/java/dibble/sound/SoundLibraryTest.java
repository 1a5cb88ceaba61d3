package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.gear.SoundFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A session opens sound files of its own folder, of folders that the user allowed, and no others. */
class SoundLibraryTest {
    @TempDir
    Path folder;

    private Path home;
    private Path elsewhere;

    @BeforeEach
    void makeFolders() throws IOException {
        home = Files.createDirectory(folder.resolve("home"));
        elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
        Files.write(elsewhere.resolve("glass.sf2"), SoundBankTest.small());
    }

    private SoundLibrary open(String path, String... allowed) {
        SoundFile file = new SoundFile("glass", "Glass", path, "0".repeat(64));
        return SoundLibrary.open(List.of(file), home, Set.of(allowed), SoundLibrary.NONE);
    }

    @Test
    void filesElsewhereAreWithheldUntilTheirFolderIsAllowed() {
        String path = elsewhere.resolve("glass.sf2").toString();
        for (String spelled : List.of(path, "../elsewhere/glass.sf2", home + "/../elsewhere/glass.sf2")) {
            SoundLibrary withheld = open(spelled);
            assertThat(withheld.banks()).isEmpty();
            assertThat(withheld.withheld()).containsExactly(elsewhere);
            assertThat(open(spelled, elsewhere.toString()).banks()).hasSize(1);
        }
        // One that is not there is not told from one that is: nobody has looked.
        assertThat(open("/nowhere/glass.sf2").withheld()).containsExactly(Path.of("/nowhere"));
        assertThat(open("/nowhere/glass.sf2").troubles()).isEmpty();
    }

    @Test
    void filesInTheFolderOfTheSessionNeedNoPermission() throws IOException {
        Files.copy(elsewhere.resolve("glass.sf2"), home.resolve("glass.sf2"));
        for (String path : List.of("glass.sf2", home + "/glass.sf2", "/nowhere/glass.sf2")) {
            assertThat(open(path).banks()).as(path).hasSize(1);
            assertThat(open(path).withheld()).isEmpty();
        }
    }

    @Test
    void pathsThatNoFileHasAreTold() {
        assertThat(open("a\0b").troubles()).singleElement().asString().contains("not a valid file name");
        assertThat(open("/").troubles()).hasSize(1);
        assertThat(open("").troubles()).hasSize(1);
    }
}
