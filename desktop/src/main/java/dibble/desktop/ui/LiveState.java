package dibble.desktop.ui;

import dibble.midi.ChannelSet;
import dibble.midi.ShortMessage;
import dibble.ports.EventRing;
import dibble.routing.Slots;
import dibble.studio.Packed;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongSupplier;
import javafx.util.Subscription;

/**
 * What is known of what sounds now, read from the studio's monitor once a frame: which keys are down at each source,
 * what was played last and what became of it.
 */
public final class LiveState {
    private static final int MOST_A_FRAME = 4096;
    private static final int MOST_SENT = 64;

    /** A message that left because of what was played. */
    public record Sent(int port, int instrument, int message, boolean taken) {}

    /** What was played last, with what left because of it. */
    public record Heard(String source, int message, List<Sent> sent) {}

    /**
     * When a source was last heard.
     *
     * @param channel 1-16
     * @param stamp on the system's clock, in nanoseconds
     */
    public record Last(int channel, long stamp) {}

    /** Is told of keys as they are pressed. */
    @FunctionalInterface
    public interface KeyListener {
        void pressed(String source, int key, int velocity);
    }

    private final EventRing monitor;
    private final LongSupplier skipped;
    private final Slots slots;
    private long known;
    private final Map<String, int[]> down = new HashMap<>();
    private final Map<String, Last> lasts = new HashMap<>();
    private final List<KeyListener> listeners = new ArrayList<>();
    private String source;
    private int message;
    private List<Sent> sent = new ArrayList<>();
    private Heard lastNote;
    private long playedAt;
    private boolean changed;

    /** @param skipped how many events the monitor has skipped so far */
    public LiveState(EventRing monitor, LongSupplier skipped, Slots slots) {
        this.monitor = monitor;
        this.skipped = skipped;
        this.slots = slots;
    }

    /** Takes in what happened since the last frame. */
    public void read() {
        if (skipped.getAsLong() != known) {
            // Offs may be among what was skipped: rather no key than one that never comes up.
            known = skipped.getAsLong();
            down.clear();
        }
        for (int i = 0; i < MOST_A_FRAME && monitor.poll(); i++) {
            take(monitor.payload(), monitor.stamp());
        }
        if (changed) {
            changed = false;
            keepNote();
        }
    }

    /** When a source was last heard, or null for never. */
    public Last last(String sourceId) {
        return lasts.get(sourceId);
    }

    private void take(long packed, long stamp) {
        int what = Packed.what(packed);
        if (what == Packed.ECHO) {
            // Nobody played it, and nothing became of it.
            return;
        }
        if (what == Packed.PLAYED) {
            if (changed) {
                keepNote();
            }
            source = slots.sourceId(Packed.voice(packed));
            message = Packed.message(packed);
            lasts.put(source, new Last(ShortMessage.channel(message) + 1, stamp));
            sent = new ArrayList<>();
            playedAt = stamp;
            changed = true;
            key(packed);
        } else if (source != null && stamp == playedAt && sent.size() < MOST_SENT) {
            // What leaves bears the stamp of what it leaves because of; it can come a frame later.
            sent.add(new Sent(
                    Packed.port(packed), Packed.instrument(packed), Packed.message(packed), what == Packed.SENT));
            changed = true;
        }
    }

    private void key(long packed) {
        int[] keys = down.computeIfAbsent(source, id -> new int[128]);
        int key = ShortMessage.data1(message);
        int channel = 1 << ShortMessage.channel(message);
        if (ShortMessage.startsNote(message)) {
            keys[key] |= channel;
            int velocity = ShortMessage.data2(message);
            List.copyOf(listeners).forEach(listener -> listener.pressed(source, key, velocity));
        } else if (ShortMessage.endsNote(message)) {
            keys[key] &= ~channel;
        }
    }

    private void keepNote() {
        if (ShortMessage.startsNote(message) || lastNote == null && !ShortMessage.endsNote(message)) {
            lastNote = new Heard(source, message, List.copyOf(sent));
        }
    }

    /** Whether a key of a source is down. */
    public boolean isDown(String sourceId, int key) {
        int[] keys = down.get(sourceId);
        return keys != null && keys[key] != 0;
    }

    /** Whether a key of a source is down on one of some channels. */
    public boolean isDown(String sourceId, int key, ChannelSet channels) {
        int[] keys = down.get(sourceId);
        return keys != null && (keys[key] & channels.mask()) != 0;
    }

    /** The last note that was played, with what left because of it; null where nothing was played yet. */
    public Heard lastNote() {
        return lastNote;
    }

    /** Forgets everything: another session is on the desk. */
    public void reset() {
        down.clear();
        source = null;
        lastNote = null;
        changed = false;
    }

    /** Forgets which keys are down: after silence, when no hand holds anything. */
    public void forget() {
        down.clear();
    }

    /** Has a listener told of each key that is pressed. */
    public Subscription onKey(KeyListener listener) {
        listeners.add(listener);
        return () -> listeners.remove(listener);
    }
}
