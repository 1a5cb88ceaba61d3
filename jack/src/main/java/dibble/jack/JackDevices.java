package dibble.jack;

import com.sun.jna.Pointer;
import dibble.ports.Devices;
import dibble.ports.InputPort;
import dibble.ports.OutputPort;
import dibble.programs.Cables;
import dibble.programs.OwnPorts;
import dibble.programs.SoundPair;
import dibble.session.Connection;
import dibble.sound.AudioOut;
import dibble.time.Clock;
import dibble.transport.ServerTransport;
import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Dibble's ports on a JACK server, among other applications. A separate thread looks for the server and runs everything
 * that may take time; requests of a session return at once. Without a server nothing happens until one appears.
 */
public final class JackDevices implements Devices {
    /** The name of the sound output to other applications, among the audio devices in the settings. */
    public static final String SOUND = "jack-server";

    /** As other programs see us. */
    private static final String NAME = "Dibble";

    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(500);

    /** The interval for the delivery of system exclusive messages. */
    private static final long DELIVER_NANOS = TimeUnit.MILLISECONDS.toNanos(20);

    private static final long SEARCH_NANOS = TimeUnit.SECONDS.toNanos(2);

    /** The folder where servers leave marks on Linux. */
    private static final Path MARKS = Path.of("/dev/shm");

    private static final long CLOSE_MILLIS = 2000;
    private static final Logger LOG = LoggerFactory.getLogger(JackDevices.class);

    /** Kept: the library has them for as long as it is loaded. */
    private static final Calls.Told TOLD = text ->
            LOG.debug("{}", text == null ? "" : text.getString(0, Calls.TEXT).strip());

    /**
     * The requested state.
     *
     * @param cables the connections of the session
     */
    private record Wanted(OwnPorts ports, Set<Connection> cables) {}

    /** The present state. Its names are sorted once, since views read them in every frame. */
    private record There(
            Client client,
            Map<String, NotesIn> ins,
            Map<String, NotesOut> outs,
            List<String> inputs,
            List<String> outputs) {
        static final There NOTHING = of(null, Map.of(), Map.of());

        static There of(Client client, Map<String, NotesIn> ins, Map<String, NotesOut> outs) {
            return new There(client, ins, outs, sorted(ins.keySet()), sorted(outs.keySet()));
        }

        private static List<String> sorted(Set<String> names) {
            return names.stream().sorted().toList();
        }
    }

    /** The result of a look, with the request at that time. */
    private record Seen(Wanted under, Cables.Look look) {}

    private final Clock clock;
    private final Runnable loader;
    private final List<Runnable> listeners = new CopyOnWriteArrayList<>();
    private final Cables cables = new Cables();
    private final Transport transport = new Transport();
    private final Thread thread;
    private volatile Wanted wanted = new Wanted(OwnPorts.NONE, Set.of());
    private volatile There there = There.NOTHING;
    private volatile ServerState state = ServerState.NOT_ASKED;
    private volatile Seen seen = new Seen(null, Cables.Look.NOTHING);
    private volatile boolean closing;

    // What follows belongs to the thread.
    private Client client;
    private Registry registry;
    private Wanted followed;
    private boolean isLoaded;
    private boolean isWired;
    private boolean saysBeats;
    private boolean toldMistake;
    private long looked;

    /** Looks for nothing before {@link #start}. */
    public JackDevices(Clock clock) {
        this(clock, Calls::load);
    }

    /** @param loader finds the library, or throws an {@link UnsatisfiedLinkError} */
    JackDevices(Clock clock, Runnable loader) {
        this.clock = clock;
        this.loader = loader;
        thread = new Thread(this::run, "dibble-programs");
        thread.setDaemon(true);
    }

    /** Begins to look for a server. */
    @Override
    public void start() {
        thread.start();
    }

    @Override
    public String kind() {
        return "programs";
    }

    /** Runs a listener, on its own thread, after changes of ports, connections or the server. */
    @Override
    public void onChange(Runnable listener) {
        listeners.add(listener);
    }

    /**
     * Sets the ports for other applications.
     *
     * @param connections the connections of the session
     */
    public void follow(OwnPorts ports, Set<Connection> connections) {
        Wanted next = new Wanted(ports, connections);
        if (!next.equals(wanted)) {
            wanted = next;
            LockSupport.unpark(thread);
        }
    }

    /** The transport that all programs on the server share. */
    public ServerTransport transport() {
        return transport;
    }

    /** Returns whether there is a server. */
    public ServerState state() {
        return state;
    }

    /** Returns the last state of the connections; empty if the request has changed since. */
    public Optional<Cables.Look> cables() {
        Seen now = seen;
        return now.under == wanted ? Optional.of(now.look) : Optional.empty();
    }

    /** Opens the way of sound to other programs; empty where there is no server. The mixer's thread. */
    public Optional<AudioOut> sound() {
        Client now = there.client;
        return now == null || now.isGone() ? Optional.empty() : Optional.of(new SoundOut(now, clock));
    }

    @Override
    public Optional<InputPort> input(String name) {
        return Optional.ofNullable(there.ins.get(name));
    }

    @Override
    public Optional<OutputPort> output(String name) {
        return Optional.ofNullable(there.outs.get(name)).map(NotesOpening::new);
    }

    @Override
    public List<String> inputs() {
        return there.inputs;
    }

    @Override
    public List<String> outputs() {
        return there.outputs;
    }

    @Override
    public boolean owns(String port) {
        return OwnPorts.isOwn(port);
    }

    @Override
    public boolean isCurrent(String name, OutputPort port) {
        NotesOut out = there.outs.get(name);
        return out != null && port instanceof NotesOpening opening && opening.isOf(out);
    }

    private void run() {
        while (!closing) {
            try {
                LockSupport.parkNanos(this, client == null ? search() : attend());
            } catch (RuntimeException | Error e) {
                LOG.error("ports among other programs: {}", e.toString(), e);
                lose();
                LockSupport.parkNanos(this, SEARCH_NANOS);
            }
        }
        if (client != null) {
            lose();
        }
    }

    /** Looks for a server. @return how long it can rest then */
    private long search() {
        if (!isLoaded) {
            try {
                loader.run();
                Calls.jack_set_error_function(TOLD);
                Calls.jack_set_info_function(TOLD);
                isLoaded = true;
            } catch (UnsatisfiedLinkError | NoClassDefFoundError e) {
                LOG.debug("no JACK library: {}", e.toString());
                become(ServerState.without(ServerState.Kind.NO_LIBRARY));
                return Long.MAX_VALUE;
            }
        }
        long handle = Calls.jack_client_open(NAME, Calls.NO_START_SERVER, 0);
        if (handle == 0) {
            become(ServerState.without(
                    hasOthersServer(MARKS, System.getProperty("user.name"))
                            ? ServerState.Kind.OTHERS
                            : ServerState.Kind.NO_SERVER));
            return SEARCH_NANOS;
        }
        client = new Client(handle, clock, transport);
        registry = new Registry(client, clock);
        followed = null;
        isWired = false;
        saysBeats = false;
        String name = new Pointer(Calls.jack_get_client_name(handle)).getString(0, Calls.TEXT);
        state = new ServerState(ServerState.Kind.RUNNING, client.rate(), client.block(), name);
        LOG.info("ports among other programs as \"{}\": {} Hz, blocks of {}", name, client.rate(), client.block());
        return 0;
    }

    /** Returns true if the server of another user is there: each leaves a mark with the user's number, on Linux. */
    static boolean hasOthersServer(Path marks, String me) {
        if (!Files.isDirectory(marks)) {
            return false;
        }
        try (DirectoryStream<Path> found = Files.newDirectoryStream(marks, "jack_*_*_0")) {
            for (Path mark : found) {
                if (!Files.getOwner(mark).getName().equals(me)) {
                    return true;
                }
            }
        } catch (IOException | RuntimeException e) {
            LOG.debug("looking for others' servers: {}", e.toString());
        }
        return false;
    }

    private void become(ServerState next) {
        if (!next.equals(state)) {
            state = next;
            tell();
        }
    }

    private void tell() {
        listeners.forEach(Runnable::run);
    }

    /** Looks after the ports. @return how long it can rest then */
    private long attend() {
        if (client.isGone()) {
            lose();
            return SEARCH_NANOS;
        }
        Wanted next = wanted;
        boolean hasOthers = followed == null || !next.ports.equals(followed.ports);
        if (followed == null || !next.cables.equals(followed.cables)) {
            cables.want(next.cables);
        }
        followed = next;
        if (hasOthers) {
            registry.follow(next.ports);
            there = There.of(client, registry.ins(), registry.outs());
            tell();
        }
        if (transport.isLeading() != saysBeats) {
            saysBeats = !saysBeats;
            client.sayBeats(saysBeats);
        }
        there.ins.values().forEach(NotesIn::deliver);
        if (hasOthers || clock.nanos() - looked >= LOOK_NANOS) {
            looked = clock.nanos();
            lookAtCables();
        }
        if (client.mistake() != null && !toldMistake) {
            toldMistake = true;
            LOG.error("in a block of the server of ports: {}", client.mistake().toString(), client.mistake());
        }
        return DELIVER_NANOS;
    }

    private void lookAtCables() {
        Cables.Look now = cables.look(registry.connections(), registry.ids(), registry.everybodys());
        for (Connection cable : now.toMake()) {
            if (registry.connect(state.name(), cable)) {
                cables.made(cable);
            } else {
                now.missing().add(cable);
            }
        }
        wire(now);
        ServerState as = new ServerState(ServerState.Kind.RUNNING, client.rate(), client.block(), state.name());
        Seen next = new Seen(followed, now);
        if (!next.equals(seen) || !as.equals(state)) {
            seen = next;
            state = as;
            tell();
        }
    }

    /** Connects the first output to the playback ports of the server if it has no connection, so that it is audible. */
    private void wire(Cables.Look now) {
        boolean hasCables = now.wanted().stream().anyMatch(cable -> cable.own().startsWith("sound/"));
        String first =
                followed.ports.sound().stream().findFirst().map(SoundPair::id).orElse(null);
        if (isWired || hasCables || first == null) {
            isWired |= hasCables;
            return;
        }
        isWired = true;
        List<String> speakers = registry.speakers();
        if (speakers.size() >= 2) {
            registry.connect(state.name(), new Connection(first + SoundPair.LEFT, speakers.get(0)));
            registry.connect(state.name(), new Connection(first + SoundPair.RIGHT, speakers.get(1)));
        }
    }

    private void lose() {
        Client gone = client;
        client = null;
        there = There.NOTHING;
        seen = new Seen(null, Cables.Look.NOTHING);
        state = ServerState.without(ServerState.Kind.NO_SERVER);
        if (registry != null) {
            registry.end();
            registry = null;
        }
        cables.look(Set.of(), Set.of(), Set.of());
        tell();
        if (gone != null) {
            gone.close();
        }
    }

    /** Leaves the server; waits for that, but not for a server that hangs. */
    @Override
    public void close() {
        closing = true;
        LockSupport.unpark(thread);
        try {
            thread.join(CLOSE_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
