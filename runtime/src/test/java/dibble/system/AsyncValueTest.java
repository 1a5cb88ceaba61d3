package dibble.system;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import org.junit.jupiter.api.Test;

class AsyncValueTest {
    private final Queue<Runnable> waiting = new ArrayDeque<>();

    @Test
    void aValueIsPendingUntilItIsComputed() {
        AsyncValue<Integer> value = AsyncValue.compute(waiting::add, () -> 7);
        assertThat(value.isDone()).isFalse();
        assertThat(value.value()).isEmpty();
        waiting.remove().run();
        assertThat(value.isDone()).isTrue();
        assertThat(value.value()).contains(7);
        assertThat(AsyncValue.present(8).value()).contains(8);
    }

    @Test
    void aFailureIsReportedOnceAndThrownAtNobody() {
        List<Throwable> reported = new ArrayList<>();
        Thread.UncaughtExceptionHandler before = Thread.getDefaultUncaughtExceptionHandler();
        Thread.setDefaultUncaughtExceptionHandler((thread, failure) -> reported.add(failure));
        try {
            OutOfMemoryError error = new OutOfMemoryError("a test");
            AsyncValue<Integer> value = AsyncValue.compute(waiting::add, () -> {
                throw error;
            });
            AsyncValue<Integer> next = AsyncValue.compute(waiting::add, () -> 9);
            waiting.remove().run();
            waiting.remove().run();
            assertThat(value.isDone()).isTrue();
            assertThat(value.value()).isEmpty();
            assertThat(value.value()).isEmpty();
            assertThat(value.failure()).containsSame(error);
            assertThat(next.value()).contains(9);
            assertThat(reported).containsExactly(error);
            AsyncValue<Integer> nothing = AsyncValue.compute(Runnable::run, () -> null);
            assertThat(nothing.failure()).isPresent();
        } finally {
            Thread.setDefaultUncaughtExceptionHandler(before);
        }
    }
}
