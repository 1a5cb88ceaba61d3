package dibble.user;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ErrorLogTest {
    @TempDir
    private Path folder;

    @Test
    void mistakesStandThereWithWhereTheyHappenedAndTheFileDoesNotGrowForEver() throws IOException {
        ErrorLog log = new ErrorLog(folder.resolve("not/there"));
        log.add("dibble-test", new IllegalStateException("one"));
        log.add("dibble-test", new IllegalStateException("two", new RuntimeException("its cause")));
        assertThat(log.file())
                .content()
                .contains("in dibble-test", "IllegalStateException: one", "its cause", "ErrorLogTest.java");
        Files.write(log.file(), new byte[2 << 20]);
        log.add("dibble-test", new IllegalStateException("three"));
        assertThat(log.file()).content().contains("three").doesNotContain("two");
        assertThat(log.file().resolveSibling("errors.old.log")).exists();
    }
}
