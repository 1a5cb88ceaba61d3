package dibble.transport;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;

import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.time.TempoMap;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** MIDI clock sent and followed. */
class ClockTest {
    private static final TempoMap TEMPO = TempoMap.of(120);

    /** Nanoseconds from one clock to the next at 120. */
    private static final long EACH = 500_000_000L / 24;

    private final SteppingClock clock = new SteppingClock(1_000_000_000_000L);

    private final class Heard implements ClockSender.Out {
        final List<Integer> statuses = new CopyOnWriteArrayList<>();
        final List<Long> stamps = new CopyOnWriteArrayList<>();
        final List<Integer> positions = new CopyOnWriteArrayList<>();

        /** How many it takes before it fails. */
        int takes = Integer.MAX_VALUE;

        @Override
        public void realTime(int status) {
            if (statuses.size() >= takes) {
                throw new IllegalStateException("unplugged");
            }
            stamps.add(clock.nanos());
            statuses.add(status);
        }

        @Override
        public void songPosition(int sixteenths) {
            positions.add(sixteenths);
        }

        long clocks() {
            return statuses.stream().filter(status -> status == RealTime.CLOCK).count();
        }
    }

    private final Heard heard = new Heard();

    @Test
    void whoFollowsHasTheTempoBeforeTheStartAndTheFirstClockIsTheBeat() {
        long at = clock.nanos() + 300_000_000L;
        try (ClockSender sender = new ClockSender(clock, PlaybackTimebase.of(TEMPO, 0, at), List.of(heard))) {
            sender.start(250_000_000L);
            await().until(() -> heard.statuses.size() > 40);
        }
        int start = heard.statuses.indexOf(RealTime.START);
        assertThat(heard.statuses.subList(0, start))
                .containsOnly(RealTime.CLOCK)
                .hasSizeBetween(10, 12);
        assertThat(heard.statuses.get(heard.statuses.size() - 1)).isEqualTo(RealTime.STOP);
        assertThat(heard.stamps.get(start)).isLessThan(at);
        assertThat(heard.stamps.get(start + 1)).isGreaterThanOrEqualTo(at);
        assertThat(heard.positions).isEmpty();
    }

    @Test
    void fromTheMiddleItSaysWhereAndContinues() {
        PlaybackTimebase course =
                PlaybackTimebase.of(TEMPO, TEMPO.nanos(TempoMap.PPQ * 6L), clock.nanos() + 5_000_000L);
        try (ClockSender sender = new ClockSender(clock, course, List.of(heard))) {
            sender.start(0);
            await().until(() -> heard.statuses.size() > 3);
        }
        assertThat(heard.positions).containsExactly(24);
        assertThat(heard.statuses.get(0)).isEqualTo(RealTime.CONTINUE);
    }

    @Test
    void whoFailsDoesNotTakeTheOthersAlongAndWhoComesBackJoinsAtASixteenth() {
        Heard failing = new Heard();
        failing.takes = 10;
        Heard back = new Heard();
        try (ClockSender sender =
                new ClockSender(clock, PlaybackTimebase.of(TEMPO, 0, clock.nanos()), List.of(failing, heard))) {
            sender.start(0);
            await().until(() -> heard.clocks() > 30);
            sender.setOuts(List.of(back, heard));
            await().until(() -> back.clocks() > 30);
        }
        assertThat(failing.statuses).hasSize(10);
        assertThat(heard.statuses).endsWith(RealTime.STOP).doesNotContain(RealTime.CONTINUE);
        assertThat(back.statuses.get(0)).isEqualTo(RealTime.CONTINUE);
        assertThat(back.statuses).endsWith(RealTime.STOP);
        assertThat(back.positions).hasSize(1);
    }

    @Test
    void aLoopsReturnIsSaid() {
        PlaybackTimebase course = new PlaybackTimebase(TEMPO, 0, clock.nanos(), new PlaybackTimebase.Loop(960, 1920));
        try (ClockSender sender = new ClockSender(clock, course, List.of(heard))) {
            sender.start(0);
            await().until(() -> heard.positions.size() > 2);
        }
        assertThat(heard.positions).containsOnly(4);
        int there = heard.statuses.indexOf(RealTime.CONTINUE);
        // Two quarter notes to the loop's end, and then one each time.
        assertThat(heard.statuses.subList(0, there).stream()
                        .filter(status -> status == RealTime.CLOCK)
                        .count())
                .isEqualTo(48);
        assertThat(heard.statuses.get(there - 1)).isEqualTo(RealTime.STOP);
        assertThat(heard.statuses.subList(there + 1, there + 25)).containsOnly(RealTime.CLOCK);
    }

    private record Beat(long at, int key) {}

    @Test
    void theClickCountsBarsAndFollowsTheLoopAndTheTempoOfWhereItIs() {
        TempoMap waltz = new TempoMap(
                List.of(new TempoMap.Tempo(0, 60), new TempoMap.Tempo(2880, 120)),
                List.of(new TempoMap.Meter(0, 3, 4)));
        long begins = clock.nanos() + 7_000_000_000L;
        List<Beat> beats = new CopyOnWriteArrayList<>();
        PlaybackTimebase course = new PlaybackTimebase(waltz, 0, begins, new PlaybackTimebase.Loop(2880, 5760));
        try (Click click = new Click(
                clock, course, 2, true, message -> beats.add(new Beat(clock.nanos(), ShortMessage.data1(message))))) {
            click.start();
            await().until(() -> beats.size() > 20);
        }
        for (int i = 0; i < 20; i++) {
            assertThat(beats.get(i).key).isEqualTo(i % 3 == 0 ? 76 : 77);
            // Two bars of count-in and one at 60, then round and round at 120.
            long due = i < 9 ? begins + (i - 6) * 1_000_000_000L : begins + 3_000_000_000L + (i - 9) * 500_000_000L;
            assertThat(beats.get(i).at).isBetween(due, due + 1_000_000L);
        }
        assertThat(Click.countIn(waltz, 0, 2)).isEqualTo(6_000_000_000L);
        assertThat(Click.halfBeat(waltz, 0)).isEqualTo(500_000_000L);
    }

    @Test
    void aClockThatArrivesUnevenlyIsFollowedWithoutWobbling() {
        AtomicLong now = new AtomicLong(1_000_000_000_000L);
        ClockFollower follower = new ClockFollower(now::get, TEMPO);
        Random random = new Random(1);
        long begins = now.get();
        long slower = EACH * 103 / 100;
        for (int n = -24; n < 0; n++) {
            follower.heard(RealTime.CLOCK, begins + n * slower + random.nextInt(3_000_000));
        }
        assertThat(follower.bpm()).isCloseTo(120 / 1.03, within(1.5));
        follower.heard(RealTime.START, begins - 1_000_000);
        assertThat(follower.isRunning()).isFalse();
        double worst = 0;
        double fastest = 0;
        double slowest = 10;
        for (int n = 0; n < 24 * 240; n++) {
            // Up to 3 ms late, as over a busy line.
            long at = begins + n * slower + random.nextInt(3_000_000);
            now.set(at);
            follower.heard(RealTime.CLOCK, at);
            if (n > 24 * 8) {
                long due = n * EACH;
                worst = Math.max(worst, Math.abs(follower.nanos() - due));
                long from = follower.nanos();
                now.addAndGet(10_000_000L);
                double rate = (follower.nanos() - from) / 1e7;
                fastest = Math.max(fastest, rate);
                slowest = Math.min(slowest, rate);
            }
        }
        assertThat(worst).isLessThan(3_000_000);
        assertThat(fastest - slowest).as("the tempo's wobble").isLessThan(0.01);
        assertThat((fastest + slowest) / 2).isCloseTo(1 / 1.03, within(0.005));
        follower.heard(RealTime.STOP, now.get());
        assertThat(follower.isRunning()).isFalse();
    }

    @Test
    void aClockThatStopsComingStandsStill() {
        AtomicLong now = new AtomicLong(5_000_000_000L);
        ClockFollower follower = new ClockFollower(now::get, TEMPO);
        follower.heard(RealTime.START, now.get());
        for (int n = 0; n < 48; n++) {
            follower.heard(RealTime.CLOCK, now.addAndGet(EACH));
        }
        assertThat(follower.isRunning()).isTrue();
        now.addAndGet(5_000_000_000L);
        assertThat(follower.isRunning()).isFalse();
        long still = follower.nanos();
        now.addAndGet(1_000_000_000L);
        assertThat(follower.nanos()).isEqualTo(still);
        follower.songPosition(16);
        follower.heard(RealTime.CONTINUE, now.get());
        follower.heard(RealTime.CLOCK, now.get());
        assertThat(follower.nanos()).isEqualTo(TEMPO.nanos(4L * TempoMap.PPQ));
    }
}
