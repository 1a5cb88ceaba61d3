package dibble.sound;

import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.ConcurrentLinkedQueue;
import javax.sound.midi.MidiUnavailableException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Keeps a few synthesizers ready: opening one takes longer than a mixer can wait without being heard. */
final class SynthPool implements SynthSupply {
    private static final int READY = 6;
    private static final Logger LOG = LoggerFactory.getLogger(SynthPool.class);

    private final AudioSettings settings;
    private final ConcurrentLinkedQueue<PartSynth> plain = new ConcurrentLinkedQueue<>();

    /** Synthesizers with sounds of a file, by it. Guarded by this. */
    private final Map<SoundBank, ConcurrentLinkedQueue<PartSynth>> others = new HashMap<>();

    /** How many are wanted of each. Guarded by this. */
    private final Map<SoundBank, Integer> wanted = new HashMap<>();

    private final Thread maker;
    private volatile boolean closing;

    SynthPool(AudioSettings settings) {
        this.settings = settings;
        maker = new Thread(this::make, "dibble-synthesizers");
        maker.setDaemon(true);
        maker.setPriority(Thread.MIN_PRIORITY);
    }

    @Override
    public void start() {
        maker.start();
    }

    @Override
    public synchronized void want(Map<SoundBank, Integer> counts) {
        wanted.clear();
        wanted.putAll(counts);
        others.keySet().retainAll(counts.keySet());
        notifyAll();
    }

    private void make() {
        try {
            while (!closing) {
                if (plain.size() < READY) {
                    plain.add(new JdkSynth(settings, null));
                } else {
                    SoundBank next = next();
                    if (next != null) {
                        PartSynth made = new JdkSynth(settings, next);
                        queue(next).add(made);
                    }
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (MidiUnavailableException | RuntimeException e) {
            LOG.error("no synthesizers: {}", e.toString(), e);
        } finally {
            plain.forEach(PartSynth::close);
        }
    }

    /** What is to be made next; waits where nothing is, and is null where somebody took one meanwhile. */
    private synchronized SoundBank next() throws InterruptedException {
        for (Map.Entry<SoundBank, Integer> want : wanted.entrySet()) {
            if (queue(want.getKey()).size() < want.getValue()) {
                return want.getKey();
            }
        }
        wait(1000);
        return null;
    }

    private synchronized ConcurrentLinkedQueue<PartSynth> queue(SoundBank bank) {
        return others.computeIfAbsent(bank, key -> new ConcurrentLinkedQueue<>());
    }

    /** One that is ready; made now where more are wanted than were. */
    @Override
    public PartSynth take(SoundBank bank) throws MidiUnavailableException {
        PartSynth ready = bank == null ? plain.poll() : queue(bank).poll();
        synchronized (this) {
            // Each strip needs one; after that, one is ready for what may come.
            wanted.computeIfPresent(bank, (of, count) -> Math.max(1, count - 1));
            notifyAll();
        }
        return ready != null ? ready : new JdkSynth(settings, bank);
    }

    @Override
    public void close() {
        closing = true;
        maker.interrupt();
    }
}
