package dibble.desktop.app;

import dibble.levels.SoundPlan;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.ports.OutputPort;
import dibble.sound.AudioSettings;
import dibble.sound.SoundBank;
import dibble.sound.SoundEngine;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicIntegerArray;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Watches all messages to the built-in instruments. Checks that on and off alternate for each key, and tracks sounding keys and displaced pedals and wheels.
 */
final class SoakWire implements SoundEngine {
    private static final int ALL_NOTES_OFF = 123;
    private static final long BUCKET_NANOS = 10_000;
    private static final int BUCKETS = 100_000;

    private final SoundEngine sounds;
    private final Map<String, Port> ports = new ConcurrentHashMap<>();
    private final Queue<String> violations = new ConcurrentLinkedQueue<>();
    private final AtomicIntegerArray latencies = new AtomicIntegerArray(BUCKETS);
    private final AtomicLong count = new AtomicLong();
    private volatile boolean measures;

    SoakWire(SoundEngine sounds) {
        this.sounds = sounds;
    }

    /** Counts latencies, or no longer: while tracks play their stamps lie ahead. */
    void measure(boolean on) {
        measures = on;
    }

    /** Returns how many messages were sent since the last call. */
    long takeCount() {
        return count.getAndSet(0);
    }

    /** Returns the latency, in microseconds, that a share of all did not exceed. */
    double latency(double share) {
        long all = 0;
        for (int i = 0; i < BUCKETS; i++) {
            all += latencies.get(i);
        }
        long within = 0;
        for (int i = 0; i < BUCKETS; i++) {
            within += latencies.get(i);
            if (within > 0 && within >= share * all) {
                return (i + 1) * BUCKET_NANOS / 1000.0;
            }
        }
        return 0;
    }

    void forgetLatencies() {
        for (int i = 0; i < BUCKETS; i++) {
            latencies.set(i, 0);
        }
    }

    /** Returns the violations since the last call. */
    List<String> violations() {
        List<String> all = new ArrayList<>();
        for (String next = violations.poll(); next != null; next = violations.poll()) {
            all.add(next);
        }
        return all;
    }

    /** Returns a line for each sounding key and each displaced pedal or wheel. */
    List<String> unrest() {
        List<String> all = new ArrayList<>();
        ports.forEach((name, port) -> port.addUnrest(all));
        return all;
    }

    private final class Port implements OutputPort {
        private final OutputPort sound;
        private final boolean[] sounding = new boolean[16 * 128];
        private final Map<Integer, Integer> away = new TreeMap<>();

        Port(OutputPort sound) {
            this.sound = sound;
        }

        @Override
        public String name() {
            return sound.name();
        }

        @Override
        public void send(int message, long stamp) {
            long late = System.nanoTime() - stamp;
            count.incrementAndGet();
            if (measures && ShortMessage.startsNote(message)) {
                latencies.incrementAndGet((int) Math.max(0, Math.min(BUCKETS - 1, late / BUCKET_NANOS)));
            }
            take(message);
            sound.send(message, stamp);
        }

        private synchronized void take(int message) {
            int place = ShortMessage.channel(message) << 7 | ShortMessage.data1(message);
            if (ShortMessage.isNote(message)) {
                boolean starts = ShortMessage.startsNote(message);
                if (sounding[place] == starts) {
                    violations.add((starts ? "on twice: " : "off without its on: ") + told(message));
                }
                sounding[place] = starts;
            } else if (ShortMessage.kind(message) == ShortMessage.CONTROLLER
                    && ShortMessage.data1(message) == ALL_NOTES_OFF) {
                for (int key = 0; key < 128; key++) {
                    sounding[ShortMessage.channel(message) << 7 | key] = false;
                }
            } else if (NeutralValues.moves(message)) {
                int kind = ShortMessage.status(message) << 8
                        | (ShortMessage.kind(message) == ShortMessage.CONTROLLER ? ShortMessage.data1(message) : 0);
                if (NeutralValues.isAtRest(message)) {
                    away.remove(kind);
                } else {
                    away.put(kind, message);
                }
            }
        }

        private String told(int message) {
            return name() + ", channel " + (ShortMessage.channel(message) + 1) + ", key " + ShortMessage.data1(message);
        }

        private synchronized void addUnrest(List<String> all) {
            for (int place = 0; place < sounding.length; place++) {
                if (sounding[place]) {
                    all.add("sounds: " + told(ShortMessage.noteOn(place >> 7, place & 0x7F, 1)));
                }
            }
            away.values().forEach(message -> all.add("owed: %s, %06x".formatted(name(), message)));
        }

        @Override
        public void sendExclusive(byte[] message) {
            sound.sendExclusive(message);
        }

        @Override
        public void close() {
            ports.remove(name(), this);
            sound.close();
        }
    }

    @Override
    public OutputPort open(String port) {
        Port opened = new Port(sounds.open(port));
        ports.put(port, opened);
        return opened;
    }

    @Override
    public boolean isHere() {
        return sounds.isHere();
    }

    @Override
    public void start() {
        sounds.start();
    }

    @Override
    public void choose(AudioSettings chosen) {
        sounds.choose(chosen);
    }

    @Override
    public void lookAgain() {
        sounds.lookAgain();
    }

    @Override
    public void follow(SoundPlan plan, Map<String, SoundBank> files) {
        sounds.follow(plan, files);
    }

    @Override
    public String trouble() {
        return sounds.trouble();
    }

    @Override
    public boolean isSounding() {
        return sounds.isSounding();
    }

    @Override
    public Reading strip(String port, int channel, int key) {
        return sounds.strip(port, channel, key);
    }

    @Override
    public Reading output(int number) {
        return sounds.output(number);
    }

    @Override
    public Status status() {
        return sounds.status();
    }

    @Override
    public void forgetPeaks() {
        sounds.forgetPeaks();
    }

    @Override
    public void close() {
        sounds.close();
    }
}
