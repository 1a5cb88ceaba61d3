package dibble.studio;

import dibble.ports.Devices;
import dibble.ports.OutputPort;
import dibble.ports.OutputQueue;
import dibble.session.Session;
import dibble.time.Clock;
import dibble.transport.ClockSender;
import dibble.transport.PlaybackTimebase;
import dibble.transport.ServerTransport;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;

/**
 * The ports that are sent MIDI clock. One that goes away is left out, and joins again when it is back. Belongs to the
 * thread that edits.
 */
final class ClockPorts implements AutoCloseable {
    /** Room for a start before the first clock. */
    private static final long AHEAD = TimeUnit.MILLISECONDS.toNanos(5);

    private final Clock clock;
    private final ServerTransport transport;
    private final PortRack ports;
    private final Devices devices;
    private final Map<String, Out> outs = new HashMap<>();
    private ClockSender sender;
    private Set<String> wanted = Set.of();

    ClockPorts(Clock clock, PortRack ports, Devices devices, ServerTransport transport) {
        this.transport = transport;
        this.clock = clock;
        this.ports = ports;
        this.devices = devices;
    }

    /** A port, which may have been opened for the clock alone. */
    private record Out(OutputPort port, boolean own) implements ClockSender.Out {
        @Override
        public void realTime(int status) {
            port.sendRealTime(status);
        }

        @Override
        public void songPosition(int sixteenths) {
            port.sendSongPosition(sixteenths);
        }
    }

    long readiness(Session session) {
        return session.clock().to().isEmpty() ? 0 : AHEAD;
    }

    /** Takes in which ports the session sends its clock to. */
    void follow(Session session) {
        Set<String> next = new HashSet<>(session.clock().to());
        if (!next.equals(wanted)) {
            wanted = next;
            portsChanged();
        }
    }

    /** Takes in that ports have come or gone: one that is back under its name is another port. */
    void portsChanged() {
        for (String name : Set.copyOf(outs.keySet())) {
            Out out = outs.get(name);
            boolean same = wanted.contains(name)
                    && devices.outputs().contains(name)
                    && devices.isCurrent(name, out.port)
                    && isOpen(name, out);
            if (!same) {
                outs.remove(name);
                if (out.own) {
                    out.port.close();
                }
            }
        }
        if (sender != null) {
            sender.setOuts(open());
        }
    }

    /** One that is sent notes too is opened and closed with its lane. */
    private boolean isOpen(String name, Out out) {
        Optional<OutputPort> lane = ports.lane(name).map(OutputQueue::port);
        return lane.isPresent() ? lane.get() == out.port : out.own;
    }

    private List<Out> open() {
        List<Out> open = new ArrayList<>();
        for (String name : wanted) {
            if (!outs.containsKey(name)) {
                ports.lane(name)
                        .map(lane -> new Out(lane.port(), false))
                        .or(() -> devices.output(name).map(port -> new Out(port, true)))
                        .ifPresent(out -> outs.put(name, out));
            }
            Optional.ofNullable(outs.get(name)).ifPresent(open::add);
        }
        return open;
    }

    /**
     * Starts the followers with the music.
     *
     * @param lead the nanoseconds of clocks before the music
     */
    void start(PlaybackTimebase course, long lead) {
        if (!wanted.isEmpty()) {
            portsChanged();
            sender = new ClockSender(clock, course, open());
            sender.start(lead);
            lead(course);
        }
    }

    private void lead(PlaybackTimebase course) {
        if (wanted.contains(ServerTransport.PORT)) {
            transport.lead(course);
        }
    }

    void change(PlaybackTimebase course) {
        if (sender != null) {
            sender.change(course);
            lead(course);
        }
    }

    void stop() {
        if (sender != null) {
            sender.close();
            sender = null;
            transport.rest();
        }
    }

    @Override
    public void close() {
        stop();
        outs.values().stream().filter(Out::own).forEach(out -> out.port.close());
    }
}
