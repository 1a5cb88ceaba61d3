package dibble.studio;

import dibble.ports.EventRing;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Keeps what is played and prints it while it comes, on a thread of its own. What it is asked for (start, another
 * routing, stop) takes effect at its place in the order of events.
 */
final class Recorder implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Recorder.class);
    private static final long REST_NANOS = TimeUnit.MILLISECONDS.toNanos(5);

    /** A take that is complete, with the tracks printed from it. */
    record Finished(Take take, Printer printer) {}

    private interface Request {
        /** @param scene the slot of the scene that is active at this point, or -1 */
        void carryOut(long stamp, int scene);
    }

    private final EventRing ring;
    private final Queue<Request> requests = new ConcurrentLinkedQueue<>();
    private final Queue<Finished> finished = new ConcurrentLinkedQueue<>();
    private final Thread thread = new Thread(this::run, "dibble-recorder");
    private volatile Recording recording;
    private volatile boolean closing;

    Recorder(EventRing ring) {
        this.ring = ring;
        thread.setDaemon(true);
        thread.start();
    }

    /**
     * Asks for a recording to start at the mark that follows.
     *
     * @param scenes the ids of scenes, by their slots
     */
    void start(List<Track> tracks, Set<String> armed, List<String> sources, List<String> scenes, Routing routing) {
        requests.add((stamp, scene) ->
                recording = new Recording(stamp, sources, new Printer(tracks, armed), inScene(routing, scenes, scene)));
    }

    /** Asks for another routing from the mark that follows. */
    void routing(List<String> sources, List<String> scenes, Routing routing) {
        requests.add((stamp, scene) -> {
            if (recording != null) {
                recording.routing(stamp, sources, inScene(routing, scenes, scene));
            }
        });
    }

    /** The routing in the scene that was active at its place: an event may have called one that nobody else knew yet. */
    private static Routing inScene(Routing routing, List<String> scenes, int scene) {
        return scene < 0 ? routing : routing.withScene(scenes.get(scene));
    }

    /** Asks for the end at the mark that follows. */
    void stop() {
        requests.add((stamp, scene) -> {
            if (recording != null) {
                Take take = recording.finish(stamp);
                finished.add(new Finished(take, recording.printer()));
                recording = null;
            }
        });
    }

    private void run() {
        while (!closing) {
            try {
                while (ring.poll()) {
                    take(ring.stamp(), ring.payload());
                }
            } catch (RuntimeException e) {
                // One event that cannot be printed must not end the take.
                LOG.error("an event was not recorded: {}", e.toString());
            }
            LockSupport.parkNanos(this, REST_NANOS);
        }
    }

    private void take(long stamp, long packed) {
        if (Packed.what(packed) == Packed.REQUEST) {
            requests.remove().carryOut(stamp, Packed.voice(packed) - 1);
        } else if (recording != null) {
            boolean echo = Packed.what(packed) == Packed.ECHO;
            recording.event(stamp, Packed.voice(packed), Packed.message(packed), echo);
        }
    }

    /** The recording in progress, or null. */
    Recording recording() {
        return recording;
    }

    /** The next complete take, or null. */
    Finished pollFinished() {
        return finished.poll();
    }

    @Override
    public void close() {
        closing = true;
        LockSupport.unpark(thread);
    }
}
