package dibble.ports;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.midi.ShortMessage;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Semaphore;
import org.junit.jupiter.api.Test;

class OutputQueueTest {
    /** A port that takes a message only when it is let. */
    private static final class SlowPort implements OutputPort {
        final Semaphore let = new Semaphore(0);
        final List<Integer> got = new CopyOnWriteArrayList<>();

        @Override
        public String name() {
            return "slow";
        }

        @Override
        public void send(int message, long stamp) {
            let.acquireUninterruptibly();
            if (ShortMessage.data1(message) == 1) {
                throw new IllegalStateException("unplugged");
            }
            got.add(message);
        }
    }

    private final SlowPort port = new SlowPort();

    @Test
    void aFullLaneRefusesOnsAndCountsThemButTakesEveryOff() {
        try (OutputQueue lane = new OutputQueue(port)) {
            int taken = 0;
            while (lane.offer(0, ShortMessage.noteOn(0, 60, 100))) {
                taken++;
            }
            assertThat(lane.refused()).isEqualTo(1);
            for (int i = 0; i < 2048; i++) {
                assertThat(lane.offer(0, ShortMessage.noteOff(i / 128, i % 128, 64)))
                        .isTrue();
            }
            port.let.release(1 << 20);
            int all = taken + 2048;
            // The port fails for the sixteen offs of note 1; the sender lives on.
            await().until(() -> lane.sent() + lane.failed() == all);
            assertThat(lane.failed()).isEqualTo(16);
            assertThat(lane.backlog()).isZero();
        }
    }

    @Test
    void closingSendsWhatWaits() {
        OutputQueue lane = new OutputQueue(port);
        lane.offer(0, ShortMessage.noteOn(0, 60, 100));
        lane.offer(0, ShortMessage.noteOff(0, 60, 64));
        port.let.release(2);
        lane.close();
        assertThat(port.got).containsExactly(ShortMessage.noteOn(0, 60, 100), ShortMessage.noteOff(0, 60, 64));
    }
}
