package dibble.studio;

import dibble.midi.ShortMessage;
import dibble.time.Clock;
import java.util.concurrent.locks.LockSupport;

/** Sources that play 1,000 events a second each, on separate threads. */
final class Players {
    private static final long INTERVAL = 1_000_000;

    private Players() {}

    /** Receives the events of a source. */
    interface Way {
        void heard(int source, int message);
    }

    /** Plays so many events by each source, evenly spread, and waits for the end. */
    static void play(int sources, int events, Way way) throws InterruptedException {
        Thread[] players = new Thread[sources];
        for (int s = 0; s < sources; s++) {
            int source = s;
            players[s] = new Thread(() -> {
                long next = Clock.SYSTEM.nanos() + source * INTERVAL / sources;
                for (int i = 0; i < events; i++) {
                    next += INTERVAL;
                    for (long left = next - Clock.SYSTEM.nanos(); left > 0; left = next - Clock.SYSTEM.nanos()) {
                        LockSupport.parkNanos(left);
                    }
                    int key = 20 + source * 10 + i / 2 % 8;
                    way.heard(source, i % 2 == 0 ? ShortMessage.noteOn(0, key, 90) : ShortMessage.noteOff(0, key, 64));
                }
            });
            players[s].start();
        }
        for (Thread player : players) {
            player.join();
        }
    }
}
