package dibble.routing;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** The router against the contract as plainly written, on random routings that change while notes are held. */
class RouterContractTest {
    private static final int EVENTS = 120;

    @Property(tries = 1500)
    void sendsWhatThePlainContractSends(@ForAll long seed) {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        Slots slots = new Slots();
        List<String> sent = new ArrayList<>();
        Router router = new Router((stamp, port, message, instrument) -> sent.add(SlowRouter.line(
                slots.portName(port), ShortMessage.channel(message) + 1, message, slots.instrumentId(instrument))));
        SlowRouter slow = new SlowRouter(slots);
        for (int i = 0; i < EVENTS; i++) {
            if (i % 40 == 0) {
                Routing routing = randomly.routing(12);
                router.install(RoutingCompiler.compile(routing, slots), i);
                slow.install(routing);
            }
            String source = randomly.source();
            int message = randomly.message();
            router.event(slots.source(source), message, i);
            slow.event(source, message);
            assertThat(sent).isEqualTo(slow.sent);
        }
        router.close(EVENTS);
        slow.close();
        assertThat(sent).isEqualTo(slow.sent);
        assertThat(router.soundingCount()).isZero();
        assertThat(router.debtCount()).isZero();
    }

    @Property(tries = 300)
    void alternatesAndEndsSilentWhenAllKeysAreUp(@ForAll long seed) {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        Slots slots = new Slots();
        Map<Integer, Boolean> on = new HashMap<>();
        Router router = new Router((stamp, port, message, instrument) -> {
            int place = port << 16 | ShortMessage.channel(message) << 8 | ShortMessage.data1(message);
            if (ShortMessage.kind(message) == ShortMessage.NOTE_ON) {
                assertThat(on.put(place, true)).isNotEqualTo(Boolean.TRUE);
            } else if (ShortMessage.kind(message) == ShortMessage.NOTE_OFF) {
                assertThat(on.put(place, false)).isEqualTo(Boolean.TRUE);
            }
            // A lane that is full refuses ons, never offs.
            boolean refused = ShortMessage.kind(message) == ShortMessage.NOTE_ON && random.nextInt(5) == 0;
            if (refused) {
                on.put(place, false);
            }
            return !refused;
        });
        for (int i = 0; i < EVENTS; i++) {
            if (i % 15 == 0) {
                router.install(RoutingCompiler.compile(randomly.routing(20), slots), i);
            }
            router.event(slots.source(randomly.source()), randomly.message(), i);
        }
        for (int source = 0; source < slots.sourceCount(); source++) {
            for (int key = 0; key < 16 * 128; key++) {
                router.event(source, ShortMessage.noteOff(key >> 7, key & 127, 64), EVENTS);
            }
        }
        assertThat(on).doesNotContainValue(true);
        assertThat(router.soundingCount()).isZero();
    }
}
