package dibble.presentation;

import dibble.midi.ChannelSet;
import dibble.midi.CombinedControllers;
import dibble.midi.EventKind;
import dibble.midi.HeardMessage;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import dibble.ports.EventRing;
import dibble.routing.ControlKind;
import dibble.routing.SlotAllocator;
import dibble.studio.EventHistory;
import dibble.studio.Packed;
import dibble.studio.TwinPorts;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongSupplier;
import java.util.stream.IntStream;

/**
 * The live state, read from the studio's monitor once a frame: the held keys of each source, and the last events with
 * their output.
 */
public final class LiveState {
    private static final int MAX_PER_FRAME = 4096;
    private static final int MAX_SENT = 64;
    private static final int KEPT = 1 << 14;

    /** For each channel: 128 controllers, then bend, pressure and program. */
    private static final int VALUES = 131;

    private static final int BEND = 128;
    private static final int PRESSURE = 129;
    private static final int PROGRAM = 130;

    /** A message that was sent because of a played event. */
    public record Sent(int port, int instrument, int message, boolean taken) {}

    /** The last played event with its output. */
    public record Heard(String source, HeardMessage what, List<Sent> sent) {
        public int message() {
            return what.message();
        }
    }

    /**
     * When a source was last heard.
     *
     * @param channel 1-16
     * @param stamp on the system's clock, in nanoseconds
     */
    public record Last(int channel, long stamp) {}

    /** The last values of one source, by channel and by control. */
    private static final class Moved {
        private final int[] messages = new int[16];
        private final long[] stamps = new long[16];
        private final int[] values = new int[16 * VALUES];
        private final byte[] channels = new byte[VALUES];
        private final int[] velocities = new int[128];
        private final int[] pressures = new int[128];
        private final CombinedControllers joined = new CombinedControllers();

        /**
         * Values that several controllers make, by parameter or controller: of each channel, then the
         * channel of the last.
         */
        private final Map<Integer, int[]> whole = new HashMap<>();

        private int heard;

        Moved() {
            joined.open(16);
            Arrays.fill(values, UNKNOWN);
            Arrays.fill(pressures, UNKNOWN);
        }
    }

    /** The held keys of a source. A view compares the version first: in most frames nothing has changed. */
    public static final class Down {
        private static final Down NONE = new Down();

        /** For each key the channels that it is down on, a bit each. */
        private final short[] channels = new short[128];

        private long version;

        /** Another number after each change. */
        public long version() {
            return version;
        }

        public boolean isDown(int key) {
            return channels[key] != 0;
        }

        private void set(int key, int channel, boolean on) {
            int bit = 1 << channel;
            channels[key] = (short) (on ? channels[key] | bit : channels[key] & ~bit);
            version++;
        }

        private void clear() {
            Arrays.fill(channels, (short) 0);
            version++;
        }
    }

    /** Nothing was heard of a control yet. */
    public static final int UNKNOWN = -1;

    /** Receives the moves of knobs, wheels and pedals. */
    @FunctionalInterface
    public interface ControlListener {
        void moved(String source, HeardMessage message);
    }

    /** Receives pressed keys. */
    @FunctionalInterface
    public interface KeyListener {
        void pressed(String source, int key, int velocity);
    }

    private final EventRing monitor;
    private final LongSupplier skipped;
    private final SlotAllocator slots;
    private long known;
    private long count;
    private final Map<String, Down> down = new HashMap<>();
    private final Map<String, Last> lasts = new HashMap<>();
    private final Map<String, Moved> moves = new HashMap<>();
    private final EventHistory passed = new EventHistory(KEPT);
    private final TwinPorts twins = new TwinPorts();
    private final List<KeyListener> listeners = new ArrayList<>();
    private final List<ControlListener> controlListeners = new ArrayList<>();
    /** The highest velocity by port and channel since the last read. */
    private final Map<Integer, Integer> strikes = new HashMap<>();

    private String source;
    private HeardMessage what;
    private List<Sent> sent = new ArrayList<>();
    private Heard lastNote;
    private Heard lastMove;
    private long playedAt;
    private boolean changed;

    /** @param skipped how many events the monitor has skipped so far */
    public LiveState(EventRing monitor, LongSupplier skipped, SlotAllocator slots) {
        this.monitor = monitor;
        this.skipped = skipped;
        this.slots = slots;
    }

    /** Takes in what happened since the last frame. */
    public void read() {
        if (skipped.getAsLong() != known) {
            // Skipped events may include offs: a missing key is better than one that never comes up.
            long now = skipped.getAsLong();
            passed.skip(now - known);
            known = now;
            forget();
        }
        for (int i = 0; i < MAX_PER_FRAME && monitor.poll(); i++) {
            count++;
            passed.take(monitor.stamp(), monitor.payload());
            take(monitor.payload(), monitor.stamp());
        }
        if (changed) {
            changed = false;
            keepNote();
        }
    }

    /** Returns the number of events so far; if it is unchanged, nothing has happened. */
    public long count() {
        return count;
    }

    /** The highest velocity that was sent to a channel 1-16 of a port since this was asked last; 0 for none. */
    public int takeStrike(String port, int channel) {
        Integer velocity = strikes.remove(slots.port(port) << 4 | channel - 1);
        return velocity == null ? 0 : velocity;
    }

    /** When a source was last heard, or null for never. */
    public Last last(String sourceId) {
        return lasts.get(sourceId);
    }

    private void take(long packed, long stamp) {
        int what = Packed.what(packed);
        if (what == Packed.SENT && ShortMessage.startsNote(Packed.message(packed))) {
            int sentNote = Packed.message(packed);
            strikes.merge(
                    Packed.port(packed) << 4 | ShortMessage.channel(sentNote), ShortMessage.data2(sentNote), Math::max);
        }
        if (what == Packed.ECHO) {
            // No source played it, and it has no output.
            return;
        }
        if (what == Packed.PLAYED) {
            if (changed) {
                keepNote();
            }
            source = slots.sourceId(Packed.voice(packed));
            int message = Packed.message(packed);
            lasts.put(source, new Last(ShortMessage.channel(message) + 1, stamp));
            twins.take(stamp, Packed.voice(packed), message);
            note(moves.computeIfAbsent(source, id -> new Moved()), message, stamp);
            sent = new ArrayList<>();
            playedAt = stamp;
            changed = true;
            key(message);
        } else if (source != null && stamp == playedAt && sent.size() < MAX_SENT) {
            // Output has the stamp of its cause, and can arrive a frame later.
            sent.add(new Sent(
                    Packed.port(packed), Packed.instrument(packed), Packed.message(packed), what == Packed.SENT));
            changed = true;
        }
    }

    private void note(Moved moved, int message, long stamp) {
        int channel = ShortMessage.channel(message);
        moved.joined.take(channel, message);
        what = moved.joined.heard(channel, message);
        setWhole(moved, channel);
        moved.heard |= 1 << channel;
        if (!ShortMessage.endsNote(message)) {
            moved.messages[channel] = message;
            moved.stamps[channel] = stamp;
        }
        int first = ShortMessage.data1(message);
        int second = ShortMessage.data2(message);
        switch (ShortMessage.kind(message)) {
            case ShortMessage.CONTROLLER -> set(moved, channel, first, second);
            case ShortMessage.PITCH_BEND -> set(moved, channel, BEND, first | second << 7);
            case ShortMessage.CHANNEL_PRESSURE -> set(moved, channel, PRESSURE, first);
            case ShortMessage.PROGRAM_CHANGE -> set(moved, channel, PROGRAM, first);
            case ShortMessage.KEY_PRESSURE -> moved.pressures[first] = second;
            default -> moved.velocities[first] = ShortMessage.startsNote(message) ? second : 0;
        }
        if (EventKind.of(message) != EventKind.NOTES && EventKind.of(message) != EventKind.KEY_PRESSURE) {
            List.copyOf(controlListeners).forEach(listener -> listener.moved(source, what));
        }
    }

    private void setWhole(Moved moved, int channel) {
        if (what.isParameter()) {
            keep(moved, channel, what.choice(), what.parameter());
        }
        if (what.pair() != CombinedControllers.NOTHING) {
            keep(moved, channel, pair(ShortMessage.data1(what.message())), what.pair());
        }
    }

    /** Returns the key for a controller 0-31 with its LSB, outside the keys of parameters. */
    private static int pair(int controller) {
        return -1 - controller % CombinedControllers.FINE;
    }

    private static void keep(Moved moved, int channel, int key, int value) {
        int[] values = moved.whole.computeIfAbsent(key, it -> {
            int[] none = new int[17];
            Arrays.fill(none, UNKNOWN);
            return none;
        });
        values[channel] = value;
        values[16] = channel;
    }

    /** Returns the value of a controller or parameter, on the channel where it moved last among some channels. */
    private static int whole(Moved moved, int key, ChannelSet channels) {
        int[] values = moved.whole.get(key);
        if (values == null || channels.holds(values[16])) {
            return values == null ? UNKNOWN : values[values[16]];
        }
        return IntStream.range(0, 16)
                .filter(channel -> channels.holds(channel) && values[channel] != UNKNOWN)
                .map(channel -> values[channel])
                .findFirst()
                .orElse(UNKNOWN);
    }

    private static void set(Moved moved, int channel, int what, int value) {
        moved.values[channel * VALUES + what] = value;
        moved.channels[what] = (byte) channel;
    }

    /** Returns the recent events. */
    public EventHistory passed() {
        return passed;
    }

    /** Sources that keep sending the same, by their ids. */
    public List<Map.Entry<String, String>> twins() {
        return twins.found().stream()
                .map(pair -> Map.entry(slots.sourceId(pair.first()), slots.sourceId(pair.second())))
                .toList();
    }

    /** The channels on which a source was heard. */
    public ChannelSet heardOn(String sourceId) {
        Moved moved = moves.get(sourceId);
        return new ChannelSet(moved == null ? 0 : moved.heard);
    }

    /** Returns the last message of a source on a channel 1-16, except offs; 0 for none. */
    public int lastOn(String sourceId, int channel) {
        Moved moved = moves.get(sourceId);
        return moved == null ? 0 : moved.messages[channel - 1];
    }

    /** When that was, on the system's clock, in nanoseconds. */
    public long lastStampOn(String sourceId, int channel) {
        Moved moved = moves.get(sourceId);
        return moved == null ? 0 : moved.stamps[channel - 1];
    }

    /**
     * Returns the present value of a control of a source as a control map reads it; {@link #UNKNOWN} before the first
     * event.
     *
     * @param number the number of the controller, parameter or key
     */
    public int value(String sourceId, ControlKind kind, int number, ChannelSet channels) {
        Moved moved = moves.get(sourceId);
        if (moved == null) {
            return UNKNOWN;
        }
        return switch (kind) {
            case CONTROLLER -> value(moved, number, channels);
            case PITCH_BEND -> value(moved, BEND, channels);
            case CHANNEL_PRESSURE -> value(moved, PRESSURE, channels);
            case PROGRAM_CHANGE -> value(moved, PROGRAM, channels);
            case NOTE -> moved.velocities[number];
            case KEY_PRESSURE -> moved.pressures[number];
            case RPN, NRPN -> whole(moved, Parameter.choice(kind == ControlKind.NRPN, number), channels);
            case CONTROLLER_14 -> whole(moved, pair(number), channels);
            case SCENE -> UNKNOWN;
        };
    }

    /** Of the channels that count, the one that was moved last, if it is among them. */
    private static int value(Moved moved, int what, ChannelSet channels) {
        int last = moved.channels[what];
        if (channels.holds(last)) {
            return moved.values[last * VALUES + what];
        }
        for (int channel = 0; channel < 16; channel++) {
            if (channels.holds(channel) && moved.values[channel * VALUES + what] != UNKNOWN) {
                return moved.values[channel * VALUES + what];
            }
        }
        return UNKNOWN;
    }

    private void key(int message) {
        Down keys = down.computeIfAbsent(source, id -> new Down());
        int key = ShortMessage.data1(message);
        int channel = ShortMessage.channel(message);
        if (ShortMessage.startsNote(message)) {
            keys.set(key, channel, true);
            int velocity = ShortMessage.data2(message);
            List.copyOf(listeners).forEach(listener -> listener.pressed(source, key, velocity));
        } else if (ShortMessage.endsNote(message)) {
            keys.set(key, channel, false);
        }
    }

    private void keepNote() {
        int message = what.message();
        if (ShortMessage.endsNote(message)) {
            return;
        }
        Heard heard = new Heard(source, what, List.copyOf(sent));
        lastMove = heard;
        if (ShortMessage.startsNote(message) || lastNote == null) {
            lastNote = heard;
        }
    }

    /** Returns true if a key of a source is down. */
    public boolean isDown(String sourceId, int key) {
        return down(sourceId).isDown(key);
    }

    /** Returns the held keys of a source. */
    public Down down(String sourceId) {
        return down.getOrDefault(sourceId, Down.NONE);
    }

    /** Returns true if a key of a source is down on one of some channels. */
    public boolean isDown(String sourceId, int key, ChannelSet channels) {
        return (down(sourceId).channels[key] & channels.mask()) != 0;
    }

    /** The last note that was played, with what left because of it; null where nothing was played yet. */
    public Heard lastNote() {
        return lastNote;
    }

    /** Returns the last event of a key or control, except offs; null before the first. */
    public Heard lastMove() {
        return lastMove;
    }

    /** Forgets everything: another session is on the desk. */
    public void reset() {
        forget();
        moves.clear();
        passed.clear();
        twins.reset();
        lastMove = null;
        source = null;
        lastNote = null;
        changed = false;
    }

    /** Forgets which keys are down: after silence, when no hand holds anything. */
    public void forget() {
        down.values().forEach(Down::clear);
    }

    /** Adds a listener for moved controls. */
    public Subscription onControl(ControlListener listener) {
        controlListeners.add(listener);
        return () -> controlListeners.remove(listener);
    }

    /** Adds a listener for pressed keys. */
    public Subscription onKey(KeyListener listener) {
        listeners.add(listener);
        return () -> listeners.remove(listener);
    }
}
