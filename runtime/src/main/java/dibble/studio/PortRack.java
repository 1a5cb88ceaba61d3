package dibble.studio;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.Source;
import dibble.midi.IdentityMessage;
import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import dibble.ports.OutputQueue;
import dibble.ports.SysexQueue;
import dibble.routing.Destination;
import dibble.routing.Routing;
import dibble.routing.SlotAllocator;
import dibble.transport.ClockFollower;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.Predicate;

/**
 * The ports of a session, open while the routing names them and the devices have them. A port that disappears is
 * released or forgotten, keeps its slot, and is reopened when it returns. Confined to the editing thread; changes to
 * the order of events are submitted to the engine.
 */
final class PortRack {
    /** The port of a source that plays on any port that is no other source's. */
    private static final String ANY = "any";

    private final Engine engine;
    private final SlotAllocator slots;
    private final Devices devices;
    private final Map<String, OutputQueue> lanes = new HashMap<>();
    private final Map<String, SysexQueue> exclusiveLanes = new HashMap<>();
    private final Map<String, InputStage> inlets = new HashMap<>();
    private final Map<String, InputPort> listened = new HashMap<>();
    private final Map<String, LoopGuard> guards = new LinkedHashMap<>();
    private final Set<String> lost = new HashSet<>();
    private final Map<Destination, int[]> sounds = new HashMap<>();

    /** Sounds that wait for their turn on a serial port, in their order. */
    private final Map<Destination, Runnable> waitingSounds = new LinkedHashMap<>();

    private final UnusedPorts strangers;

    PortRack(Engine engine, SlotAllocator slots, Devices devices) {
        this.engine = engine;
        this.slots = slots;
        this.devices = devices;
        strangers = new UnusedPorts(devices);
    }

    /** Returns the ports that the session does not use, and the identities of all devices. */
    UnusedPorts strangers() {
        return strangers;
    }

    /** Returns true if the session listens to a port. */
    boolean listens(String port) {
        return listened.containsKey(port);
    }

    /** Asks every device that the session uses who it is. */
    void askWhoIsThere() {
        // Who answers must be listened to before the question.
        strangers.listen(port -> !listens(port));
        Set<String> outputs = lanes.keySet();
        outputs.forEach(name -> exclusiveLane(name).offer(IdentityMessage.request()));
        strangers.ask(listened.keySet().stream()
                .filter(name -> !outputs.contains(name))
                .toList());
    }

    /** Completes the changes for a routing and the present devices, after {@link #openLanes}. */
    void follow(Routing routing) {
        openInlets(routing, false);
        watchLoops();
        sendSounds(routing);
    }

    /** The same when ports have come or gone: one that another program held is tried again. */
    void portsChanged(Routing routing) {
        openLanes(routing);
        openInlets(routing, true);
        watchLoops();
        sendSounds(routing);
    }

    /** Opens and closes the ways out, which must be there before a routing that uses them. */
    void openLanes(Routing routing) {
        Set<String> wanted = new HashSet<>();
        routing.instruments().forEach(instrument -> wanted.add(instrument.port()));
        Set<String> present = new HashSet<>(devices.outputs());
        for (String name : List.copyOf(lanes.keySet())) {
            if (!present.contains(name)
                    || !devices.isCurrent(name, lanes.get(name).port())) {
                loseLane(name);
            } else if (!wanted.contains(name)) {
                closeLane(name);
            }
        }
        for (String name : wanted) {
            if (!lanes.containsKey(name)) {
                devices.output(name).ifPresent(port -> openLane(name, port));
            }
        }
        lost.retainAll(wanted);
    }

    private void openLane(String name, OutputPort port) {
        OutputQueue lane = new OutputQueue(port);
        lanes.put(name, lane);
        int slot = slots.port(name);
        boolean isBack = lost.remove(name);
        engine.submit((router, stamp) -> {
            engine.setLane(slot, lane);
            if (isBack) {
                router.reopenPort(slot, stamp);
            }
        });
    }

    private void closeLane(String name) {
        int slot = slots.port(name);
        closing(name, (router, stamp) -> {
            router.closePort(slot, stamp);
            engine.setLane(slot, null);
        });
    }

    /** A port that is gone: nothing can be sent there any more. */
    private void loseLane(String name) {
        int slot = slots.port(name);
        lost.add(name);
        closing(name, (router, stamp) -> {
            engine.setLane(slot, null);
            router.forgetPort(slot);
        });
    }

    private void closing(String name, Engine.Command last) {
        OutputQueue lane = lanes.remove(name);
        SysexQueue exclusive = exclusiveLanes.remove(name);
        if (exclusive != null) {
            exclusive.close();
        }
        sounds.keySet().removeIf(destination -> destination.port().equals(name));
        waitingSounds.keySet().removeIf(destination -> destination.port().equals(name));
        CompletableFuture<Void> out = new CompletableFuture<>();
        engine.submit((router, stamp) -> {
            last.run(router, stamp);
            out.complete(null);
        });
        out.join();
        lane.close();
    }

    /** @param again whether those are tried again that could not be opened */
    private void openInlets(Routing routing, boolean again) {
        Map<String, List<Source>> wanted = new LinkedHashMap<>();
        List<Source> anywhere = new ArrayList<>();
        for (Source source : routing.sources()) {
            if (source.port().equals(ANY)) {
                anywhere.add(source);
            } else {
                wanted.computeIfAbsent(source.port(), port -> new ArrayList<>()).add(source);
            }
        }
        if (!anywhere.isEmpty()) {
            devices.inputs().forEach(port -> wanted.putIfAbsent(port, anywhere));
        }
        for (String name : List.copyOf(listened.keySet())) {
            Optional<InputPort> port = wanted.containsKey(name) ? devices.input(name) : Optional.empty();
            if (port.isEmpty()) {
                listened.remove(name).listen(null);
                lead(inlets.get(name), List.of(), routing);
            }
        }
        wanted.forEach((name, sources) -> devices.input(name).ifPresent(port -> {
            InputStage inlet = inlets.computeIfAbsent(name, this::openInlet);
            lead(inlet, sources, routing);
            boolean tryAgain = again && !port.isOpen();
            if (listened.put(name, port) != port || tryAgain) {
                strangers.leave(name);
                port.listen(inlet);
            }
        }));
    }

    private InputStage openInlet(String port) {
        InputStage inlet = engine.openInlet();
        inlet.tell(message -> strangers.heardExclusive(port, message));
        return inlet;
    }

    /** Sets the sources of a port; removed ones release their notes there. */
    private void lead(InputStage inlet, List<Source> sources, Routing routing) {
        int[] before = inlet.sources();
        int[] now =
                sources.stream().mapToInt(source -> slots.source(source.id())).toArray();
        inlet.lead(now, exclusiveLanes(sources, routing));
        int[] gone = Arrays.stream(before)
                .filter(slot -> Arrays.stream(now).noneMatch(other -> other == slot))
                .toArray();
        if (gone.length > 0) {
            inlet.letGo(gone);
        }
    }

    private SysexQueue[] exclusiveLanes(List<Source> sources, Routing routing) {
        return sources.stream()
                .flatMap(source -> source.sysexTo().stream())
                .map(routing::instrument)
                .flatMap(Optional::stream)
                .map(Instrument::port)
                .distinct()
                .filter(lanes::containsKey)
                .map(this::exclusiveLane)
                .toArray(SysexQueue[]::new);
    }

    /** The way of system exclusive messages to a port that is open. */
    Optional<SysexQueue> exclusives(String port) {
        return lanes.containsKey(port) ? Optional.of(exclusiveLane(port)) : Optional.empty();
    }

    private SysexQueue exclusiveLane(String port) {
        return exclusiveLanes.computeIfAbsent(
                port, name -> new SysexQueue(lanes.get(name).port()));
    }

    /** Puts a guard between each output port and the sources of the same device. */
    private void watchLoops() {
        Map<String, String> inputOf = new HashMap<>();
        listened.keySet().forEach(input -> inputOf.put(devices.device(input), input));
        Set<String> watched = new HashSet<>();
        for (String output : lanes.keySet()) {
            String input = inputOf.get(devices.device(output));
            if (input != null) {
                watched.add(output);
                if (!guards.containsKey(output)) {
                    LoopGuard guard = new LoopGuard(input, output, slots.port(output));
                    guards.put(output, guard);
                    setGuard(output, inlets.get(input), guard);
                }
            }
        }
        for (String output : List.copyOf(guards.keySet())) {
            if (!watched.contains(output)) {
                setGuard(output, inlets.get(guards.remove(output).input), null);
            }
        }
    }

    private void setGuard(String output, InputStage inlet, LoopGuard guard) {
        int slot = slots.port(output);
        engine.submit((router, stamp) -> {
            engine.setGuard(slot, guard);
            inlet.watch(guard);
        });
    }

    /** Connects a follower to the clock of one port, and to no other. */
    void followClock(String port, ClockFollower follower) {
        inlets.forEach((name, inlet) -> inlet.follow(name.equals(port) ? follower : null));
    }

    /** The loops that were cut. */
    List<Loop> loops() {
        return guards.values().stream()
                .filter(LoopGuard::isCut)
                .map(guard -> new Loop(guard.input, guard.output))
                .toList();
    }

    /** Sends to a port again that a loop had cut off. */
    void allow(String output) {
        LoopGuard guard = guards.get(output);
        if (guard != null) {
            engine.submit((router, stamp) -> guard.allow());
        }
    }

    /** Makes the next {@link #sendSounds} send all sounds of some ports, not only changed ones. */
    void forgetSounds(Predicate<String> wanted) {
        sounds.keySet().removeIf(destination -> wanted.test(destination.port()));
    }

    /** Sends the bank, program, volume and pan of each part if they changed, with those of the active scene. */
    void sendSounds(Routing routing) {
        boolean any = false;
        for (Instrument instrument : routing.instruments()) {
            for (Part part : instrument.parts()) {
                Optional<Destination> to = routing.destination(instrument.ref(part))
                        .filter(destination -> lanes.containsKey(destination.port()));
                any |= to.isPresent() && sendSound(instrument, part, to.get());
            }
        }
        if (any) {
            engine.submit((router, stamp) -> router.giveSceneSounds(stamp));
        }
    }

    private boolean sendSound(Instrument instrument, Part part, Destination destination) {
        int[] messages = instrument.messages(part.sound(), destination.channel() - 1);
        if (Arrays.equals(messages, sounds.put(destination, messages))) {
            return false;
        }
        int port = slots.port(destination.port());
        int number = slots.instrument(instrument.id());
        Runnable send = () -> engine.submit((router, stamp) -> {
            for (int message : messages) {
                router.giveSound(port, number, message, stamp);
            }
        });
        if (devices.isSerial(destination.port())) {
            waitingSounds.put(destination, send);
            return false;
        }
        send.run();
        return true;
    }

    /** Sends each serial port one of the sounds that wait for it: called in every pulse, it leaves room for notes. */
    void sendWaitingSounds() {
        if (waitingSounds.isEmpty()) {
            return;
        }
        Set<String> served = new HashSet<>();
        waitingSounds.entrySet().removeIf(waiting -> {
            boolean first = served.add(waiting.getKey().port());
            if (first) {
                waiting.getValue().run();
            }
            return first;
        });
        if (waitingSounds.isEmpty()) {
            engine.submit((router, stamp) -> router.giveSceneSounds(stamp));
        }
    }

    /** Returns the number of parts whose sound is still to be sent. */
    int soundsWaiting() {
        return waitingSounds.size();
    }

    Optional<OutputQueue> lane(String port) {
        return Optional.ofNullable(lanes.get(port));
    }

    /** Nothing is heard any more; what waits to be sent is sent. */
    void close() {
        strangers.close();
        listened.values().forEach(port -> port.listen(null));
        CompletableFuture<Void> silent = new CompletableFuture<>();
        engine.submit((router, stamp) -> {
            router.silence(stamp);
            silent.complete(null);
        });
        silent.join();
        exclusiveLanes.values().forEach(SysexQueue::close);
        lanes.values().forEach(OutputQueue::close);
    }
}
