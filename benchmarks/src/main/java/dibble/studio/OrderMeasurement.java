package dibble.studio;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.ports.EventRing;
import dibble.ports.OutputPort;
import dibble.ports.OutputQueue;
import dibble.ports.SysexQueue;
import dibble.routing.Router;
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
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;

/**
 * Measures the path from a port's callback to the output port's {@code send} for two ways of routing events in one
 * order: the delivering thread takes the turn (as in the engine), or a router thread drains the rings. Both alternate
 * in one run.
 */
public final class OrderMeasurement {
    private static final int ROUNDS = 3;
    private static final int EVENTS = 4000;

    private OrderMeasurement() {}

    /** Keeps how late each message is. */
    private static final class Timing implements OutputPort {
        final long[] late = new long[ROUNDS * EVENTS * 32];
        final AtomicInteger count = new AtomicInteger();

        @Override
        public String name() {
            return "timing";
        }

        @Override
        public void send(int message, long stamp) {
            long now = Clock.SYSTEM.nanos();
            late[count.getAndIncrement()] = now - stamp;
        }
    }

    /** Routes the events of the rings on a separate thread. */
    private static final class RouterThread {
        private final Router router;
        private final EventRing[] rings;
        private final Thread thread = new Thread(this::run, "router");
        private volatile boolean resting;
        private volatile boolean done;

        RouterThread(OutputQueue lane, RoutingTable table, int sources) {
            router = new Router((stamp, port, message, instrument) -> lane.offer(stamp, message));
            router.install(table, 0);
            rings = new EventRing[sources];
            Arrays.setAll(rings, i -> new EventRing(4096));
            thread.setPriority(Thread.MAX_PRIORITY);
            thread.start();
        }

        void heard(int source, int message) {
            rings[source].offer(Clock.SYSTEM.nanos(), message);
            java.lang.invoke.VarHandle.fullFence();
            if (resting) {
                LockSupport.unpark(thread);
            }
        }

        private void run() {
            boolean any = true;
            while (any || !done) {
                any = false;
                for (int source = 0; source < rings.length; source++) {
                    if (rings[source].poll()) {
                        router.event(source, (int) rings[source].payload(), rings[source].stamp());
                        any = true;
                    }
                }
                if (!any) {
                    resting = true;
                    java.lang.invoke.VarHandle.fullFence();
                    if (Arrays.stream(rings).noneMatch(EventRing::hasEvents) && !done) {
                        LockSupport.park();
                    }
                    resting = false;
                }
            }
        }

        void close() {
            done = true;
            LockSupport.unpark(thread);
        }
    }

    /** Runs the measurement and prints a line for each way and load. */
    public static void main(String[] args) throws InterruptedException {
        for (int sources : new int[] {2, 8}) {
            SlotAllocator slots = new SlotAllocator();
            RoutingTable table = RoutingCompiler.compile(routing(sources), slots);
            Timing byTurns = new Timing();
            Timing byThread = new Timing();
            for (int round = 0; round < ROUNDS; round++) {
                measureTurns(byTurns, table, sources);
                measureThread(byThread, table, sources);
            }
            print("whoever brings it", sources, byTurns);
            print("a router thread", sources, byThread);
        }
    }

    private static void measureTurns(Timing timing, RoutingTable table, int sources) throws InterruptedException {
        Engine engine = new Engine(Clock.SYSTEM);
        try (OutputQueue lane = new OutputQueue(timing)) {
            engine.submit((router, stamp) -> {
                engine.setLane(0, lane);
                router.install(table, stamp);
            });
            InputStage[] inlets = new InputStage[sources];
            Arrays.setAll(inlets, source -> {
                InputStage inlet = engine.openInlet();
                inlet.lead(new int[] {source}, new SysexQueue[0]);
                return inlet;
            });
            Players.play(sources, EVENTS, (source, message) -> inlets[source].heard(message));
        }
    }

    private static void measureThread(Timing timing, RoutingTable table, int sources) throws InterruptedException {
        try (OutputQueue lane = new OutputQueue(timing)) {
            RouterThread routerThread = new RouterThread(lane, table, sources);
            Players.play(sources, EVENTS, routerThread::heard);
            routerThread.close();
        }
    }

    private static Routing routing(int sources) {
        List<Instrument> instruments =
                List.of(Instrument.of("i", "i", true, "port", List.of(Part.of("p", "p", 1, 0, Range.ALL, 1))));
        List<Source> players = new ArrayList<>();
        List<Zone> zones = new ArrayList<>();
        for (int s = 0; s < sources; s++) {
            players.add(Source.keyboard("s" + s, "s" + s, "in" + s, Range.ALL));
            for (int z = 0; z < 1000 / sources; z++) {
                int key = z % 128;
                zones.add(Zone.of("z" + s + "-" + z, "", "s" + s, new Range(key, key), new PartRef("i", "p"))
                        .withVelocity(z < 128 ? Range.VELOCITIES : new Range(1, 1)));
            }
        }
        return Routing.of(players, instruments, ChannelPlan.of(instruments, Map.of()), zones, List.of(), null);
    }

    private static void print(String way, int sources, Timing timing) {
        long[] sorted = Arrays.copyOf(timing.late, timing.count.get());
        Arrays.sort(sorted);
        System.out.printf(
                "%-18s %d sources: median %.1f us, 99 %% %.1f us, 99.9 %% %.1f us, worst %.1f us (%d messages)%n",
                way,
                sources,
                sorted[sorted.length / 2] / 1e3,
                sorted[(int) (sorted.length * 0.99)] / 1e3,
                sorted[(int) (sorted.length * 0.999)] / 1e3,
                sorted[sorted.length - 1] / 1e3,
                sorted.length);
    }
}
