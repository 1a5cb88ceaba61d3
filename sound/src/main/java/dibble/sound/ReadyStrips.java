package dibble.sound;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import javax.sound.midi.MidiUnavailableException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Keeps a few synthesizers ready: opening one takes longer than a mixer can wait without being heard. */
final class ReadyStrips {
    private static final int READY = 6;
    private static final Logger LOG = LoggerFactory.getLogger(ReadyStrips.class);
    private static final BlockingQueue<Strip> STRIPS = new ArrayBlockingQueue<>(READY);

    static {
        Thread maker = new Thread(ReadyStrips::make, "dibble-synthesizers");
        maker.setDaemon(true);
        maker.setPriority(Thread.MIN_PRIORITY);
        maker.start();
    }

    private ReadyStrips() {}

    private static void make() {
        try {
            while (true) {
                STRIPS.put(new Strip());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (MidiUnavailableException e) {
            LOG.error("no synthesizers: {}", e.getMessage());
        }
    }

    /** Has some made, where none were asked for yet. */
    static void prepare() {
        // The class is there now, and its thread runs.
    }

    /** A strip that nobody has; made now where more are wanted than were ready. */
    static Strip take() throws MidiUnavailableException {
        Strip ready = STRIPS.poll();
        return ready != null ? ready : new Strip();
    }
}
