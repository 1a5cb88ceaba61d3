package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.testing.PatientAwaiting;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;

class BackgroundCacheTest {
    private final BackgroundCache<String, Integer> aside = new BackgroundCache<>();

    @Test
    void whatComesSoonIsThereAtOnce() {
        assertThat(aside.get("seven", true, () -> 7)).contains(7);
        assertThat(aside.isWorking()).isFalse();
        assertThat(aside.hasNews()).isFalse();
    }

    /** Even what was done before anybody looked: it was asked for in vain. */
    @Test
    void whatComesLaterIsNewsOnce() throws InterruptedException {
        CountDownLatch go = new CountDownLatch(1);
        assertThat(aside.get("seven", false, () -> {
                    try {
                        go.await();
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                    return 7;
                }))
                .isEmpty();
        assertThat(aside.hasNews()).isFalse();
        go.countDown();
        long until = System.nanoTime() + PatientAwaiting.TIMEOUT.toNanos();
        while (!aside.hasNews() && System.nanoTime() < until) {
            Thread.onSpinWait();
        }
        assertThat(aside.get("seven", false, () -> 8)).contains(7);
        assertThat(aside.hasNews()).isFalse();
        assertThat(aside.isWorking()).isFalse();
        aside.retain(List.of());
        assertThat(aside.get("seven", true, () -> 8)).contains(8);
    }
}
