package dibble.ports;

import static dibble.text.CoreText.say;

import dibble.midi.PortId;
import dibble.ports.MachinePorts.Found;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The MIDI ports of this machine, through the JDK's device service. A port is opened with its first listener or
 * message, and never before. Plugging in and unplugging are noticed within {@link #LOOK_EVERY}.
 *
 * <p>A port is a {@link PortId.Machine} with its name in the system. Ports with equal names are distinguished by their
 * descriptions and manufacturers, and if these are equal by their order; a name that matches two ports is not resolved.
 */
public final class MachineDevices implements Devices {
    /** The interval for looking for ports, in milliseconds. */
    public static final long LOOK_EVERY = 1000;

    private static final Logger LOG = LoggerFactory.getLogger(MachineDevices.class);

    private final Supplier<List<Found>> machine;
    private final List<Runnable> listeners = new CopyOnWriteArrayList<>();
    private final Map<String, String> troubles = new ConcurrentHashMap<>();
    private final Map<String, MachineInput> inputs = new HashMap<>();
    private final SharedDevices shared = new SharedDevices();
    private final ScheduledExecutorService watch = Executors.newSingleThreadScheduledExecutor(task -> {
        Thread thread = new Thread(task, "dibble-devices");
        thread.setDaemon(true);
        return thread;
    });
    private volatile Plugged plugged = new Plugged(new TreeMap<>(), new TreeMap<>());

    /** The present ports by their names, sorted once: views read the names in every frame. */
    private record Plugged(SortedMap<String, Found> ins, SortedMap<String, Found> outs) {}

    /** The ports that the JDK's device service finds. */
    public MachineDevices() {
        this(MachinePorts::list);
    }

    private MachineDevices(Supplier<List<Found>> machine, long firstLook) {
        this.machine = machine;
        watch.scheduleWithFixedDelay(this::lookAgain, firstLook, LOOK_EVERY, TimeUnit.MILLISECONDS);
    }

    /**
     * Starts without waiting for the first look, which takes long on some systems; its result is reported as a change.
     */
    public static MachineDevices foundLater() {
        return new MachineDevices(MachinePorts::list, 0);
    }

    MachineDevices(Supplier<List<Found>> machine) {
        this(machine, LOOK_EVERY);
        look();
    }

    @Override
    public String kind() {
        return "machine";
    }

    @Override
    public void onChange(Runnable listener) {
        listeners.add(listener);
    }

    private void lookAgain() {
        try {
            Plugged before = plugged;
            look();
            if (!plugged.equals(before)) {
                listeners.forEach(Runnable::run);
            }
        } catch (RuntimeException e) {
            // A driver that fails once must not end the watch.
            LOG.warn("could not ask which MIDI ports there are: {}", e.toString(), e);
        }
    }

    private void look() {
        List<Found> found = machine.get();
        plugged = new Plugged(
                named(found.stream().filter(Found::plays).toList()),
                named(found.stream().filter(Found::hears).toList()));
        troubles.keySet()
                .removeIf(name ->
                        !plugged.ins().containsKey(name) && !plugged.outs().containsKey(name));
    }

    /** Names for the ports of one way: as short as tells them apart. */
    private static SortedMap<String, Found> named(List<Found> found) {
        SortedMap<String, Found> named = new TreeMap<>();
        for (int i = 0; i < found.size(); i++) {
            named.put(name(found, i), found.get(i));
        }
        return named;
    }

    private static String name(List<Found> found, int i) {
        Found port = found.get(i);
        List<Found> sameName =
                found.stream().filter(other -> other.name().equals(port.name())).toList();
        if (sameName.size() == 1) {
            return new PortId.Machine(port.name()).text();
        }
        String longer = new PortId.Machine(port.name() + ", " + port.description() + ", " + port.vendor()).text();
        List<Found> sameAll = sameName.stream()
                .filter(other -> other.description().equals(port.description())
                        && other.vendor().equals(port.vendor()))
                .toList();
        return sameAll.size() == 1 ? longer : longer + " (" + (place(sameAll, port) + 1) + ")";
    }

    /** By identity: two ports that are the same in all that is known of them are two all the same. */
    private static int place(List<Found> ports, Found wanted) {
        for (int i = 0; i < ports.size(); i++) {
            if (ports.get(i).info() == wanted.info()) {
                return i;
            }
        }
        return ports.size();
    }

    @Override
    public synchronized Optional<InputPort> input(String name) {
        Found found = plugged.ins().get(name);
        MachineInput known = inputs.get(name);
        if (known != null && (found == null || known.info() != found.info())) {
            known.listen(null);
            inputs.remove(name);
        }
        return Optional.ofNullable(found)
                .map(port -> inputs.computeIfAbsent(
                        name, key -> new MachineInput(key, port.info(), trouble -> tell(key, trouble))));
    }

    @Override
    public Optional<OutputPort> output(String name) {
        Found found = plugged.outs().get(name);
        if (found == null) {
            return Optional.empty();
        }
        try {
            OutputPort port = new MachineOutput(name, MidiSystem.getMidiDevice(found.info()), shared);
            troubles.remove(name);
            return Optional.of(port);
        } catch (MidiUnavailableException | RuntimeException e) {
            tell(name, e.getMessage());
            return Optional.empty();
        }
    }

    @Override
    public boolean isCurrent(String name, OutputPort port) {
        Found found = plugged.outs().get(name);
        return !(port instanceof MachineOutput output) || found != null && found.info() == output.info();
    }

    private void tell(String name, String trouble) {
        if (trouble == null) {
            troubles.remove(name);
        } else {
            troubles.put(name, trouble);
        }
    }

    @Override
    public Optional<String> trouble(String name) {
        Plugged now = plugged;
        if (now.ins().containsKey(name) || now.outs().containsKey(name)) {
            return Optional.ofNullable(troubles.get(name));
        }
        long alike = Math.max(alike(now.ins(), name), alike(now.outs(), name));
        return alike > 1 ? Optional.of(say("machine-devices.ports-have-this-name-choose", alike)) : Optional.empty();
    }

    private static long alike(SortedMap<String, Found> ports, String name) {
        return ports.values().stream()
                .filter(port -> new PortId.Machine(port.name()).text().equals(name))
                .count();
    }

    /** The device at a port of this machine is not known, so it is treated as serial. */
    @Override
    public boolean isSerial(String name) {
        return true;
    }

    @Override
    public boolean owns(String port) {
        return PortId.isMachine(port);
    }

    @Override
    public List<String> inputs() {
        return List.copyOf(plugged.ins().keySet());
    }

    @Override
    public List<String> outputs() {
        return List.copyOf(plugged.outs().keySet());
    }

    @Override
    public synchronized void close() {
        watch.shutdownNow();
        inputs.values().forEach(input -> input.listen(null));
    }
}
