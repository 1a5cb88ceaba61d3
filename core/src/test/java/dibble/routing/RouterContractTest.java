package dibble.routing;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** The router against the contract as plainly written, on random routings that change while notes are held. */
class RouterContractTest {
    private static final int EVENTS = 120;

    @Property(tries = 1000)
    void sendsWhatThePlainContractSends(@ForAll long seed) {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        SlotAllocator slots = new SlotAllocator();
        List<String> sent = new ArrayList<>();
        Router router = new Router((stamp, port, message, instrument) -> sent.add(SlowRouter.line(
                slots.portName(port), ShortMessage.channel(message) + 1, message, slots.instrumentId(instrument))));
        router.giveSounds();
        SlowRouter slow = new SlowRouter(slots);
        for (int i = 0; i < EVENTS; i++) {
            if (i % 40 == 0) {
                Routing routing = randomly.routing(12);
                router.install(RoutingCompiler.compile(routing, slots), i);
                int before = slow.sent.size();
                slow.install(routing);
                assertThat(sent.subList(before, sent.size()))
                        .as("edit")
                        .isEqualTo(slow.sent.subList(before, slow.sent.size()));
            }
            String source = randomly.source();
            int message = randomly.message();
            router.event(slots.source(source), message, i);
            int before = slow.sent.size();
            slow.event(source, message);
            assertThat(slots.sceneId(router.scene())).isEqualTo(slow.scene());
            assertThat(sent.subList(Math.min(before, sent.size()), sent.size()))
                    .as("event %d: %x of %s after %s", i, message, source, slow.scene())
                    .isEqualTo(slow.sent.subList(before, slow.sent.size()));
        }
        router.close(EVENTS);
        int before = slow.sent.size();
        slow.close();
        assertThat(sent.subList(before, sent.size()))
                .as("close")
                .isEqualTo(slow.sent.subList(before, slow.sent.size()));
        assertThat(router.soundingCount()).isZero();
        assertThat(router.debtCount()).isZero();
    }

    @Property(tries = 400)
    void alternatesAndEndsWithNothingOnAndNothingOwed(@ForAll long seed) {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        SlotAllocator slots = new SlotAllocator();
        Map<Integer, Boolean> on = new HashMap<>();
        Router router = new Router((stamp, port, message, instrument) -> {
            assertThat(ShortMessage.data1(message) | ShortMessage.data2(message))
                    .isBetween(0, 127);
            int place = place(port, message);
            if (ShortMessage.kind(message) == ShortMessage.NOTE_ON) {
                assertThat(ShortMessage.data2(message)).isPositive();
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
                router.replace(RoutingCompiler.compile(randomly.routing(20), slots), i);
            }
            if (i % 40 == 39) {
                losePort(router, random.nextInt(2), random.nextBoolean(), on);
            }
            if (i == 70) {
                router.letGo(slots.source("a"), i);
            }
            router.event(slots.source(randomly.source()), randomly.message(), i);
        }
        // What knobs hold down ends with their maps, the rest with keys, pedals and wheels.
        router.install(RoutingCompiler.compile(withoutControls(randomly.routing(20)), slots), EVENTS);
        for (int source = 0; source < slots.sourceCount(); source++) {
            for (int key = 0; key < 16 * 128; key++) {
                router.event(source, ShortMessage.noteOff(key >> 7, key & 127, 64), EVENTS);
            }
            for (int channel = 0; channel < 16; channel++) {
                for (int pedal : new int[] {64, 65, 66, 67, 68, 69, 1}) {
                    router.event(source, ShortMessage.controller(channel, pedal, 0), EVENTS);
                }
                router.event(source, ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, 64), EVENTS);
                router.event(source, ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, channel, 0, 0), EVENTS);
            }
        }
        assertThat(on).doesNotContainValue(true);
        assertThat(router.soundingCount()).isZero();
        assertThat(router.debtCount()).isZero();
    }

    private static Routing withoutControls(Routing routing) {
        List<Scene> scenes = routing.scenes().stream()
                .map(scene -> scene.withControls(List.of()))
                .toList();
        return Routing.of(
                routing.sources(),
                routing.instruments(),
                routing.channels(),
                routing.always(),
                scenes,
                routing.activeScene());
    }

    private static int place(int port, int message) {
        return port << 16 | ShortMessage.channel(message) << 8 | ShortMessage.data1(message);
    }

    /** Removes a port, with or without a notice: no note that could still be ended remains there. */
    private static void losePort(Router router, int port, boolean announced, Map<Integer, Boolean> on) {
        if (announced) {
            router.closePort(port, 0);
        } else {
            router.forgetPort(port);
            on.keySet().removeIf(place -> place >>> 16 == port);
        }
    }

    @Property(tries = 300)
    void anOffGoesWhereItsOnWent(@ForAll long seed) {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        SlotAllocator slots = new SlotAllocator();
        Set<Integer> on = new HashSet<>();
        Router router = new Router((stamp, port, message, instrument) -> {
            if (ShortMessage.kind(message) == ShortMessage.NOTE_ON) {
                on.add(place(port, message));
            } else if (ShortMessage.kind(message) == ShortMessage.NOTE_OFF) {
                on.remove(place(port, message));
            }
            return true;
        });
        router.install(RoutingCompiler.compile(withoutControls(randomly.routing(20)), slots), 0);
        for (int i = 0; i < 60; i++) {
            int source = slots.source(randomly.source());
            int key = ShortMessage.data1(randomly.message());
            router.event(source, ShortMessage.noteOff(0, key, 64), i);
            Set<Integer> before = new HashSet<>(on);
            router.event(source, ShortMessage.noteOn(0, key, 100), i);
            if (random.nextInt(3) == 0) {
                router.replace(RoutingCompiler.compile(withoutControls(randomly.routing(20)), slots), i);
            }
            router.event(source, ShortMessage.noteOff(0, key, 64), i);
            // Whatever the edit was: what this key had sounded is off, what others held is on.
            before.removeIf(place -> !on.contains(place));
            assertThat(on).isEqualTo(before);
        }
    }

    @Property(tries = 200)
    void theSameInputTwiceGivesTheSameOutput(@ForAll long seed) {
        assertThat(sentFor(seed)).isEqualTo(sentFor(seed));
    }

    private static List<Long> sentFor(long seed) {
        RandomRouting randomly = new RandomRouting(new Random(seed));
        SlotAllocator slots = new SlotAllocator();
        List<Long> sent = new ArrayList<>();
        Router router =
                new Router((stamp, port, message, instrument) -> sent.add(stamp << 40 | (long) port << 24 | message));
        for (int i = 0; i < EVENTS; i++) {
            if (i % 40 == 0) {
                router.install(RoutingCompiler.compile(randomly.routing(15), slots), i);
            }
            router.event(slots.source(randomly.source()), randomly.message(), i);
        }
        router.close(EVENTS);
        return sent;
    }
}
