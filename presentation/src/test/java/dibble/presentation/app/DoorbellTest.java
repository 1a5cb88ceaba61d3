package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DoorbellTest {
    @TempDir
    private Path folder;

    @Test
    void aSecondStartIsHeardByTheFirst() {
        assertThat(Doorbell.ring(folder, "/a/round.dibble")).isFalse();
        try (Doorbell bell = Doorbell.hang(folder)) {
            assertThat(bell.hasNews()).isFalse();
            assertThat(Doorbell.ring(folder, "/a/Lampe – ä.dibble")).isTrue();
            await().until(bell::hasNews);
            assertThat(bell.next()).isEqualTo("/a/Lampe – ä.dibble");
            assertThat(Doorbell.ring(folder, "")).isTrue();
            await().until(bell::hasNews);
            assertThat(bell.next()).isEmpty();
        }
        assertThat(Doorbell.ring(folder, "")).isFalse();
    }

    @Test
    void whatAKilledProcessLeftKeepsNobodyOut() throws IOException {
        Files.createFile(folder.resolve("running.socket"));
        assertThat(Doorbell.ring(folder, "")).isFalse();
        try (Doorbell bell = Doorbell.hang(folder)) {
            assertThat(Doorbell.ring(folder, "x")).isTrue();
            await().until(bell::hasNews);
        }
    }
}
