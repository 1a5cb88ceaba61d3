package dibble.jack;

import com.sun.jna.Pointer;
import dibble.programs.NotesPort;
import dibble.programs.OwnPorts;
import dibble.programs.SoundPair;
import dibble.session.Connection;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The ports of one client, registered, renamed and unregistered as a session requests. Confined to one thread. */
final class Registry {
    private static final Logger LOG = LoggerFactory.getLogger(Registry.class);

    /** A port that is registered. */
    private static final class Registered {
        final long handle;
        final boolean in;
        String name;

        Registered(long handle, boolean in, String name) {
            this.handle = handle;
            this.in = in;
            this.name = name;
        }
    }

    private final Client client;
    private final Clock clock;
    private final Map<String, Registered> registered = new LinkedHashMap<>();
    private final Map<String, SoundPorts.Pair> pairs = new HashMap<>();
    private Set<Connection> cables = Set.of();
    private Map<String, NotesIn> ins = new LinkedHashMap<>();
    private Map<String, NotesOut> outs = new LinkedHashMap<>();

    Registry(Client client, Clock clock) {
        this.client = client;
        this.clock = clock;
    }

    /** Returns the input ports, by the session's names. */
    Map<String, NotesIn> ins() {
        return Map.copyOf(ins);
    }

    /** Returns the output ports, by the session's names. */
    Map<String, NotesOut> outs() {
        return Map.copyOf(outs);
    }

    /** The ids of all ports that are there. */
    Set<String> ids() {
        return registered.keySet();
    }

    /** Sets the ports of the client. */
    void follow(OwnPorts wanted) {
        Set<String> left = new HashSet<>(registered.keySet());
        renameAside(wanted);
        Map<String, NotesIn> nextIns = new LinkedHashMap<>();
        Map<String, NotesOut> nextOuts = new LinkedHashMap<>();
        Map<String, List<NotesOut.Bearer>> bearers = new LinkedHashMap<>();
        for (NotesPort port : wanted.notes()) {
            Registered at = register(port.id(), port.name(), Calls.MIDI, port.in(), left);
            if (at == null) {
                continue;
            }
            if (port.in()) {
                NotesIn known = ins.get(port.port());
                nextIns.put(port.port(), known != null ? known : new NotesIn(port.port(), at.handle));
            } else {
                bearers.computeIfAbsent(port.port(), name -> new ArrayList<>())
                        .add(new NotesOut.Bearer(port, at.handle));
            }
        }
        bearers.forEach((port, all) -> {
            NotesOut known = outs.get(port);
            NotesOut out = known != null ? known : new NotesOut(port, clock);
            out.bear(all.toArray(NotesOut.Bearer[]::new));
            nextOuts.put(port, out);
        });
        List<SoundPorts.Pair> sound = new ArrayList<>();
        for (SoundPair pair : wanted.sound()) {
            Registered leftPort = register(pair.id() + SoundPair.LEFT, pair.leftName(), Calls.AUDIO, false, left);
            Registered rightPort = register(pair.id() + SoundPair.RIGHT, pair.rightName(), Calls.AUDIO, false, left);
            if (leftPort != null && rightPort != null) {
                SoundPorts.Pair known = pairs.get(pair.id());
                boolean same = known != null && known.spec.equals(pair) && known.leftHandle == leftPort.handle;
                sound.add(same ? known : new SoundPorts.Pair(pair, leftPort.handle, rightPort.handle));
            }
        }
        pairs.clear();
        sound.forEach(pair -> pairs.put(pair.spec.id(), pair));
        outs.forEach((port, out) -> {
            if (nextOuts.get(port) != out) {
                out.end();
            }
        });
        ins = nextIns;
        outs = nextOuts;
        client.set(
                ins.values().toArray(NotesIn[]::new),
                outs.values().toArray(NotesOut[]::new),
                sound.toArray(SoundPorts.Pair[]::new));
        for (String id : left) {
            Calls.jack_port_unregister(client.handle(), registered.remove(id).handle);
        }
    }

    /** A port whose name another one is to have makes room first: two may change their names for each other's. */
    private void renameAside(OwnPorts wanted) {
        Map<String, String> names = new HashMap<>();
        wanted.notes().forEach(port -> names.put(port.name(), port.id()));
        wanted.sound().forEach(pair -> {
            names.put(pair.leftName(), pair.id() + SoundPair.LEFT);
            names.put(pair.rightName(), pair.id() + SoundPair.RIGHT);
        });
        int[] number = {0};
        registered.forEach((id, port) -> {
            String owner = names.get(port.name);
            if (owner != null && !owner.equals(id)) {
                rename(port, port.name + " (" + ++number[0] + ")");
            }
        });
    }

    private void rename(Registered port, String name) {
        if (Calls.jack_port_rename(client.handle(), port.handle, name) == 0) {
            port.name = name;
        } else {
            LOG.warn("the port \"{}\" could not be renamed to \"{}\"", port.name, name);
        }
    }

    private Registered register(String id, String name, String type, boolean in, Set<String> left) {
        Registered known = registered.get(id);
        if (known != null) {
            left.remove(id);
            if (!known.name.equals(name)) {
                rename(known, name);
            }
            return known;
        }
        long handle = Calls.jack_port_register(client.handle(), name, type, in ? Calls.IS_INPUT : Calls.IS_OUTPUT, 0);
        if (handle == 0) {
            LOG.warn("the server of ports did not take the port \"{}\"", name);
            return null;
        }
        Registered made = new Registered(handle, in, name);
        registered.put(id, made);
        return made;
    }

    /** Returns the present connections of all ports; a port that has lost one releases its held notes. */
    Set<Connection> connections() {
        Set<Connection> before = cables;
        cables = readCables();
        ins.values().forEach(in -> {
            boolean hasLost = before.stream().anyMatch(cable -> !cables.contains(cable) && isAt(in, cable.own()));
            if (hasLost) {
                in.playerGone();
            }
        });
        return cables;
    }

    private boolean isAt(NotesIn in, String id) {
        Registered port = registered.get(id);
        return port != null && port.handle == in.handle();
    }

    private Set<Connection> readCables() {
        Set<Connection> cables = new LinkedHashSet<>();
        registered.forEach((id, port) -> {
            for (String other : texts(Calls.jack_port_get_all_connections(client.handle(), port.handle))) {
                cables.add(new Connection(id, other));
            }
        });
        return cables;
    }

    /** Returns the names of all ports of all applications. */
    Set<String> everybodys() {
        return new LinkedHashSet<>(texts(Calls.jack_get_ports(client.handle(), null, null, 0)));
    }

    /** Returns the first playback ports of the server. */
    List<String> speakers() {
        return texts(Calls.jack_get_ports(client.handle(), null, Calls.AUDIO, Calls.IS_INPUT | Calls.IS_PHYSICAL));
    }

    /** Makes a cable; false where the server refuses it. */
    boolean connect(String clientName, Connection cable) {
        Registered port = registered.get(cable.own());
        String own = clientName + ":" + port.name;
        return (port.in
                        ? Calls.jack_connect(client.handle(), cable.other(), own)
                        : Calls.jack_connect(client.handle(), own, cable.other()))
                == 0;
    }

    /** The server has gone, and all ports with it. */
    void end() {
        outs.values().forEach(NotesOut::end);
    }

    private static List<String> texts(long array) {
        if (array == 0) {
            return List.of();
        }
        List<String> texts = List.of(new Pointer(array).getStringArray(0, Calls.TEXT));
        Calls.jack_free(array);
        return texts;
    }
}
