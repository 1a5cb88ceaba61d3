package dibble.user;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MemoryTest {
    @TempDir
    private Path folder;

    @Test
    void whatIsRememberedComesBackAndTheLastSessionIsFirst() throws IOException {
        Path one = Files.createFile(folder.resolve("one.dibble"));
        Path two = Files.createFile(folder.resolve("two.dibble"));
        Memory memory = Memory.NONE
                .withRecent(one)
                .withRecent(two)
                .withRecent(one)
                .withWindow(new Memory.Place(10, 20, 1300, 820, true))
                .withView("TAKES")
                .withSize("keys", 400)
                .withWelcomed(true);
        memory.write(folder);
        Memory read = Memory.read(folder);
        assertThat(read).isEqualTo(memory);
        assertThat(read.recent()).containsExactly(one, two);
        assertThat(read.lastFolder()).isEqualTo(folder.toString());
        Files.delete(one);
        assertThat(read.recent()).containsExactly(two);
    }

    @Test
    void onlySoManySessionsAreKept() throws IOException {
        Memory memory = Memory.NONE;
        for (int i = 0; i < 15; i++) {
            memory = memory.withRecent(Files.createFile(folder.resolve(i + ".dibble")));
        }
        assertThat(memory.recent()).hasSize(10).startsWith(folder.resolve("14.dibble"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "null", "[]", "{\"window\": 5}", "{\"recentFiles\": [null]}", "\u0000"})
    void whatCannotBeReadIsNothing(String text) throws IOException {
        Files.writeString(folder.resolve("memory.json"), text);
        assertThat(Memory.read(folder)).isEqualTo(Memory.NONE);
    }
}
