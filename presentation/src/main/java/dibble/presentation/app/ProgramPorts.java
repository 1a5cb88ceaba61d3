package dibble.presentation.app;

import dibble.jack.JackDevices;
import dibble.jack.ServerState;
import dibble.ports.Devices;
import dibble.presentation.OtherPrograms;
import dibble.programs.Cables;
import dibble.programs.OwnPorts;
import dibble.session.Document;
import dibble.sound.AudioEngine;
import dibble.sound.AudioOut;
import dibble.sound.AudioSettings;
import dibble.transport.ServerTransport;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;

/** Offers the session's ports to other applications, and adopts their connections. */
public final class ProgramPorts implements OtherPrograms {
    private final JackDevices jack;
    private final Document document;
    private final AtomicBoolean news = new AtomicBoolean();

    /** True if the next look is the first after a session was opened: its differences are not changes by a user. */
    private boolean isOpened = true;

    private boolean givesSound;
    private OwnPorts ports = OwnPorts.NONE;
    private volatile ServerState known = ServerState.NOT_ASKED;

    /** Shares the ports of a document with the programs of a server. */
    public ProgramPorts(JackDevices jack, Document document) {
        this.jack = jack;
        this.document = document;
        document.listen(this::follow);
        jack.onChange(() -> news.set(true));
    }

    /** Opens the way of sound that is chosen: among other programs where there is a server and nothing else is. */
    public static Optional<AudioOut> sound(JackDevices jack, AudioSettings settings) {
        return isAmongPrograms(settings.device())
                ? jack.sound().or(() -> AudioEngine.device(settings))
                : AudioEngine.device(settings);
    }

    /** Returns true if sound goes to other programs where it can. */
    static boolean isAmongPrograms(String device) {
        return device.isEmpty() || device.equals(JackDevices.SOUND);
    }

    @Override
    public List<Devices> devices() {
        return List.of(jack);
    }

    @Override
    public ServerTransport transport() {
        return jack.transport();
    }

    @Override
    public void giveSound(boolean on) {
        givesSound = on;
        follow();
    }

    @Override
    public void opened() {
        isOpened = true;
    }

    @Override
    public boolean hasNews() {
        return news.get();
    }

    @Override
    public void pulse(Runnable serverChanged) {
        if (!news.getAndSet(false)) {
            return;
        }
        ServerState now = jack.state();
        boolean isOther = now.isRunning() != known.isRunning() || now.rate() != known.rate();
        known = now;
        follow();
        if (isOther) {
            serverChanged.run();
        }
        jack.cables().ifPresent(this::take);
    }

    private void take(Cables.Look look) {
        if (isOpened) {
            isOpened = false;
            document.adoptConnections(look.wanted());
        } else {
            document.perform(performance -> performance.connected(look.wanted()));
        }
    }

    private void follow() {
        if (known.isRunning()) {
            OwnPorts all = OwnPorts.of(document.session(), document.performance());
            ports = givesSound ? all : new OwnPorts(all.notes(), List.of());
            jack.follow(ports, document.performance().connections());
        }
    }

    @Override
    public ServerState server() {
        return known;
    }

    @Override
    public OwnPorts ports() {
        return ports;
    }

    @Override
    public Optional<Cables.Look> cables() {
        return jack.cables();
    }
}
