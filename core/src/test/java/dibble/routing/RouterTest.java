package dibble.routing;

import static dibble.midi.ShortMessage.controller;
import static dibble.midi.ShortMessage.noteOff;
import static dibble.midi.ShortMessage.noteOn;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.management.ThreadMXBean;
import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RouterTest {
    private static final PartRef LOW = new PartRef("i", "low");
    private static final PartRef HIGH = new PartRef("i", "high");

    private final SlotAllocator slots = new SlotAllocator();
    private final List<Integer> sent = new ArrayList<>();
    private final Router router = new Router((stamp, port, message, instrument) -> sent.add(message));

    private static Routing routing(Zone... zones) {
        List<Instrument> instruments = List.of(Instrument.of(
                "i",
                "i",
                true,
                "port",
                List.of(Part.of("low", "low", 1, 0, Range.ALL, 1), Part.of("high", "high", 2, 0, Range.ALL, 2))));
        List<Source> sources =
                List.of(Source.keyboard("a", "a", "in-a", Range.ALL), Source.keyboard("b", "b", "in-b", Range.ALL));
        return Routing.of(sources, instruments, ChannelPlan.of(instruments, Map.of()), List.of(zones), List.of(), null);
    }

    private void install(Zone... zones) {
        router.install(RoutingCompiler.compile(routing(zones), slots), 0);
    }

    private void play(String source, int... messages) {
        for (int message : messages) {
            router.event(slots.source(source), message, 0);
        }
    }

    private static Zone zone(String id, String source, int low, int high, PartRef to) {
        return Zone.of(id, id, source, new Range(low, high), to);
    }

    @Nested
    class Splits {
        @Test
        void eachHalfGoesToItsPartTheLowerOneTransposed() {
            install(zone("l", "a", 0, 59, LOW).withTranspose(-12), zone("h", "a", 60, 127, HIGH));
            play("a", noteOn(0, 59, 80), noteOn(0, 60, 81), noteOff(0, 59, 10), noteOff(0, 60, 11));
            assertThat(sent)
                    .containsExactly(noteOn(0, 47, 80), noteOn(1, 60, 81), noteOff(0, 47, 10), noteOff(1, 60, 11));
        }

        @Test
        void aKeyThatNoZoneTakesSoundsNothing() {
            install(zone("l", "a", 0, 59, LOW));
            play("a", noteOn(0, 60, 80), noteOff(0, 60, 64));
            assertThat(sent).isEmpty();
        }
    }

    @Nested
    class Sharing {
        @Test
        void anOffFollowsItsOnWhateverWasEditedSince() {
            install(zone("z", "a", 0, 127, LOW));
            play("a", noteOn(0, 60, 80));
            install(zone("z", "a", 0, 127, HIGH).withTranspose(7));
            play("a", noteOff(0, 60, 30), noteOn(0, 60, 80));
            assertThat(sent).containsExactly(noteOn(0, 60, 80), noteOff(0, 60, 30), noteOn(1, 67, 80));
        }

        @Test
        void twoSourcesOnOneNoteAlternateAndTheLastKeyEndsIt() {
            install(zone("z", "*", 0, 127, LOW));
            play("a", noteOn(0, 60, 80));
            play("b", noteOn(0, 60, 90));
            play("a", noteOff(0, 60, 1));
            play("b", noteOff(0, 60, 2));
            assertThat(sent)
                    .containsExactly(noteOn(0, 60, 80), noteOff(0, 60, 64), noteOn(0, 60, 90), noteOff(0, 60, 2));
        }

        /** Pitch bend range (RPN 0) by one hand, and a parameter of the module's own by another, at the same time. */
        @Test
        void dataOfOneIsNeverTakenForAnothersParameter() {
            install(zone("z", "*", 0, 127, LOW));
            play("a", controller(0, 101, 0), controller(0, 100, 0));
            play("b", controller(0, 99, 1), controller(0, 98, 2), controller(0, 6, 70));
            play("a", controller(0, 6, 12));
            play("b", controller(0, 6, 71));
            play("a", controller(0, 38, 50));
            assertThat(sent)
                    .containsExactly(
                            controller(0, 101, 0),
                            controller(0, 100, 0),
                            controller(0, 99, 1),
                            controller(0, 98, 2),
                            controller(0, 6, 70),
                            controller(0, 101, 0),
                            controller(0, 100, 0),
                            controller(0, 6, 12),
                            controller(0, 99, 1),
                            controller(0, 98, 2),
                            controller(0, 6, 71),
                            controller(0, 101, 0),
                            controller(0, 100, 0),
                            controller(0, 6, 12),
                            controller(0, 38, 50));
        }

        @Test
        void whoPlaysAloneIsSentAsTheyPlay() {
            install(zone("z", "a", 0, 127, LOW));
            int[] played = {
                controller(0, 101, 0),
                controller(0, 100, 1),
                controller(0, 6, 64),
                controller(0, 38, 3),
                controller(0, 101, 127),
                controller(0, 100, 127),
                controller(0, 6, 9)
            };
            play("a", played);
            assertThat(sent)
                    .containsExactly(java.util.Arrays.stream(played).boxed().toArray(Integer[]::new));
        }

        @Test
        void aSourceThatIsNoLongerHeardLetsGo() {
            Routing routing = routing(zone("z", "a", 0, 127, LOW));
            router.install(RoutingCompiler.compileLive(routing, slots, Set.of()), 0);
            play("a", noteOn(0, 60, 80));
            router.install(RoutingCompiler.compileLive(routing, slots, Set.of("a")), 0);
            play("a", noteOn(0, 62, 80));
            assertThat(sent).containsExactly(noteOn(0, 60, 80), noteOff(0, 60, 64));
        }

        @Test
        void playbackEndsNothingThatIsPlayedLive() {
            install(zone("z", "a", 0, 127, LOW));
            int voice = slots.source("track:x");
            router.openVoices(slots.sourceCount());
            play("a", noteOn(0, 60, 80));
            router.play(voice, 0, 0, noteOn(0, 60, 70), 0);
            router.play(voice, 0, 0, noteOff(0, 60, 9), 0);
            assertThat(sent).containsExactly(noteOn(0, 60, 80), noteOff(0, 60, 64), noteOn(0, 60, 70));
            play("a", noteOff(0, 60, 5));
            assertThat(sent).endsWith(noteOff(0, 60, 5));
        }

        @Test
        void silenceEndsWhatSoundsAndThenTellsEveryChannel() {
            install(zone("z", "a", 0, 127, LOW));
            play("a", noteOn(0, 60, 80));
            router.silence(0);
            assertThat(sent).hasSize(2 + 32).startsWith(noteOn(0, 60, 80), noteOff(0, 60, 64));
            assertThat(sent).endsWith(controller(15, 123, 0), controller(15, 120, 0));
            play("a", noteOff(0, 60, 64));
            assertThat(sent).hasSize(34);
        }
    }

    @Nested
    class PedalsAndWheels {
        @Test
        void aKeyThatIsStruckAgainDoesNotInheritAWheelThatNoLongerReachesIt() {
            int bend = ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 100);
            int centred = ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 64);
            install(zone("z", "a", 0, 127, LOW));
            play("a", noteOn(0, 60, 80), bend);
            install(zone("z", "a", 0, 127, LOW).with().pass(Set.of()).build());
            play("a", noteOn(0, 60, 90));
            assertThat(sent).containsExactly(noteOn(0, 60, 80), bend, noteOff(0, 60, 64), centred, noteOn(0, 60, 90));
        }

        @ParameterizedTest
        @ValueSource(ints = {64, 65, 66, 67, 68, 69})
        void everyPedalComesUpWhereItWentDown(int pedal) {
            install(zone("z", "a", 0, 127, LOW));
            play("a", controller(0, pedal, 127));
            install(zone("z", "a", 0, 127, HIGH));
            play("a", controller(0, pedal, 0));
            assertThat(sent)
                    .containsExactly(controller(0, pedal, 127), controller(0, pedal, 0), controller(1, pedal, 0));
            assertThat(router.debtCount()).isZero();
        }

        @Test
        void aPedalComesUpWhereItWentDownAfterTheZoneIsGone() {
            install(zone("z", "a", 0, 127, LOW));
            play("a", controller(0, 64, 127));
            install(zone("z", "a", 0, 127, HIGH));
            play("a", controller(0, 64, 10));
            assertThat(sent).containsExactly(controller(0, 64, 127), controller(0, 64, 0), controller(1, 64, 10));
        }

        @Test
        void twoPlayersOnOneSoundDoNotDampEachOther() {
            install(zone("z", "*", 0, 127, LOW));
            play("a", controller(0, 64, 127));
            play("b", controller(0, 64, 127));
            play("a", controller(0, 64, 0));
            assertThat(sent).containsExactly(controller(0, 64, 127), controller(0, 64, 127));
            play("b", controller(0, 64, 0));
            assertThat(sent).endsWith(controller(0, 64, 0)).hasSize(3);
        }

        @Test
        void aWheelGoesBackWhenItNoLongerReachesAsSoonAsNoNoteIsHeldThere() {
            int bent = ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 100);
            install(zone("z", "a", 0, 127, LOW));
            play("a", bent, noteOn(0, 60, 80));
            install(zone("z", "a", 0, 127, HIGH));
            assertThat(sent).containsExactly(bent, noteOn(0, 60, 80));
            play("a", noteOff(0, 60, 64));
            assertThat(sent)
                    .endsWith(noteOff(0, 60, 64), ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 64))
                    .hasSize(4);
        }

        @Test
        void silencePaysEverything() {
            install(zone("z", "a", 0, 127, LOW));
            play("a", controller(0, 1, 90), controller(0, 64, 100));
            sent.clear();
            router.silence(0);
            assertThat(sent).startsWith(controller(0, 1, 0), controller(0, 64, 0), controller(0, 123, 0));
            assertThat(router.debtCount()).isZero();
        }
    }

    @Test
    void aKeyboardThatSoundsByItselfIsNotSentItsOwnNotesLiveButPrintsThem() {
        Routing plain = routing(zone("z", "a", 0, 127, LOW));
        List<Source> own = plain.sources().stream()
                .map(source -> source.withOwnSounds(true, "i"))
                .collect(Collectors.toList());
        Routing routing = Routing.of(own, plain.instruments(), plain.channels(), plain.always(), List.of(), null);
        router.install(RoutingCompiler.compileLive(routing, slots, Set.of()), 0);
        play("a", noteOn(0, 60, 80));
        assertThat(sent).isEmpty();
        router.install(RoutingCompiler.compile(routing, slots), 0);
        play("a", noteOn(0, 60, 80));
        assertThat(sent).containsExactly(noteOn(0, 60, 80));
    }

    @Test
    void manyVelocityWindowsOnOneKeyLeadEachToItsOwn() {
        Zone[] zones = new Zone[127];
        for (int v = 1; v <= 127; v++) {
            zones[v - 1] = zone("z" + v, "a", 60, 60, LOW)
                    .withVelocity(new Range(v, v))
                    .with()
                    .noteMap(Map.of(60, List.of(v)))
                    .build();
        }
        install(zones);
        for (int v = 1; v <= 127; v++) {
            sent.clear();
            play("a", noteOn(0, 60, v), noteOff(0, 60, 64));
            assertThat(sent).containsExactly(noteOn(0, v, v), noteOff(0, v, 64));
        }
    }

    /** The memory for compiling depends on the session, not on the number of tracks played before. */
    @Test
    void aTableIsAsLargeAsWhatCanReachIt() {
        List<Scene> scenes = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            scenes.add(Scene.of("s" + i, "s", i, List.of(zone("z" + i, "a", 0, 60 + i, LOW))));
        }
        Routing plain = routing();
        Routing routing = new Routing(
                List.of(plain.sources().get(0)),
                plain.instruments(),
                plain.channels(),
                List.of(),
                List.of(),
                scenes,
                new SceneSwitch("a", 1),
                "s0");
        long before = allocatedByCompiling(routing);
        for (int i = 0; i < 200; i++) {
            slots.source("track:" + i);
        }
        assertThat(allocatedByCompiling(routing)).isLessThan(before + 4096);
        assertThat(before).isLessThan(100 << 10);
    }

    private long allocatedByCompiling(Routing routing) {
        RoutingCompiler.compile(routing, slots);
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long before = threads.getCurrentThreadAllocatedBytes();
        RoutingCompiler.compile(routing, slots);
        return threads.getCurrentThreadAllocatedBytes() - before;
    }

    @Tag("slow")
    @Test
    void tenMillionEventsAllocateNothing() {
        Zone[] zones = new Zone[40];
        for (int z = 0; z < zones.length; z++) {
            zones[z] = zone("z" + z, z % 2 == 0 ? "a" : "b", z * 3, Math.min(127, z * 3 + 20), z % 3 == 0 ? LOW : HIGH);
        }
        SlotAllocator own = new SlotAllocator();
        long[] count = {0};
        Router counting = new Router((stamp, port, message, instrument) -> {
            count[0]++;
            return true;
        });
        counting.install(RoutingCompiler.compile(routing(zones), own), 0);
        playMany(counting, 100_000);
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long before = threads.getCurrentThreadAllocatedBytes();
        playMany(counting, 10_000_000);
        long allocated = threads.getCurrentThreadAllocatedBytes() - before;
        assertThat(count[0]).isGreaterThan(10_000_000);
        // The measuring itself may cost a few bytes; an event that allocated would cost hundreds of millions.
        assertThat(allocated).isLessThan(4096);
    }

    /** Notes, chords, layers, wheels, pedals, control maps of all kinds, scenes that change: whatever is random. */
    @Test
    void noPathOfAnEventAllocates() {
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        for (int seed = 0; seed < 20; seed++) {
            RandomRouting randomly = new RandomRouting(new Random(seed));
            SlotAllocator own = new SlotAllocator();
            long[] count = {0};
            Router counting = new Router((stamp, port, message, instrument) -> {
                count[0]++;
                return true;
            });
            counting.giveSounds();
            counting.install(RoutingCompiler.compile(randomly.routing(30), own), 0);
            int[] sources = new int[20_000];
            int[] messages = new int[20_000];
            for (int i = 0; i < messages.length; i++) {
                sources[i] = own.source(randomly.source());
                messages[i] = randomly.message();
            }
            playAll(counting, sources, messages);
            long before = threads.getCurrentThreadAllocatedBytes();
            playAll(counting, sources, messages);
            long allocated = threads.getCurrentThreadAllocatedBytes() - before;
            assertThat(allocated).as("seed %d", seed).isLessThan(4096);
        }
    }

    private static void playAll(Router router, int[] sources, int[] messages) {
        for (int i = 0; i < messages.length; i++) {
            router.event(sources[i], messages[i], i);
        }
    }

    private static void playMany(Router router, int events) {
        for (int i = 0; i < events; i++) {
            int key = i * 7 & 127;
            int message = switch (i & 7) {
                case 0, 1, 2 -> noteOn(0, key, 1 + (i & 63));
                case 6 -> controller(0, 1 + (i & 31), i & 127);
                case 7 -> ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, i & 127);
                default -> noteOff(0, key, 64);
            };
            router.event(i & 1, message, i);
        }
    }
}
