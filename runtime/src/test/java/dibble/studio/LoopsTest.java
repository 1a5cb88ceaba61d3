package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.EventRing;
import dibble.ports.OutputQueue;
import dibble.ports.PulledPort;
import dibble.ports.SysexQueue;
import dibble.routing.RoutingCompiler;
import dibble.routing.RoutingTable;
import dibble.routing.SlotAllocator;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.HandClock;
import java.util.List;
import java.util.Random;
import java.util.function.IntUnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** A device that sends back what it is sent, through everything that a note passes, in a time of its own. */
class LoopsTest {
    private static final int MS = 1_000_000;
    private static final int TURNS = 5000;

    private final HandClock clock = new HandClock();
    private final SlotAllocator slots = new SlotAllocator();
    private final Engine engine = new Engine(clock);
    private final InputStage keys = engine.openInlet();
    private final InputStage looper = engine.openInlet();
    private final Looper device = new Looper();
    private final OutputQueue lane = new OutputQueue(device);
    private final LoopGuard guard;

    LoopsTest() {
        Instrument instrument = Instrument.of(
                "module",
                "Module",
                false,
                "looper",
                List.of(Part.of("harp", "Harp", 3, 46, Range.ALL, 1), Part.of("flute", "Flute", 4, 73, Range.ALL, 1)));
        Session session = Session.empty("Loop")
                .withSources(List.of(
                        Source.keyboard("keys", "Keys", "keys", Range.ALL),
                        Source.keyboard("looper", "Looper", "looper", Range.ALL)))
                .withInstruments(List.of(instrument))
                .withZones(List.of(
                        Zone.of("there", "There", "keys", Range.ALL, new PartRef("module", "harp")),
                        Zone.of("back", "Back", "looper", Range.ALL, new PartRef("module", "flute"))));
        RoutingTable table = RoutingCompiler.compile(session.routing(Performance.NEW), slots);
        guard = new LoopGuard("looper", "looper", slots.port("looper"));
        keys.lead(new int[] {slots.source("keys")}, new SysexQueue[0]);
        looper.lead(new int[] {slots.source("looper")}, new SysexQueue[0]);
        engine.submit((router, stamp) -> {
            engine.setLane(slots.port("looper"), lane);
            engine.setGuard(slots.port("looper"), guard);
            looper.watch(guard);
            router.install(table, stamp);
        });
    }

    private static final class Looper implements PulledPort {
        EventRing waiting;

        @Override
        public String name() {
            return "looper";
        }

        @Override
        public void pullFrom(EventRing from) {
            waiting = from;
        }

        @Override
        public boolean isPulling() {
            return false;
        }

        @Override
        public void close() {}
    }

    /** Plays one key and lets its echoes go round: each takes its time, and the cable carries one after the other. */
    private void goRound(int cable, IntUnaryOperator delay) {
        keys.heard(ShortMessage.noteOn(0, 60, 80));
        long free = 0;
        for (int turn = 0; turn < TURNS && !guard.isCut() && device.waiting.poll(); turn++) {
            free = Math.max(device.waiting.stamp(), free) + cable;
            long arrives = free + delay.applyAsInt(turn);
            clock.advance(Math.max(0, arrives - clock.nanos()));
            looper.heard((int) device.waiting.payload());
        }
    }

    @Property(tries = 100)
    void isNoticedHoweverLateSomeEchoesAre(@ForAll long seed) {
        Random random = new Random(seed);
        int cable = random.nextInt(2) * MS;
        int usual = 20_000 + random.nextInt(4 * MS);
        int late = random.nextInt(50 * MS);
        goRound(cable, turn -> random.nextInt(1 + turn / 4) == 0 ? late : usual + random.nextInt(MS / 3));
        assertThat(guard.isCut()).isTrue();
    }
}
