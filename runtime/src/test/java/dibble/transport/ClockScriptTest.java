package dibble.transport;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.RealTime;
import dibble.time.TempoMap;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** A follower that hears the clock is at the tick that the clock was sent for. */
class ClockScriptTest {
    private static final TempoMap TEMPO = TempoMap.of(120);
    private static final long TICK = TEMPO.nanos(1);

    private final AtomicLong now = new AtomicLong(1_000_000_000_000L);
    private final ClockFollower follower = new ClockFollower(now::get, TEMPO);
    private int stops;

    private final ClockSender.Out out = new ClockSender.Out() {
        @Override
        public void realTime(int status) {
            stops += status == RealTime.STOP ? 1 : 0;
            follower.heard(status, now.get());
        }

        @Override
        public void songPosition(int sixteenths) {
            follower.songPosition(sixteenths);
        }
    };

    private final Consumer<ClockScript.Message> send = message -> message.sendTo(out);

    private static PlaybackTimebase.Loop loop(Random random) {
        long from = random.nextInt(4000);
        return new PlaybackTimebase.Loop(from, from + 480 + random.nextInt(4000));
    }

    private static PlaybackTimebase course(Random random, long at) {
        PlaybackTimebase.Loop loop = random.nextBoolean() ? loop(random) : null;
        long from = random.nextInt(8000);
        return new PlaybackTimebase(TEMPO, TEMPO.nanos(loop == null ? from : Math.min(from, loop.to() - 1)), at, loop);
    }

    /** Random changes of course, noticed late, on a machine that stands still at times. */
    @Property(tries = 500)
    void aFollowerIsWhereTheMusicIsAtEveryClock(@ForAll long seed) {
        new ClockScriptTest().assertFollowed(new Random(seed));
    }

    private void assertFollowed(Random random) {
        ClockScript script = new ClockScript(course(random, now.get() + 5_000_000));
        script.begin(send);
        for (int i = 0; i < 200; i++) {
            now.set(Math.max(now.get(), script.due()) + random.nextInt(3) * 10_000_000L);
            if (random.nextInt(30) == 0) {
                now.addAndGet(1_000_000_000L + random.nextLong(60_000_000_000L));
            }
            if (PreciseTimer.isMissed(script.due(), now.get())) {
                script.skipTo(now.get(), send);
                assertThat(script.due()).isGreaterThanOrEqualTo(now.get());
            }
            now.set(Math.max(now.get(), script.due()));
            long tick = script.tick();
            script.act(send);
            if (follower.isRunning()) {
                assertThat(TEMPO.ticks(follower.heardPosition())).isEqualTo(tick);
            }
            if (random.nextInt(20) == 0) {
                now.addAndGet(random.nextInt(30_000_000));
                script.change(next(random, script.course()), now.get(), send);
            }
        }
    }

    private PlaybackTimebase next(Random random, PlaybackTimebase before) {
        long at = now.get() - random.nextInt(20_000_000);
        return switch (random.nextInt(3)) {
            case 0 -> before.withTempo(TempoMap.of(60 + random.nextInt(120)), at);
            case 1 -> new PlaybackTimebase(before.tempo(), before.position(at), at, null);
            default -> course(random, now.get());
        };
    }

    @Nested
    class Changes {
        @Test
        void turningTheTempoStopsNobody() {
            ClockScript script = new ClockScript(PlaybackTimebase.of(TEMPO, 0, now.get()));
            script.begin(send);
            for (int turn = 0; turn < 300; turn++) {
                now.set(Math.max(now.get(), script.due()) + 1_000_000);
                script.act(send);
                script.change(script.course().withTempo(TempoMap.of(100 + turn % 50), now.get()), now.get(), send);
            }
            assertThat(stops).isZero();
            assertThat(TEMPO.ticks(follower.heardPosition())).isEqualTo(script.tick() - ClockScript.TICKS);
        }

        @Test
        void awayFromASixteenthAFollowerIsLetInAtTheNext() {
            ClockScript script = new ClockScript(PlaybackTimebase.of(TEMPO, TEMPO.nanos(1000), now.get()));
            script.begin(send);
            for (int i = 0; i < 12; i++) {
                now.set(script.due());
                long tick = script.tick();
                script.act(send);
                assertThat(follower.isRunning()).isEqualTo(tick >= 1200);
            }
            assertThat(TEMPO.ticks(follower.heardPosition())).isEqualTo(script.tick() - ClockScript.TICKS);
        }
    }

    @Test
    void aLoopWithoutABeatIsClickedWhereItBegins() {
        PlaybackTimebase course = new PlaybackTimebase(TEMPO, TEMPO.nanos(100), 0, new PlaybackTimebase.Loop(100, 500));
        GridIterator beats = new GridIterator(course, TEMPO::beatAt, 0);
        for (int pass = 1; pass < 4; pass++) {
            assertThat(beats.tick()).isEqualTo(100);
            assertThat(beats.due()).isEqualTo(course.startOf(pass));
            beats.next();
        }
    }

    @Nested
    class Followed {
        private void clocks(int count) {
            for (int i = 0; i < count; i++) {
                now.addAndGet(ClockScript.TICKS * TICK);
                follower.heard(RealTime.CLOCK, now.get());
            }
        }

        private long tick() {
            return TEMPO.ticks(follower.heardPosition());
        }

        @Test
        void stopAndContinueLoseNoClock() {
            follower.heard(RealTime.START, now.get());
            clocks(25);
            assertThat(tick()).isEqualTo(960);
            for (int i = 1; i <= 10; i++) {
                follower.heard(RealTime.STOP, now.get());
                follower.heard(RealTime.CONTINUE, now.get());
                clocks(1);
                assertThat(tick()).isEqualTo(960 + i * ClockScript.TICKS);
            }
        }

        @Test
        void aContinueWhileItRunsChangesNothing() {
            follower.heard(RealTime.START, now.get());
            clocks(25);
            follower.heard(RealTime.CONTINUE, now.get());
            clocks(1);
            assertThat(tick()).isEqualTo(960 + ClockScript.TICKS);
        }
    }
}
