package dibble.studio;

import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.ports.EventRing;
import dibble.ports.InputPort;
import dibble.ports.SysexQueue;
import dibble.time.Clock;
import dibble.transport.ClockFollower;
import java.util.Arrays;
import java.util.function.Consumer;

/**
 * The input path of one port: stamps events on arrival, puts them into a ring for each source of the port, and has them
 * routed.
 */
final class InputStage implements InputPort.Listener {
    /** The events of a burst while another thread owns the turn. */
    private static final int CAPACITY = 1 << 12;

    private static final int[] NOBODY = {};
    private static final SysexQueue[] NOWHERE = {};

    final EventRing ring = new EventRing(CAPACITY);
    private final Engine engine;
    private final Clock clock;
    private volatile int[] sources = NOBODY;
    private volatile SysexQueue[] exclusiveTo = NOWHERE;
    private volatile Consumer<byte[]> alsoTold = message -> {};
    private volatile ClockFollower follower;
    private volatile long lost;

    /** The keys that are down on this port, by channel and key, and its pedals by channel, a bit each. */
    private final long[] keysDown = new long[16 * 128 / 64];

    private final int[] pedalsDown = new int[16];

    /** Detects echoes of the port's device, or null. Accessed in the turn. */
    private LoopGuard guard;

    InputStage(Engine engine, Clock clock) {
        this.engine = engine;
        this.clock = clock;
    }

    /** Sets the sources of the port by their slots, and the targets of their system exclusive messages. */
    void lead(int[] slots, SysexQueue[] exclusive) {
        sources = slots;
        exclusiveTo = exclusive;
    }

    /** Sets a further receiver of system exclusive messages. */
    void tell(Consumer<byte[]> other) {
        alsoTold = other;
    }

    /** Sets the follower of the port's clock, or none (null). */
    void follow(ClockFollower next) {
        follower = next;
    }

    @Override
    public void heardRealTime(int status) {
        heardRealTime(status, clock.nanos());
    }

    @Override
    public void heardRealTime(int status, long stamp) {
        ClockFollower told = follower;
        if (told != null) {
            told.heard(status, stamp);
        }
    }

    @Override
    public void heardSongPosition(int sixteenths) {
        ClockFollower told = follower;
        if (told != null) {
            told.songPosition(sixteenths);
        }
    }

    @Override
    public void gone() {
        letGo(sources);
    }

    /**
     * Releases the keys and pedals that are down on this port, as if they had been let go there, so that a take has it, too;
     * then all that its sources owe, where they play on no other port.
     */
    void letGo(int[] slots) {
        engine.submit((router, stamp) -> {
            for (int source : slots) {
                release(source, stamp);
                if (!engine.isPlayedElsewhere(source, this)) {
                    router.letGo(source, stamp);
                }
            }
            Arrays.fill(keysDown, 0);
            Arrays.fill(pedalsDown, 0);
        });
    }

    private void release(int source, long stamp) {
        for (int channel = 0; channel < 16; channel++) {
            for (int key = 0; key < 128; key++) {
                if (isDown(channel, key)) {
                    engine.play(source, ShortMessage.noteOff(channel, key, ShortMessage.DEFAULT_RELEASE), stamp);
                }
            }
            for (int pedal = NeutralValues.FIRST_PEDAL; pedal <= NeutralValues.LAST_PEDAL; pedal++) {
                if ((pedalsDown[channel] >>> pedal - NeutralValues.FIRST_PEDAL & 1) != 0) {
                    engine.play(source, ShortMessage.controller(channel, pedal, 0), stamp);
                }
            }
        }
    }

    private boolean isDown(int channel, int key) {
        int place = channel << 7 | key;
        return (keysDown[place >>> 6] >>> place & 1) != 0;
    }

    /** Remembers which keys and pedals are down. The port's thread. */
    private void follow(int message) {
        int channel = ShortMessage.channel(message);
        int place = channel << 7 | ShortMessage.data1(message);
        if (ShortMessage.startsNote(message)) {
            keysDown[place >>> 6] |= 1L << place;
        } else if (ShortMessage.endsNote(message)) {
            keysDown[place >>> 6] &= ~(1L << place);
        } else if (ShortMessage.kind(message) == ShortMessage.CONTROLLER
                && NeutralValues.isPedal(ShortMessage.data1(message))) {
            int bit = 1 << ShortMessage.data1(message) - NeutralValues.FIRST_PEDAL;
            pedalsDown[channel] =
                    NeutralValues.isAtRest(message) ? pedalsDown[channel] & ~bit : pedalsDown[channel] | bit;
        }
    }

    int[] sources() {
        return sources;
    }

    boolean plays(int source) {
        for (int slot : sources) {
            if (slot == source) {
                return true;
            }
        }
        return false;
    }

    /** Runs as a command, in the turn. */
    void watch(LoopGuard watcher) {
        guard = watcher;
    }

    LoopGuard guard() {
        return guard;
    }

    @Override
    public void heard(int message) {
        heard(message, clock.nanos());
    }

    @Override
    public void heard(int message, long stamp) {
        int[] slots = sources;
        follow(message);
        for (int source : slots) {
            put(stamp, Packed.of(Packed.PLAYED, source, 0, 0, message));
        }
        if (slots.length > 0) {
            engine.takeTurn();
        }
    }

    @Override
    public void heardExclusive(byte[] message) {
        for (SysexQueue lane : exclusiveTo) {
            lane.offer(message);
        }
        alsoTold.accept(message);
        int[] slots = sources;
        long stamp = clock.nanos();
        for (int source : slots) {
            int number = engine.exclusives().put(message);
            if (!put(stamp, Packed.of(Packed.EXCLUSIVE, source, 0, 0, number))) {
                engine.exclusives().take(number);
            }
        }
        if (slots.length > 0) {
            engine.takeTurn();
        }
    }

    /** Plays a message of a track, straight to its destination. */
    void playBack(int voice, int port, int instrument, int message) {
        put(clock.nanos(), Packed.of(Packed.PLAYED_BACK, voice, port, instrument, message));
        engine.takeTurn();
    }

    /** Plays a message in the place of a source's own gear. */
    void playAs(int source, int message) {
        put(clock.nanos(), Packed.of(Packed.PLAYED, source, 0, 0, message));
        engine.takeTurn();
    }

    private boolean put(long stamp, long packed) {
        boolean taken = ring.offer(stamp, packed);
        if (!taken) {
            lost = lost + 1;
        }
        return taken;
    }

    /** Events that found the ring full. */
    long lost() {
        return lost;
    }
}
