package dibble.presentation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class ListenersTest {
    private final List<String> ran = new ArrayList<>();
    private final List<Throwable> reported = new ArrayList<>();
    private final Listeners listeners = new Listeners();
    private boolean fails = true;

    @BeforeEach
    void collect() {
        Thread.currentThread().setUncaughtExceptionHandler((thread, failure) -> reported.add(failure));
    }

    @AfterEach
    void forget() {
        Thread.currentThread().setUncaughtExceptionHandler(null);
    }

    private void failing() {
        if (fails) {
            throw new IllegalStateException("a test");
        }
        ran.add("failing");
    }

    @Test
    void oneThatFailsLeavesTheOthersRunning() {
        listeners.add(() -> ran.add("first"));
        Runnable failing = this::failing;
        listeners.add(failing);
        listeners.add(() -> ran.add("last"));
        listeners.run();
        listeners.run();
        assertThat(ran).containsExactly("first", "last", "first", "last");
        assertThat(reported).hasSize(1);

        ran.clear();
        fails = false;
        listeners.run();
        assertThat(ran).containsExactly("first", "failing", "last");
        fails = true;
        listeners.run();
        assertThat(reported).hasSize(2);

        listeners.remove(failing);
        ran.clear();
        listeners.run();
        assertThat(ran).containsExactly("first", "last");
    }
}
