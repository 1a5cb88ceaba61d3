package dibble.jack;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

class ByteRingTest {
    /** Against a queue of the JDK's: whole messages, in their order, until there is no room. */
    @Property
    void itIsAQueueOfWholeMessages(@ForAll List<byte[]> messages) {
        ByteRing ring = new ByteRing(64);
        Deque<byte[]> expected = new ArrayDeque<>();
        byte[] taken = new byte[64];
        for (byte[] message : messages) {
            int room = 64 - expected.stream().mapToInt(it -> it.length + 3).sum();
            assertThat(ring.offer(message, message.length)).isEqualTo(room >= message.length + 3);
            if (room >= message.length + 3) {
                expected.add(message);
            } else if (!expected.isEmpty()) {
                byte[] first = expected.remove();
                assertThat(ring.next()).isEqualTo(first.length);
                ring.take(taken);
                assertThat(Arrays.copyOf(taken, first.length)).isEqualTo(first);
            }
        }
        assertThat(ring.next()).isEqualTo(expected.isEmpty() ? -1 : expected.peek().length);
    }
}
