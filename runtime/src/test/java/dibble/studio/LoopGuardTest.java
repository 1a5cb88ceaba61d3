package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import dibble.routing.Router;
import java.util.Random;
import java.util.function.IntFunction;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Who plays is no echo, however much it looks like one; what loops is found. */
class LoopGuardTest {
    private static final long MS = 1_000_000;

    private final LoopGuard guard = new LoopGuard("keys", "keys", 0);
    private final Router router = new Router((stamp, port, message, instrument) -> true);
    private long now = 1_000 * MS;

    /** Somebody else has the device sent what its own player plays a moment later. */
    private void coincide(long delay, int message) {
        guard.sent(now, message, false);
        guard.heard(now + delay, message, router);
        now += 40 * MS;
    }

    private static IntFunction<Integer> inTurn(IntFunction<Integer> message) {
        return i -> message.apply(i % 2 == 0 ? 63 : 64);
    }

    private void playedByBothAlike(IntFunction<Integer> messages) {
        // Each at their own pace, with values that tremble: often the same within 30 ms.
        Random random = new Random(1);
        long sends = now;
        long plays = now;
        int alike = 0;
        for (int i = 0; i < 4000; i++) {
            if (sends < plays) {
                guard.sent(sends, messages.apply(i), false);
                sends += (6 + random.nextInt(9)) * MS + random.nextInt((int) MS);
            } else {
                alike += guard.heard(plays, messages.apply(random.nextInt(2)), router) == LoopGuard.Verdict.CAME_BACK
                        ? 1
                        : 0;
                plays += (6 + random.nextInt(9)) * MS + random.nextInt((int) MS);
            }
        }
        assertThat(alike).isGreaterThan(50);
        assertThat(guard.isCut()).isFalse();
        now = Math.max(sends, plays) + 100 * MS;
    }

    @Test
    void breathPressureAndAHiHatPedalWithValuesInTurnCutNothing() {
        playedByBothAlike(inTurn(value -> ShortMessage.controller(0, 2, value)));
        playedByBothAlike(inTurn(value -> ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, 0, value, 0)));
        playedByBothAlike(inTurn(value -> ShortMessage.controller(0, 4, value)));
    }

    /** Local control off: all that it plays is sent to it. It looks at its sensors a thousand times a second. */
    @Property(tries = 50)
    void sensorsThatTrembleAreNoLoop(@ForAll long seed) {
        Random random = new Random(seed);
        int sensors = 1 + random.nextInt(3);
        int[] values = new int[sensors];
        for (int look = 0; look < 5000; look++) {
            now += MS;
            for (int sensor = 0; sensor < sensors; sensor++) {
                if (random.nextBoolean()) {
                    values[sensor] ^= 1;
                    int message = ShortMessage.controller(0, 2 + sensor, 63 + values[sensor]);
                    assertThat(guard.heard(now, message, router)).isEqualTo(LoopGuard.Verdict.PLAYED);
                    guard.sent(now, message, true);
                }
            }
        }
    }

    @Test
    void whatComesBackAfterTheSameDelayFourTimesIsCut() {
        for (int i = 0; i < 3; i++) {
            coincide(5 * MS, ShortMessage.noteOn(0, 60 + i, 80));
            assertThat(guard.isCut()).isFalse();
        }
        guard.sent(now, ShortMessage.noteOn(0, 70, 80), false);
        assertThat(guard.heard(now + 5 * MS + MS / 3, ShortMessage.noteOn(0, 70, 80), router))
                .isEqualTo(LoopGuard.Verdict.ECHO);
        assertThat(guard.isCut()).isTrue();
        guard.allow();
        coincide(5 * MS, ShortMessage.noteOn(0, 60, 80));
        assertThat(guard.isCut()).isFalse();
    }

    @Test
    void somethingElseBetweenThemOrAnotherDelayBeginsTheRowAnew() {
        for (int i = 0; i < 20; i++) {
            coincide(5 * MS, ShortMessage.noteOn(0, 60, 80));
            if (i % 3 == 2) {
                guard.heard(now, ShortMessage.noteOn(0, 61, 80), router);
            }
        }
        assertThat(guard.isCut()).isFalse();
        for (int i = 0; i < 20; i++) {
            coincide(i % 2 == 0 ? 5 * MS : 12 * MS, ShortMessage.noteOn(0, 60, 80));
        }
        assertThat(guard.isCut()).isFalse();
    }

    @Property(tries = 100)
    void whatWasNotSentThereIsNeverAnEcho(@ForAll long seed) {
        Random random = new Random(seed);
        for (int i = 0; i < 200; i++) {
            now += random.nextInt(5) * MS;
            assertThat(guard.heard(now, ShortMessage.controller(0, 2, random.nextInt(2)), router))
                    .isEqualTo(LoopGuard.Verdict.PLAYED);
        }
    }
}
