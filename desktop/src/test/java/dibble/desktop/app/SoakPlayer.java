package dibble.desktop.app;

import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.ShortMessage;
import dibble.standins.StandIn;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.Random;
import java.util.concurrent.locks.LockSupport;

/** A simulated player: plays random keys, pedals and wheels on its own thread, and logs every message. */
final class SoakPlayer implements AutoCloseable {
    private static final int MAX_KEYS = 4;
    private static final long LONGEST_NANOS = 60_000_000;

    private final String source;
    private final StandIn device;
    private final List<Integer> channels;
    private final int low;
    private final int high;
    private final Random random;
    private final Thread thread;
    private final Deque<Integer> held = new ArrayDeque<>();
    private final List<Integer> moved = new ArrayList<>();
    private final List<Integer> played = Collections.synchronizedList(new ArrayList<>());
    private volatile boolean plays;
    private volatile boolean rests = true;
    private volatile boolean closed;

    SoakPlayer(Source source, StandIn device, long seed) {
        this.source = source.id();
        this.device = device;
        channels = source.kind() == SourceKind.SEQUENCER
                ? source.lanes().stream().map(lane -> lane.channel() - 1).toList()
                : List.of(source.playsOn());
        low = source.keys().low();
        high = source.keys().high();
        random = new Random(seed);
        thread = new Thread(this::run, "soak-" + source.id());
        thread.setDaemon(true);
        thread.start();
    }

    String source() {
        return source;
    }

    StandIn device() {
        return device;
    }

    /** Plays from now on. */
    void begin() {
        played.clear();
        rests = false;
        plays = true;
        LockSupport.unpark(thread);
    }

    /** Releases all keys, pedals and wheels, then pauses. */
    void end() {
        plays = false;
        LockSupport.unpark(thread);
    }

    boolean rests() {
        return rests;
    }

    /** Returns the messages played since {@link #begin}. */
    List<Integer> played() {
        return List.copyOf(played);
    }

    private void run() {
        while (!closed) {
            if (plays) {
                act();
                LockSupport.parkNanos(1 + (long) (random.nextDouble() * LONGEST_NANOS));
            } else if (!rests) {
                letGo();
                rests = true;
            } else {
                LockSupport.park(this);
            }
        }
    }

    private void play(int message) {
        played.add(message);
        device.play(message);
    }

    private void act() {
        int channel = channels.get(random.nextInt(channels.size()));
        switch (random.nextInt(8)) {
            case 0 -> move(ShortMessage.controller(channel, 64, random.nextBoolean() ? 127 : 0));
            case 1 -> move(ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, random.nextInt(128)));
            case 2 -> move(ShortMessage.controller(channel, 1, random.nextInt(128)));
            default -> {
                if (held.size() < MAX_KEYS && random.nextBoolean()) {
                    press(channel, low + random.nextInt(high - low + 1));
                } else if (!held.isEmpty()) {
                    release(held.removeFirst());
                }
            }
        }
    }

    private void move(int message) {
        moved.add(message);
        play(message);
    }

    private void press(int channel, int key) {
        int place = channel << 7 | key;
        if (!held.contains(place)) {
            held.addLast(place);
            play(ShortMessage.noteOn(channel, key, 1 + random.nextInt(127)));
        }
    }

    private void release(int place) {
        play(ShortMessage.noteOff(place >> 7, place & 0x7F, ShortMessage.DEFAULT_RELEASE));
    }

    private void letGo() {
        while (!held.isEmpty()) {
            release(held.removeFirst());
        }
        for (int channel : channels) {
            if (moved.stream().anyMatch(message -> ShortMessage.channel(message) == channel)) {
                play(ShortMessage.controller(channel, 64, 0));
                play(ShortMessage.controller(channel, 1, 0));
                play(ShortMessage.of(ShortMessage.PITCH_BEND, channel, 0, 64));
            }
        }
        moved.clear();
    }

    @Override
    public void close() {
        closed = true;
        LockSupport.unpark(thread);
    }
}
