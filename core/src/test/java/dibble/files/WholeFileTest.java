package dibble.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.io.TempDir;

class WholeFileTest {
    @TempDir
    Path folder;

    private static byte[] read(Path file, int most) throws IOException {
        return WholeFile.read(file, most, size -> new IOException("too large: " + size));
    }

    @Test
    void filesUpToTheLimitAreReadWhole() throws IOException {
        Path file = Files.write(folder.resolve("a"), new byte[] {1, 2, 3});
        assertThat(read(file, 3)).containsExactly(1, 2, 3);
        assertThat(read(file, 100)).containsExactly(1, 2, 3);
        assertThatThrownBy(() -> read(file, 2)).hasMessage("too large: 3");
        assertThatThrownBy(() -> read(folder, 9)).hasMessageContaining("is a folder");
        assertThatThrownBy(() -> read(folder.resolve("b"), 9)).isInstanceOf(NoSuchFileException.class);
    }

    @Test
    @EnabledOnOs(OS.LINUX)
    void whatMayNeverEndIsRefusedBeforeItIsOpened() throws Exception {
        Path pipe = folder.resolve("pipe");
        assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor())
                .isZero();
        assertThatThrownBy(() -> read(pipe, 9)).hasMessageContaining("is a pipe or a device");
        assertThatThrownBy(() -> read(Path.of("/dev/zero"), 9)).hasMessageContaining("is a pipe or a device");
        // Files of the system have no size before they are read.
        assertThatThrownBy(() -> read(Path.of("/proc/self/maps"), 9)).hasMessage("too large: 10");
    }
}
