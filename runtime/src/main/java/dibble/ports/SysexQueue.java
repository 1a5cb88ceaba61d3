package dibble.ports;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The way of system exclusive messages out to one port: long ones must not hold up the notes on its {@link OutputQueue}. */
public final class SysexQueue implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(SysexQueue.class);
    private static final int CAPACITY = 1024;

    private final BlockingQueue<byte[]> queue = new ArrayBlockingQueue<>(CAPACITY);
    private final OutputPort port;
    private final Thread sender;
    private volatile long refused;

    /** @param port the port; its {@link OutputQueue} closes it */
    public SysexQueue(OutputPort port) {
        this.port = port;
        sender = new Thread(this::run, "dibble-exclusive-" + port.name());
        sender.setDaemon(true);
        sender.start();
    }

    /** Puts a message on its way; never blocks. Refused, and counted, where too many wait. */
    public void offer(byte[] message) {
        if (!queue.offer(message)) {
            refused = refused + 1;
        }
    }

    /** Messages that were refused since the lane was opened. */
    public long refused() {
        return refused;
    }

    private void run() {
        while (!Thread.currentThread().isInterrupted()) {
            try {
                port.sendExclusive(queue.take());
            } catch (InterruptedException e) {
                return;
            } catch (RuntimeException e) {
                LOG.warn("{} did not take a system exclusive message: {}", port.name(), e.toString(), e);
            }
        }
    }

    /** Gives up what waits. The port itself is closed by its {@link OutputQueue}. */
    @Override
    public void close() {
        sender.interrupt();
    }
}
