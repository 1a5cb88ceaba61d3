package dibble.studio;

import dibble.ports.EventRing;
import dibble.ports.OutputQueue;
import dibble.routing.Router;
import dibble.routing.RouterOutput;
import dibble.time.Clock;
import java.util.Arrays;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicBoolean;

/**
 * Routes events one at a time, in one order, for all ports: all sources of a destination share the alternation of on
 * and off. A thread that delivers an event takes the <em>turn</em> if it is free, and then routes all waiting events;
 * otherwise the thread that owns the turn routes this one. Commands (an edit, a scene, silence) are part of the same
 * order. The benchmarks compare it with a separate router thread.
 */
final class Engine implements RouterOutput {
    private static final int MONITOR_CAPACITY = 1 << 14;

    /** Ten seconds of 50,000 events a second. */
    private static final int RECORDER_CAPACITY = 1 << 19;

    /** Something that happens between two events. */
    interface Command {
        void run(Router router, long stamp);
    }

    private final Clock clock;
    private final Router router = new Router(this);
    private final AtomicBoolean turn = new AtomicBoolean();
    private final ConcurrentLinkedQueue<Command> commands = new ConcurrentLinkedQueue<>();
    private final EventRing monitor = new EventRing(MONITOR_CAPACITY);
    private final EventRing recorder = new EventRing(RECORDER_CAPACITY);
    private final SysexBuffer exclusives = new SysexBuffer();
    private volatile InputStage[] inlets = {};
    private OutputQueue[] lanes = {};
    private LoopGuard[] guards = {};

    /** The guard of the device whose own event is being routed; null for other events. */
    private LoopGuard playedDevice;

    /** The slot of the active scene, or -1. */
    private volatile int scene = -1;

    /**
     * The latest stamp in the recorder's ring: an event that a port delivers late is recorded in the order of the turn.
     */
    private long recorded = Long.MIN_VALUE;

    private volatile long monitorSkipped;
    private volatile long recorderLost;

    Engine(Clock clock) {
        this.clock = clock;
        router.giveSounds();
    }

    /** Opens a way in for a port, or for playback. */
    synchronized InputStage openInlet() {
        InputStage inlet = new InputStage(this, clock);
        InputStage[] more = Arrays.copyOf(inlets, inlets.length + 1);
        more[inlets.length] = inlet;
        inlets = more;
        return inlet;
    }

    /** Runs a command between two events, after all earlier ones. */
    void submit(Command command) {
        commands.offer(command);
        takeTurn();
    }

    /** Puts a lane in place for a port, or takes it away (null). Runs as a command, in the turn. */
    void setLane(int port, OutputQueue lane) {
        if (port >= lanes.length) {
            lanes = Arrays.copyOf(lanes, port + 1);
        }
        lanes[port] = lane;
    }

    /** Sets the guard of a port, or none (null). Runs as a command, in the turn. */
    void setGuard(int port, LoopGuard guard) {
        if (port >= guards.length) {
            guards = Arrays.copyOf(guards, port + 1);
        }
        guards[port] = guard;
    }

    /** The slot of the scene that is active at this point of the order, or -1 where there is none. */
    int scene() {
        return scene;
    }

    /**
     * Routes the waiting events, unless another thread owns the turn: that one looks again after its turn. The release
     * of the flag pairs with the next owner's acquire, and publishes the state of a turn.
     */
    void takeTurn() {
        do {
            if (!turn.compareAndSet(false, true)) {
                return;
            }
            try {
                decideAll();
            } finally {
                turn.set(false);
            }
        } while (hasWork());
    }

    /** Returns true if a source is also played on another port. */
    boolean isPlayedElsewhere(int source, InputStage but) {
        for (InputStage inlet : inlets) {
            if (inlet != but && inlet.plays(source)) {
                return true;
            }
        }
        return false;
    }

    /** Returns true if every event that was received before this call has been decided. Any thread. */
    boolean isIdle() {
        // In this order: an event that left its ring is decided once the turn is free.
        return !hasWork() && !turn.get();
    }

    private boolean hasWork() {
        if (!commands.isEmpty()) {
            return true;
        }
        for (InputStage inlet : inlets) {
            if (inlet.ring.hasEvents()) {
                return true;
            }
        }
        return false;
    }

    private void decideAll() {
        boolean any = true;
        while (any) {
            any = false;
            for (Command command = commands.poll(); command != null; command = commands.poll()) {
                playedDevice = null;
                command.run(router, clock.nanos());
                scene = router.scene();
                any = true;
            }
            // One event of each port in turn: a flood on one port does not hold up the others.
            for (InputStage inlet : inlets) {
                if (inlet.ring.poll()) {
                    decide(inlet, inlet.ring.stamp(), inlet.ring.payload());
                    any = true;
                }
            }
        }
    }

    private void decide(InputStage inlet, long stamp, long packed) {
        int message = Packed.message(packed);
        int voice = Packed.voice(packed);
        if (Packed.what(packed) == Packed.EXCLUSIVE) {
            if (!record(stamp, packed)) {
                exclusives.take(message);
            }
            return;
        }
        if (Packed.what(packed) != Packed.PLAYED) {
            playedDevice = null;
            router.play(voice, Packed.port(packed), Packed.instrument(packed), message, stamp);
            return;
        }
        LoopGuard guard = inlet.guard();
        LoopGuard.Verdict verdict = guard == null ? LoopGuard.Verdict.PLAYED : guard.heard(stamp, message, router);
        boolean echo = verdict == LoopGuard.Verdict.ECHO;
        playedDevice = verdict == LoopGuard.Verdict.PLAYED ? guard : null;
        long what = echo ? Packed.of(Packed.ECHO, voice, 0, 0, message) : packed;
        record(stamp, what);
        show(stamp, what);
        if (!echo || Router.onlyEnds(message)) {
            router.event(voice, message, stamp);
        }
    }

    /** Decides a message as if a source had played it. Runs as part of a command. */
    void play(int source, int message, long stamp) {
        long packed = Packed.of(Packed.PLAYED, source, 0, 0, message);
        record(stamp, packed);
        show(stamp, packed);
        router.event(source, message, stamp);
    }

    private boolean record(long stamp, long packed) {
        recorded = Math.max(recorded, stamp);
        boolean taken = recorder.offer(recorded, packed);
        if (!taken) {
            recorderLost = recorderLost + 1;
        }
        return taken;
    }

    private void show(long stamp, long packed) {
        if (!monitor.offer(stamp, packed)) {
            monitorSkipped = monitorSkipped + 1;
        }
    }

    @Override
    public boolean send(long stamp, int port, int message, int instrument) {
        OutputQueue lane = port < lanes.length ? lanes[port] : null;
        LoopGuard guard = port < guards.length ? guards[port] : null;
        boolean taken = lane != null && (guard == null || !guard.isCut()) && lane.offer(stamp, message);
        if (guard != null && taken) {
            guard.sent(stamp, message, guard == playedDevice);
        }
        show(stamp, Packed.of(taken ? Packed.SENT : Packed.NOT_SENT, 0, port, instrument, message));
        return taken;
    }

    @Override
    public void sceneCalled(long stamp, int called) {
        scene = called;
    }

    /**
     * Marks this point of the order, and the scene that is active here, for the recorder. Runs as a command; waits
     * where the recorder is behind.
     */
    void markForRecorder(Router at, long stamp) {
        recorded = Math.max(recorded, stamp);
        while (!recorder.offer(recorded, Packed.of(Packed.REQUEST, at.scene() + 1, 0, 0, 0))) {
            Thread.onSpinWait();
        }
    }

    /** System exclusive messages on their way to the recorder. */
    SysexBuffer exclusives() {
        return exclusives;
    }

    /** Returns the ring that the recorder reads. */
    EventRing recorderRing() {
        return recorder;
    }

    /** Returns the ring that the interface reads: each played event, followed by its output. */
    EventRing monitorRing() {
        return monitor;
    }

    /** Events that the interface was too slow for. */
    long monitorSkipped() {
        return monitorSkipped;
    }

    /** Events that did not get in because a port's ring was full, or that the recorder was too slow for. */
    long lost() {
        long lost = recorderLost;
        for (InputStage inlet : inlets) {
            lost += inlet.lost();
        }
        return lost;
    }
}
