package dibble.sound;

import dibble.time.Clock;

/** Takes the place of an audio device where there is none: keeps its time, sounds nothing. */
final class SilentOut implements AudioOut {
    private final Clock clock;
    private final long blockNanos;
    private long next;

    SilentOut(Clock clock, long blockNanos) {
        this.clock = clock;
        this.blockNanos = blockNanos;
        next = clock.nanos();
    }

    @Override
    public boolean write(float[] frames) {
        next = Math.max(next + blockNanos, clock.nanos() - blockNanos);
        for (long left = next - clock.nanos(); left > 0; left = next - clock.nanos()) {
            clock.rest(left);
        }
        return true;
    }

    @Override
    public boolean isSilent() {
        return true;
    }

    @Override
    public void close() {}
}
