package dibble.studio;

import dibble.midi.IdentityMessage;
import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Ports that the session does not use, opened only while the user asks which one is played, or which devices are
 * present. Confined to the editing thread; events arrive on the ports' threads.
 */
final class UnusedPorts {
    private static final Logger LOG = LoggerFactory.getLogger(UnusedPorts.class);

    private final Devices devices;
    private final Map<String, InputPort> open = new HashMap<>();

    /** By device: a port in and a port out of one device have one answer. */
    private final Map<String, IdentityMessage.Answer> identities = new ConcurrentHashMap<>();

    private volatile String played;

    UnusedPorts(Devices devices) {
        this.devices = devices;
    }

    /** Listens to ports until {@link #stop}; to those that came since, where it is called again. */
    void listen(Predicate<String> wanted) {
        open.keySet().retainAll(devices.inputs());
        for (String name : devices.inputs()) {
            if (wanted.test(name) && !open.containsKey(name)) {
                devices.input(name).ifPresent(port -> {
                    open.put(name, port);
                    port.listen(new Ear(name));
                });
            }
        }
    }

    void stop() {
        open.values().forEach(port -> port.listen(null));
        open.clear();
        played = null;
    }

    /** The session uses a port now, and has another listener there. */
    void leave(String name) {
        open.remove(name);
    }

    /** The port that was played last, or null. */
    String played() {
        return played;
    }

    /** Requests the identity of devices on its own thread: ports can be slow to open, and are open only for that. */
    void ask(List<String> outputs) {
        Thread asking = new Thread(() -> outputs.forEach(this::ask), "dibble-ask");
        asking.setDaemon(true);
        asking.start();
    }

    private void ask(String name) {
        try (OutputPort port = devices.output(name).orElse(null)) {
            if (port != null) {
                port.sendExclusive(IdentityMessage.request());
            }
        } catch (RuntimeException e) {
            LOG.warn("{} could not be asked who it is: {}", name, e.toString(), e);
        }
    }

    /** Takes a system exclusive message that any port heard; any thread. */
    void heardExclusive(String port, byte[] message) {
        IdentityMessage.answer(message).ifPresent(answer -> identities.put(devices.device(port), answer));
    }

    Optional<IdentityMessage.Answer> identity(String port) {
        return Optional.ofNullable(identities.get(devices.device(port)));
    }

    void close() {
        stop();
    }

    private final class Ear implements InputPort.Listener {
        private final String name;

        Ear(String name) {
            this.name = name;
        }

        @Override
        public void heard(int message) {
            played = name;
        }

        @Override
        public void heardExclusive(byte[] message) {
            UnusedPorts.this.heardExclusive(name, message);
        }
    }
}
