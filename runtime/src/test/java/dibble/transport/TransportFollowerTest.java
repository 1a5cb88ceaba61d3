package dibble.transport;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.time.TempoMap;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** A transport that says every 10 ms where it is. */
class TransportFollowerTest {
    private static final long MS = 1_000_000;
    private static final long BLOCK = 10 * MS;

    private final AtomicLong now = new AtomicLong(1_000 * MS);
    private final TransportFollower follower = new TransportFollower(now::get, TempoMap.of(120));

    private void rollFrom(long place, int blocks) {
        for (int i = 0; i < blocks; i++) {
            follower.told(true, place + i * BLOCK, 0, 0, now.get());
            now.addAndGet(BLOCK);
        }
    }

    @Test
    void itsSecondsAreTheSessions() {
        follower.told(false, 3_000 * MS, 0, 0, now.get());
        assertThat(follower.isRunning()).isFalse();
        now.addAndGet(500 * MS);
        assertThat(follower.nanos()).isEqualTo(3_000 * MS);
        rollFrom(3_000 * MS, 4);
        now.addAndGet(3 * MS);
        assertThat(follower.isRunning()).isTrue();
        assertThat(follower.nanos()).isEqualTo(3_043 * MS);
        assertThat(follower.jumps()).isEqualTo(1);
        assertThat(follower.jumpedTo()).isEqualTo(3_000 * MS);
    }

    @Test
    void anotherPlaceIsAJump() {
        rollFrom(0, 50);
        rollFrom(500 * MS, 5);
        assertThat(follower.jumps()).isEqualTo(1);
        rollFrom(8_000 * MS, 1);
        assertThat(follower.jumps()).isEqualTo(2);
        assertThat(follower.jumpedTo()).isEqualTo(8_000 * MS);
    }

    @Test
    void oneThatIsNotHeardOfHasStoppedAndRunsOnOnlyALittle() {
        rollFrom(0, 10);
        now.addAndGet(10_000 * MS);
        assertThat(follower.isRunning()).isFalse();
        assertThat(follower.nanos()).isLessThan(400 * MS);
    }

    /** A busy server says nothing for a while; its transport has not stopped, and a recording goes on. */
    @Test
    void oneThatIsHeldUpRunsOn() {
        rollFrom(0, 10);
        now.addAndGet(3_000 * MS);
        assertThat(follower.isRunning()).isTrue();
        rollFrom(3_100 * MS, 10);
        assertThat(follower.isRunning()).isTrue();
        assertThat(follower.nanos()).isBetween(3_190 * MS, 3_210 * MS);
    }

    @Test
    void aStopIsOneAndMayBeTheBeginningOfAJump() {
        rollFrom(0, 10);
        follower.told(false, 100 * MS, 0, 0, now.get());
        assertThat(follower.isRunning()).isFalse();
        assertThat(follower.mayJump()).isTrue();
        now.addAndGet(200 * MS);
        assertThat(follower.mayJump()).isFalse();
    }

    /** Its beats are ours: at 60 against our 120 the session goes half as fast. */
    @Test
    void itsBeatsAreTheSessionsAndItsTempoHowFastItGoes() {
        double tick = 4 * TempoMap.PPQ;
        for (int i = 0; i < 5; i++) {
            follower.told(true, 0, tick + i * TempoMap.PPQ / 100.0, 60, now.get());
            now.addAndGet(BLOCK);
        }
        assertThat(follower.bpm()).isEqualTo(60);
        assertThat(follower.jumps()).isEqualTo(1);
        assertThat(follower.nanos()).isBetween(2_024 * MS, 2_026 * MS);
    }

    @Test
    void aTempoThatChangesIsFollowedAlongTheMap() {
        TempoMap map = new TempoMap(
                List.of(new TempoMap.Tempo(0, 120), new TempoMap.Tempo(3840, 60)),
                List.of(new TempoMap.Meter(0, 4, 4)));
        follower.setTempo(map);
        follower.told(true, 0, 3840 + 960, 60, now.get());
        assertThat(follower.nanos()).isEqualTo(map.nanos(4800));
        now.addAndGet(BLOCK);
        assertThat(follower.nanos()).isEqualTo(map.nanos(4800) + BLOCK);
    }
}
