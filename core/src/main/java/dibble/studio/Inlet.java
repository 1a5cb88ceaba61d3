package dibble.studio;

import dibble.ports.EventRing;
import dibble.ports.InputPort;
import dibble.time.Clock;

/** The way in of one port: stamps what it hears on entry, puts it into a ring of its own, and has it decided. */
final class Inlet implements InputPort.Listener {
    /** Room for the events of a burst, while somebody else is at their turn. */
    private static final int CAPACITY = 1 << 12;

    final EventRing ring = new EventRing(CAPACITY);
    private final Engine engine;
    private final Clock clock;
    private final int source;
    private volatile long lost;

    Inlet(Engine engine, Clock clock, int source) {
        this.engine = engine;
        this.clock = clock;
        this.source = source;
    }

    @Override
    public void heard(int message) {
        put(Packed.of(Packed.PLAYED, source, 0, 0, message));
    }

    /** Plays a message of a track, straight to its destination. */
    void playBack(int voice, int port, int instrument, int message) {
        put(Packed.of(Packed.PLAYED_BACK, voice, port, instrument, message));
    }

    private void put(long packed) {
        if (!ring.offer(clock.nanos(), packed)) {
            lost = lost + 1;
        }
        engine.takeTurn();
    }

    /** Events that found the ring full. */
    long lost() {
        return lost;
    }
}
