package dibble.benchmarks;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.routing.ControlMap;
import dibble.routing.Router;
import dibble.routing.RouterOutput;
import dibble.routing.Routing;
import dibble.routing.RoutingCompiler;
import dibble.routing.RoutingTable;
import dibble.routing.SlotAllocator;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * The cost of an event where one zone matches, among many that do not: they have other keys or other velocities of the
 * same source. Beside it a plain loop over the list of zones, and a bare hand-over of the message to the sink.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(2)
public class RouterBenchmark {
    private static final int PAIR = 2;
    private static final int KEY = 60;

    /** The number of zones, of which one matches. */
    @Param({"10", "100", "1000", "10000"})
    private int zones;

    private Router router;
    private RouterOutput output;
    private List<Zone> list;
    private Routing routing;
    private long sink;

    /** Zones on other keys, and on the same key with velocities that are not played. */
    @Setup
    public void prepare() {
        Instrument instrument = Instrument.of("i", "i", true, "port", List.of(Part.of("p", "p", 1, 0, Range.ALL, 1)));
        Source source = Source.keyboard("a", "a", "in", Range.ALL);
        PartRef part = new PartRef("i", "p");
        list = new ArrayList<>();
        for (int z = 0; z < zones - 1; z++) {
            int key = z % 128;
            Zone zone = Zone.of("z" + z, "", "a", new Range(key, Math.min(127, key + z % 5)), part);
            list.add(zone.keys().holds(KEY) ? zone.withVelocity(new Range(1 + z % 90, 1 + z % 90)) : zone);
        }
        list.add(zones / 2, Zone.of("match", "", "a", new Range(KEY, KEY), part).withVelocity(new Range(100, 127)));
        List<Instrument> instruments = List.of(instrument);
        routing = Routing.of(List.of(source), instruments, ChannelPlan.of(instruments, Map.of()), list, List.of(), null)
                .withControls(controls());
        SlotAllocator slots = new SlotAllocator();
        output = (stamp, port, message, number) -> {
            sink += message;
            return true;
        };
        router = new Router(output);
        router.install(RoutingCompiler.compile(routing, slots), 0);
    }

    /**
     * Returns a fifth as many control maps as zones, on separate controllers and channels; one is triggered by
     * controller 21.
     */
    private List<ControlMap> controls() {
        List<ControlMap> maps = new ArrayList<>();
        for (int m = 0; m < zones / 5; m++) {
            maps.add(ControlMap.of(
                            "c" + m,
                            "a",
                            ControlMap.Trigger.controller(22 + m % 40),
                            ControlMap.Send.controller(11, new ZoneTarget.ToChannel("i", 1 + m % 16)))
                    .withChannels(ChannelSet.of(1 + m % 16)));
        }
        maps.add(ControlMap.of(
                "match",
                "a",
                ControlMap.Trigger.controller(21),
                ControlMap.Send.controller(11, new ZoneTarget.ToChannel("i", 1))));
        return maps;
    }

    /** A note-on and its off. */
    @Benchmark
    @OperationsPerInvocation(PAIR)
    public long routed() {
        router.event(0, ShortMessage.noteOn(0, KEY, 110), 0);
        router.event(0, ShortMessage.noteOff(0, KEY, 64), 0);
        return sink;
    }

    /** A plain loop over the list, without held notes, for comparison. */
    @Benchmark
    @OperationsPerInvocation(PAIR)
    public long looped() {
        for (Zone zone : list) {
            if (zone.enabled()
                    && zone.source().equals("a")
                    && zone.channels().holds(0)
                    && zone.keys().holds(KEY)
                    && zone.velocity().holds(110)) {
                sink += ShortMessage.noteOn(0, KEY + zone.transpose(), 110);
                sink += ShortMessage.noteOff(0, KEY + zone.transpose(), 64);
            }
        }
        return sink;
    }

    /** Passes two messages to the output by the same interface: the lower limit. */
    @Benchmark
    @OperationsPerInvocation(PAIR)
    public long handedOver() {
        output.send(0, 0, ShortMessage.noteOn(0, KEY, 110), 0);
        output.send(0, 0, ShortMessage.noteOff(0, KEY, 64), 0);
        return sink;
    }

    /** A wheel that a control map turns into a controller, and one that the zone passes. */
    @Benchmark
    @OperationsPerInvocation(PAIR)
    public long controlled() {
        router.event(0, ShortMessage.controller(0, 21, 60), 0);
        router.event(0, ShortMessage.controller(0, 74, 60), 0);
        return sink;
    }

    /** The cost of compiling such a session after an edit. */
    @Benchmark
    public RoutingTable compiled() {
        return RoutingCompiler.compile(routing, new SlotAllocator());
    }
}
