package dibble.standins;

import dibble.midi.PortId;
import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import dibble.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Function;

/**
 * The stand-ins: every port of the kind {@link PortId.StandIn} is there, made when it is first asked for, until its
 * cable is pulled.
 */
public final class StandIns implements Devices {
    /** The port of the looper, which returns all messages; not plugged in until a user does so. */
    public static final String LOOPER = PortId.standIn("clover");

    private final Map<String, StandIn> devices = new ConcurrentHashMap<>();
    private final Set<String> opened = ConcurrentHashMap.newKeySet();
    private final List<Runnable> listeners = new CopyOnWriteArrayList<>();
    private final Clock clock;
    private final Function<String, OutputPort> sounds;

    /** @param sounds opens the sound output for the device of a port's name */
    public StandIns(Clock clock, Function<String, OutputPort> sounds) {
        this.clock = clock;
        this.sounds = sounds;
        StandIn looper = standIn(LOOPER).orElseThrow();
        looper.misbehave(Fault.ECHOES, true);
        looper.plug(false);
    }

    @Override
    public String kind() {
        return "stand-ins";
    }

    /** Runs a listener whenever a cable was pulled or put in, on the thread that did it. */
    @Override
    public void onChange(Runnable listener) {
        listeners.add(listener);
    }

    /** The device on a port, plugged in or not; empty where the port is no stand-in's. */
    public Optional<StandIn> standIn(String name) {
        return PortId.isStandIn(name)
                ? Optional.of(devices.computeIfAbsent(
                        name, key -> new StandIn(key, clock, sounds, () -> listeners.forEach(Runnable::run))))
                : Optional.empty();
    }

    @Override
    public Optional<InputPort> input(String name) {
        return standIn(name).filter(StandIn::isPlugged).map(InputPort.class::cast);
    }

    @Override
    public Optional<OutputPort> output(String name) {
        return standIn(name).filter(StandIn::isPlugged).map(device -> {
            opened.add(name);
            return device.output();
        });
    }

    @Override
    public boolean owns(String port) {
        return PortId.isStandIn(port);
    }

    @Override
    public List<String> inputs() {
        return devices.values().stream()
                .filter(StandIn::isPlugged)
                .map(StandIn::name)
                .sorted()
                .toList();
    }

    /** A stand-in is one device as long as there is this. */
    @Override
    public boolean isCurrent(String name, OutputPort port) {
        return true;
    }

    @Override
    public List<String> outputs() {
        return inputs().stream().filter(opened::contains).toList();
    }

    /** All stand-ins that were asked for, plugged in or not. */
    public List<String> names() {
        return devices.keySet().stream().sorted().toList();
    }

    @Override
    public void close() {
        devices.values().forEach(StandIn::close);
    }
}
