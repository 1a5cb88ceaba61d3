package dibble.ports;

import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import java.lang.invoke.VarHandle;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/**
 * The output path to one port: a ring and a sender thread, so that a slow port delays no other; a {@link PulledPort}
 * empties the ring itself. An almost full queue rejects everything but offs. The space reserved for offs is more than
 * can sound on a port at once, so an off is never lost. Written by the thread that routes events, one at a time.
 */
public final class OutputQueue implements AutoCloseable {
    /** Notes that can sound on a port at once (16 channels of 128), and silence's messages on top. */
    private static final int KEPT_FOR_OFFS = 16 * 128 + 64;

    /** Room that pedals and wheels have to come to rest, when nothing else is taken any more. */
    private static final int KEPT_FOR_RESTS = KEPT_FOR_OFFS + 1024;

    private static final int CAPACITY = 1 << 14;

    private final EventRing ring = new EventRing(CAPACITY);
    private final OutputPort port;

    /** Null if the port fetches its messages. */
    private final Thread sender;

    private volatile boolean resting;
    private volatile boolean closing;
    private volatile long refused;
    private volatile long sent;
    private volatile boolean sending;
    private volatile long failed;

    /** @param port the port; closed with the queue */
    public OutputQueue(OutputPort port) {
        this.port = port;
        if (port instanceof PulledPort pulled) {
            pulled.pullFrom(ring);
            sender = null;
            return;
        }
        sender = new Thread(this::run, "dibble-out-" + port.name());
        sender.setDaemon(true);
        sender.setPriority(Thread.MAX_PRIORITY);
        sender.start();
    }

    /** Puts a message on its way; false where the lane is so full that only offs are taken. */
    public boolean offer(long stamp, int message) {
        if (ring.size() >= CAPACITY - kept(message)) {
            refused = refused + 1;
            return false;
        }
        boolean taken = ring.offer(stamp, message);
        // The event must be visible before the sender's rest is looked at; pairs with the fence in run().
        VarHandle.fullFence();
        if (resting) {
            LockSupport.unpark(sender);
        }
        return taken;
    }

    /** Returns the space that a message leaves for more important ones. */
    private static int kept(int message) {
        return switch (ShortMessage.kind(message)) {
            case ShortMessage.NOTE_OFF -> 0;
            case ShortMessage.CONTROLLER -> silences(ShortMessage.data1(message)) ? 0 : keptForRest(message);
            default -> keptForRest(message);
        };
    }

    /** Returns true if a controller is all sound off or all notes off (MIDI 1.0, channel mode messages). */
    private static boolean silences(int controller) {
        return controller == 120 || controller == 123;
    }

    private static int keptForRest(int message) {
        return NeutralValues.isAtRest(message) ? KEPT_FOR_OFFS : KEPT_FOR_RESTS;
    }

    private void run() {
        while (true) {
            if (ring.hasEvents()) {
                // Before it leaves the ring: backlog() reads the ring first.
                sending = true;
                ring.poll();
                send((int) ring.payload(), ring.stamp());
                sending = false;
                continue;
            }
            if (closing) {
                return;
            }
            resting = true;
            VarHandle.fullFence();
            if (!ring.hasEvents() && !closing) {
                LockSupport.park(this);
            }
            resting = false;
        }
    }

    private void send(int message, long stamp) {
        try {
            port.send(message, stamp);
            sent = sent + 1;
        } catch (RuntimeException e) {
            // A port that fails must not take its sender with it; the count is shown.
            failed = failed + 1;
        }
    }

    /** The port that it sends to. */
    public OutputPort port() {
        return port;
    }

    /** Returns the number of messages that the port has not taken yet; 0 means that it has taken all of them. */
    public int backlog() {
        return ring.size() + (sending ? 1 : 0);
    }

    /** Messages that were refused since the lane was opened; none of them an off. */
    public long refused() {
        return refused;
    }

    /** Messages that the port took. */
    public long sent() {
        return sent;
    }

    /** Messages that the port failed to take. */
    public long failed() {
        return failed;
    }

    /** Sends what waits, for a second at most, and closes the port. */
    @Override
    public void close() {
        closing = true;
        try {
            if (port instanceof PulledPort pulled) {
                awaitPulled(pulled);
            } else {
                LockSupport.unpark(sender);
                sender.join(TimeUnit.SECONDS.toMillis(1));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        port.close();
    }

    private void awaitPulled(PulledPort pulled) throws InterruptedException {
        for (int ms = 0; ms < 1000 && ring.hasEvents() && pulled.isPulling(); ms++) {
            TimeUnit.MILLISECONDS.sleep(1);
        }
    }
}
