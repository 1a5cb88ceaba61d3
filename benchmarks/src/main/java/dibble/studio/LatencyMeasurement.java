package dibble.studio;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.ports.OutputQueue;
import dibble.ports.SysexQueue;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.RoutingTable;
import dibble.routing.SlotAllocator;
import dibble.routing.Zone;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/**
 * From a port's callback to the output port's {@code send}, with eight sources that play 1,000 events a second each on
 * two output ports: first with both ports quick, then with one of them blocking for 50 ms at a time. What counts is
 * how late the messages of the quick port are in either case. Last with a ninth source that floods the second port.
 */
public final class LatencyMeasurement {
    private static final int SOURCES = 8;
    private static final int SECONDS = 10;
    private static final int EVENTS = SECONDS * 1000;
    private static final int FLOOD = 50_000;
    private static final long BLOCK = TimeUnit.MILLISECONDS.toNanos(50);

    private LatencyMeasurement() {}

    /** Keeps how late each message is. */
    private static final class Timing implements OutputPort {
        private final String name;
        private final boolean blocks;
        private final long[] late = new long[(SOURCES + FLOOD / 1000) * EVENTS * 2];
        private int count;

        Timing(String name, boolean blocks) {
            this.name = name;
            this.blocks = blocks;
        }

        @Override
        public String name() {
            return name;
        }

        @Override
        public void send(int message, long stamp) {
            late[count++] = Clock.SYSTEM.nanos() - stamp;
            if (blocks && count % 50 == 0) {
                long until = Clock.SYSTEM.nanos() + BLOCK;
                for (long left = BLOCK; left > 0; left = until - Clock.SYSTEM.nanos()) {
                    LockSupport.parkNanos(left);
                }
            }
        }
    }

    /** Runs the measurement and prints a line for each port. */
    public static void main(String[] args) throws InterruptedException {
        System.out.println(
                "From callback to send, " + SOURCES + " sources at 1,000 events a second, " + SECONDS + " s a run");
        measure(false, 0, false);
        measure(false, 0, true);
        measure(true, 0, true);
        measure(false, FLOOD, true);
    }

    private static void measure(boolean blocking, int flood, boolean print) throws InterruptedException {
        Timing first = new Timing("quick", false);
        Timing second = new Timing(blocking ? "blocking" : "quick too", blocking);
        SlotAllocator slots = new SlotAllocator();
        RoutingTable table = RoutingCompiler.compile(routing(), slots);
        Engine engine = new Engine(Clock.SYSTEM);
        try (OutputQueue one = new OutputQueue(first);
                OutputQueue other = new OutputQueue(second)) {
            engine.submit((router, stamp) -> {
                engine.setLane(0, one);
                engine.setLane(1, other);
                router.install(table, stamp);
            });
            InputStage flooded = engine.openInlet();
            flooded.lead(new int[] {slots.source("flood")}, new SysexQueue[0]);
            Thread flooding = new Thread(() -> flood(flooded, flood));
            flooding.start();
            play(engine);
            flooding.join();
            if (flood > 0) {
                System.out.printf(
                        "with %d events a second on a ninth port, of which %d were lost:%n", flood, flooded.lost());
            }
            report(first, one, print);
            report(second, other, print);
        }
    }

    private static void play(Engine engine) throws InterruptedException {
        InputStage[] inlets = new InputStage[SOURCES];
        for (int source = 0; source < SOURCES; source++) {
            inlets[source] = engine.openInlet();
            inlets[source].lead(new int[] {source}, new SysexQueue[0]);
        }
        Players.play(SOURCES, EVENTS, (source, message) -> inlets[source].heard(message));
    }

    /** So many events a second, a burst each millisecond, of a source that leads to the second port. */
    private static void flood(InputStage inlet, int eventsPerSecond) {
        long next = Clock.SYSTEM.nanos();
        for (int burst = 0; eventsPerSecond > 0 && burst < EVENTS; burst++) {
            next += 1_000_000;
            for (long left = next - Clock.SYSTEM.nanos(); left > 0; left = next - Clock.SYSTEM.nanos()) {
                LockSupport.parkNanos(left);
            }
            for (int i = 0; i < eventsPerSecond / 1000; i++) {
                inlet.heard(ShortMessage.controller(0, 1 + i, burst & 127));
            }
        }
    }

    private static void report(Timing timing, OutputQueue lane, boolean print) {
        while (timing.name.startsWith("quick") && lane.backlog() > 0) {
            Thread.onSpinWait();
        }
        long[] late = Arrays.copyOf(timing.late, timing.count);
        Arrays.sort(late);
        if (print) {
            System.out.printf(
                    "%-10s %7d messages: median %8.1f us, 99.9 %% %9.1f us, worst %9.1f us; refused %d%n",
                    timing.name,
                    late.length,
                    late[late.length / 2] / 1e3,
                    late[(int) (late.length * 0.999)] / 1e3,
                    late[late.length - 1] / 1e3,
                    lane.refused());
        }
    }

    /** 1,000 zones; of each source every other one leads to the other port. */
    private static Routing routing() {
        List<Instrument> instruments = List.of(
                Instrument.of("a", "a", true, "one", List.of(Part.of("p", "p", 1, 0, Range.ALL, 1))),
                Instrument.of("b", "b", true, "two", List.of(Part.of("p", "p", 1, 0, Range.ALL, 1))));
        List<Source> sources = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int s = 0; s < SOURCES; s++) {
            sources.add(Source.keyboard("s" + s, "s" + s, "in" + s, Range.ALL));
            for (int z = 0; z < 125; z++) {
                int key = z % 127;
                zones.add(Zone.of(
                        "z" + s + "-" + z, "", "s" + s, new Range(key, key), new PartRef(z % 2 == 0 ? "a" : "b", "p")));
            }
        }
        // The one that floods plays a part of the second port.
        sources.add(Source.keyboard("flood", "flood", "in-flood", Range.ALL));
        zones.add(Zone.of("flood", "", "flood", Range.ALL, new PartRef("b", "p")));
        return Routing.of(sources, instruments, ChannelPlan.of(instruments, Map.of()), zones, List.of(), null);
    }
}
