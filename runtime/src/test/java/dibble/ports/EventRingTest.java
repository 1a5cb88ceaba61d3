package dibble.ports;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;

class EventRingTest {
    @Test
    void fullMeansFalseAndNothingIsLost() {
        EventRing ring = new EventRing(4);
        for (int i = 0; i < 4; i++) {
            assertThat(ring.offer(i, i)).isTrue();
        }
        assertThat(ring.offer(9, 9)).isFalse();
        for (int i = 0; i < 4; i++) {
            assertThat(ring.poll()).isTrue();
            assertThat(ring.stamp()).isEqualTo(i);
        }
        assertThat(ring.poll()).isFalse();
        assertThat(ring.offer(5, 6)).isTrue();
        assertThat(ring.size()).isEqualTo(1);
    }

    @Test
    void fourProducersLoseNothingAndKeepEachItsOrder() throws Exception {
        EventRing ring = new EventRing(64);
        int each = 100_000;
        CountDownLatch go = new CountDownLatch(1);
        Thread[] producers = new Thread[4];
        for (int p = 0; p < producers.length; p++) {
            int number = p;
            producers[p] = new Thread(() -> {
                try {
                    go.await();
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
                for (int i = 0; i < each; i++) {
                    while (!ring.offer(number, i)) {
                        Thread.onSpinWait();
                    }
                }
            });
            producers[p].start();
        }
        go.countDown();
        long[] next = new long[producers.length];
        for (int got = 0; got < each * producers.length; ) {
            if (ring.poll()) {
                assertThat(ring.payload()).isEqualTo(next[(int) ring.stamp()]++);
                got++;
            }
        }
        for (Thread producer : producers) {
            producer.join();
        }
        assertThat(ring.poll()).isFalse();
    }
}
