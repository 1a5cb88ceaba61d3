package dibble.jack;

import dibble.sound.AudioOut;
import dibble.time.Clock;
import java.util.concurrent.TimeUnit;

/** The mixer's way out to ports that other programs see, in time with the server. Used by the mixer's thread. */
final class SoundOut implements AudioOut {
    /** As many outputs as a session can have: each is a pair of ports. */
    private static final int OUTPUTS = 64;

    private static final long LOOK_AGAIN = TimeUnit.MICROSECONDS.toNanos(300);

    /** A server that fetches nothing for this time has gone, or is stopped. */
    private static final long MAX_WAITING = TimeUnit.SECONDS.toNanos(1);

    private final Client client;
    private final SoundPorts ports;
    private final Clock clock;
    private float[] left = {};
    private float[] right = {};

    SoundOut(Client client, Clock clock) {
        this.client = client;
        this.clock = clock;
        ports = client.sound();
        ports.open();
    }

    @Override
    public int pairs() {
        return OUTPUTS;
    }

    @Override
    public int rate() {
        return client.rate();
    }

    @Override
    public boolean takesStrips() {
        return true;
    }

    @Override
    public void takeStrip(String port, int channel, int key, float[] stripLeft, float[] stripRight) {
        ports.putStrip(port, channel, key, stripLeft, stripRight);
    }

    @Override
    public boolean write(float[] frames) {
        int block = frames.length / (2 * OUTPUTS);
        if (left.length != block) {
            left = new float[block];
            right = new float[block];
        }
        if (!awaitRoom(block)) {
            return false;
        }
        for (SoundPorts.Pair pair : ports.pairs()) {
            int output = pair.spec.output();
            if (output > 0) {
                for (int i = 0, at = 2 * (output - 1); i < block; i++, at += 2 * OUTPUTS) {
                    left[i] = frames[at];
                    right[i] = frames[at + 1];
                }
                ports.putOutput(pair, left, right);
            }
        }
        ports.publish(block);
        return true;
    }

    /** Waits for space: the ring holds the server's next block, and two of the mixer's. */
    private boolean awaitRoom(int block) {
        long since = clock.nanos();
        while (ports.waiting() >= client.block() + 2 * block) {
            if (client.isGone() || clock.nanos() - since > MAX_WAITING) {
                return false;
            }
            clock.rest(LOOK_AGAIN);
        }
        return !client.isGone();
    }

    @Override
    public int dropouts() {
        return ports.dropouts();
    }

    @Override
    public void close() {
        ports.close();
    }
}
