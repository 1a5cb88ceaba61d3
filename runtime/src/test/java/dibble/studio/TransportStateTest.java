package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.midi.RealTime;
import dibble.recording.PrintMode;
import dibble.session.ClockPlan;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import dibble.transport.ClockFollower;
import dibble.transport.Follower;
import dibble.transport.PlaybackTimebase;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** What the transport does, and how one leads to another; with a clock of the test's own. */
class TransportStateTest {
    private static final long MS = 1_000_000;

    /** A bar of four at 120. */
    private static final long BAR = 2_000 * MS;

    private final AtomicLong now = new AtomicLong(1_000_000 * MS);
    private final Session demo = LamplightersRound.session().withTempo(TempoMap.of(120));
    private final Document document = new Document(demo, Performance.NEW.withArmed("celesta", true));
    private final FakeDeck deck = new FakeDeck();
    private final TransportState motion = new TransportState(now::get, document, deck);

    /** Remembers what it was told. */
    private static final class FakeDeck implements TransportActions {
        final List<String> told = new ArrayList<>();
        PlaybackTimebase course;
        RecordPlan plan;
        long along = -1;
        Follower other;
        boolean playing;
        boolean stopsAsked;

        private void tell(String what) {
            told.add(what);
        }

        @Override
        public long readiness() {
            return 5 * MS;
        }

        @Override
        public void play(PlaybackTimebase along, Set<String> silent, int countIn, boolean click) {
            tell("play " + countIn + " " + silent);
            course = along;
            playing = true;
        }

        @Override
        public void playAlong(Follower follower, long entry, PlaybackTimebase.Loop loop, Set<String> silent) {
            tell("along");
            along = entry;
            other = follower;
            playing = true;
        }

        @Override
        public void setSilent(Set<String> silent) {
            tell("silent " + silent);
        }

        @Override
        public void change(PlaybackTimebase next) {
            tell("change");
            course = next;
        }

        @Override
        public void stop() {
            tell("stop");
            playing = false;
        }

        @Override
        public boolean isPlaying() {
            return playing;
        }

        @Override
        public void record(RecordPlan next, RecordOptions options) {
            tell("record");
            plan = next;
        }

        @Override
        public void recordAlong(PlaybackTimebase next, long at) {
            plan = plan.along(next, at);
        }

        @Override
        public void stopRecording() {
            tell("stop recording");
        }
    }

    private void go(long millis) {
        now.addAndGet(millis * MS);
        motion.pulse();
    }

    @Nested
    class Playing {
        @Test
        void itGoesFromItsPlaceAndRestsAtTheEnd() {
            motion.locate(3 * BAR);
            motion.play(motion.place());
            assertThat(motion.transport()).isEqualTo(Transport.PLAYING);
            assertThat(motion.position()).isEqualTo(3 * BAR);
            go(505);
            assertThat(motion.position()).isEqualTo(3 * BAR + 500 * MS);
            deck.playing = false;
            go(1);
            assertThat(motion.transport()).isEqualTo(Transport.STOPPED);
            assertThat(motion.position()).isEqualTo(3 * BAR);
        }

        @Test
        void anotherTempoKeepsItOnItsTick() {
            motion.play(0);
            go(5 + 1000);
            document.edit("tempo", session -> session.withTempo(TempoMap.of(60)));
            motion.follow();
            assertThat(motion.position()).isEqualTo(2_000 * MS);
            assertThat(deck.course.tempo()).isEqualTo(TempoMap.of(60));
            go(500);
            assertThat(motion.position()).isEqualTo(2_500 * MS);
        }

        @Test
        void aPlaceThatIsChosenWhileItPlaysIsWhereItGoesOn() {
            motion.play(0);
            go(100);
            motion.locate(4 * BAR);
            go(5 + 20);
            assertThat(motion.position()).isEqualTo(4 * BAR + 20 * MS);
            assertThat(deck.told).containsExactly("play 0 []", "change");
        }

        @Test
        void aLoopThatIsSetWhileItPlaysIsPlayed() {
            motion.play(0);
            go(5 + 3_000);
            motion.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(3840, 7680))
                    .withLoops(true));
            assertThat(motion.position()).isEqualTo(3_000 * MS);
            go(1_500);
            assertThat(motion.position()).isEqualTo(2_500 * MS);
        }
    }

    @Nested
    class RecordingHere {
        @Test
        void itCountsInAndIsOverWhenTheTakeIsThere() {
            motion.setOptions(RecordOptions.PLAIN.withCountIn(1));
            motion.record();
            assertThat(motion.transport()).isEqualTo(Transport.RECORDING);
            assertThat(motion.countsIn()).isEqualTo(BAR + 5 * MS);
            assertThat(deck.plan.startsAt()).isEqualTo(now.get() + BAR + 5 * MS);
            assertThat(deck.told.get(2)).startsWith("play 1 [celesta");
            go(5_000);
            motion.stop();
            motion.stop();
            assertThat(deck.told.stream().filter("stop recording"::equals)).hasSize(1);
            assertThat(motion.transport()).isEqualTo(Transport.RECORDING);
            motion.recordingEnded();
            assertThat(motion.transport()).isEqualTo(Transport.STOPPED);
        }

        @Test
        void whileItPlaysItPunchesInWhereItIs() {
            motion.play(0);
            go(5 + 3_000);
            motion.record();
            assertThat(deck.plan.from()).isEqualTo(3_000 * MS);
            assertThat(deck.plan.startsAt()).isEqualTo(now.get());
            assertThat(deck.told).doesNotContain("stop");
            assertThat(deck.told.get(deck.told.size() - 1)).startsWith("silent [celesta");
            go(1_000);
            assertThat(motion.position()).isEqualTo(4_000 * MS);
        }

        @Test
        void inALoopThatPlaysItRecordsUntilItsEndAndThenRoundAndRound() {
            motion.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(0, 3840))
                    .withLoops(true));
            motion.play(0);
            go(5 + 2_500);
            motion.record();
            assertThat(deck.plan.from()).isEqualTo(500 * MS);
            assertThat(deck.plan.endsAt()).isEqualTo(now.get() + 1_500 * MS);
            assertThat(deck.plan.next().from()).isZero();
            assertThat(deck.plan.next().endsAt()).isEqualTo(now.get() + 3_500 * MS);
        }

        @Test
        void aPunchEndsByItselfAndTheTracksPlayOn() {
            motion.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(3840, 7680))
                    .withPunches(true));
            motion.record();
            assertThat(deck.plan.startsAt()).isEqualTo(now.get() + 5 * MS + BAR);
            assertThat(deck.plan.endsAt()).isEqualTo(now.get() + 5 * MS + 2 * BAR);
            go(5_000);
            motion.recordingEnded();
            assertThat(motion.transport()).isEqualTo(Transport.PLAYING);
        }

        @Test
        void anotherTempoIsRecordedAndAPunchEndsAtItsBar() {
            motion.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(0, 7680))
                    .withPunches(true));
            motion.record();
            go(5 + 2_000);
            document.edit("tempo", session -> session.withTempo(TempoMap.of(60)));
            motion.follow();
            RecordPlan plan = deck.plan;
            assertThat(plan.endsAt()).isEqualTo(now.get() + 4_000 * MS);
            assertThat(plan.tempo().ticks(plan.endsAt() - plan.startsAt())).isEqualTo(7680);
        }
    }

    /** Equality, to the tick, of the recorder's plan with the course that is played. */
    @Property(tries = 300)
    void theRecordingIsWhereThePlaybackIs(@ForAll long seed) {
        new TransportStateTest().assertRecordedWherePlayed(new Random(seed));
    }

    private void assertRecordedWherePlayed(Random random) {
        long from = 960L * random.nextInt(8);
        RecordOptions options =
                RecordOptions.PLAIN.withRange(new RecordOptions.Stretch(from, from + 960L * (1 + random.nextInt(8))));
        boolean ranged = random.nextInt(3) > 0;
        boolean loops = random.nextBoolean();
        motion.setOptions(ranged ? options.withLoops(loops).withPunches(!loops) : RecordOptions.PLAIN);
        motion.locate(random.nextInt(8_000) * MS);
        motion.record();
        for (int i = 0; i < 20; i++) {
            go(random.nextInt(700));
            while (deck.plan.loops() && now.get() >= deck.plan.endsAt()) {
                deck.plan = deck.plan.next();
            }
            RecordPlan plan = deck.plan;
            boolean isInLastTick = plan.endTick() != RecordPlan.OPEN
                    && deck.course.tempo().ticks(deck.course.position(now.get())) >= plan.endTick() - 1;
            if (now.get() > plan.startsAt() && now.get() < plan.endsAt() && !isInLastTick) {
                long played = deck.course.tempo().ticks(deck.course.position(now.get()));
                // How far that tick is away, by the tempo of each: the same but for roundings of a nanosecond.
                long ofPlayback = deck.course.tempo().nanos(played) - deck.course.position(now.get());
                long ofRecording = plan.tempo().nanos(played) - (plan.from() + now.get() - plan.startsAt());
                assertThat(ofRecording).isBetween(ofPlayback - 20, ofPlayback + 20);
            }
            if (random.nextInt(4) == 0) {
                document.edit("tempo", session -> session.withTempo(TempoMap.of(40 + random.nextInt(160))));
                motion.follow();
            }
        }
    }

    /** Recorded events keep the position of the music through changes of tempo. */
    @Nested
    class TempoChangesWhileRecording {
        private void changeTempo(double bpm) {
            document.edit("tempo", session -> session.withTempo(TempoMap.of(bpm)));
            motion.follow();
        }

        @Test
        void onTheWayToAPunchThePunchStaysAtItsBar() {
            motion.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(3840, 7680))
                    .withPunches(true));
            motion.record();
            go(5 + 1_000);
            changeTempo(60);
            // Half of the first bar is left, which lasts two seconds now.
            assertThat(deck.plan.startsAt()).isEqualTo(now.get() + 2_000 * MS);
            assertThat(deck.plan.tempo().ticks(deck.plan.from())).isEqualTo(3840);
            assertThat(deck.plan.endsAt()).isEqualTo(now.get() + 6_000 * MS);
        }

        @Test
        void inALoopLaterPassesAreAtTheirTicks() {
            motion.setOptions(RecordOptions.PLAIN
                    .withRange(new RecordOptions.Stretch(3840, 7680))
                    .withLoops(true));
            motion.record();
            go(5 + 1_000);
            changeTempo(60);
            RecordPlan second = deck.plan.next();
            assertThat(second.startsAt()).isEqualTo(now.get() + 2_000 * MS);
            assertThat(second.tempo().ticks(second.from())).isEqualTo(3840);
            assertThat(second.next().startsAt()).isEqualTo(now.get() + 6_000 * MS);
        }
    }

    @Nested
    class KeepingWhatWasPlayed {
        @Test
        void itIsWhereTheMusicWas() {
            motion.play(2 * BAR);
            long started = now.get() + 5 * MS;
            go(5 + 1_000);
            motion.stop();
            go(500);
            motion.locate(7 * BAR);
            assertThat(motion.tickAt(started + 500 * MS)).isEqualTo(2 * 3840 + 960);
            // Nothing moved then: it goes to the playhead.
            assertThat(motion.tickAt(now.get() - 100 * MS)).isEqualTo(7 * 3840);
            assertThat(motion.tickAt(started - 1_000 * MS)).isEqualTo(7 * 3840);
        }
    }

    @Nested
    class Following {
        private static final long EACH = 500 * MS / 24;

        private ClockFollower follow() {
            document.edit("clock", session -> session.withClock(new ClockPlan(Set.of(), "stand-in:teasel")));
            assertThat(motion.follow()).isTrue();
            return (ClockFollower) motion.follower();
        }

        private void clocks(ClockFollower follower, int count) {
            for (int i = 0; i < count; i++) {
                follower.heard(RealTime.CLOCK, now.get());
                now.addAndGet(EACH);
                motion.pulse();
            }
        }

        @Test
        void itStartsAndStopsWithTheOther() {
            ClockFollower follower = follow();
            follower.heard(RealTime.START, now.get());
            clocks(follower, 24);
            assertThat(motion.transport()).isEqualTo(Transport.PLAYING);
            assertThat(deck.other).isSameAs(follower);
            follower.heard(RealTime.STOP, now.get());
            go(100);
            assertThat(motion.transport()).isEqualTo(Transport.STOPPED);
        }

        /** A busy interface thread must not cost the first notes. */
        @Test
        void aStartThatIsNoticedLateIsPlayedFromTheStart() {
            ClockFollower follower = follow();
            follower.songPosition(16);
            follower.heard(RealTime.CONTINUE, now.get());
            for (int i = 0; i < 24; i++) {
                follower.heard(RealTime.CLOCK, now.get());
                now.addAndGet(EACH);
            }
            motion.pulse();
            assertThat(deck.along).isEqualTo(BAR);
        }

        @Test
        void stoppedAndStartedAgainWhileTheOtherRunsItIsWhereTheOtherIs() {
            ClockFollower follower = follow();
            follower.heard(RealTime.START, now.get());
            clocks(follower, 96);
            motion.stop();
            clocks(follower, 24);
            assertThat(motion.transport()).isEqualTo(Transport.STOPPED);
            motion.play(motion.place());
            assertThat(motion.position()).isBetween(2_400 * MS, 2_600 * MS);
        }

        @Test
        void whatIsRecordedMeanwhileBeginsWhereTheOtherIs() {
            ClockFollower follower = follow();
            follower.heard(RealTime.START, now.get());
            clocks(follower, 96);
            motion.record();
            assertThat(deck.plan.from()).isBetween(1_900 * MS, 2_100 * MS);
            assertThat(deck.plan.startsAt()).isEqualTo(now.get());
        }

        @Test
        void aRecordingThatWaitsBeginsWithTheOthersFirstBeat() {
            ClockFollower follower = follow();
            motion.record();
            assertThat(motion.waitsToRecord()).isTrue();
            long first = now.addAndGet(1_000 * MS);
            follower.heard(RealTime.START, first);
            clocks(follower, 2);
            assertThat(motion.transport()).isEqualTo(Transport.RECORDING);
            assertThat(deck.plan.startsAt()).isEqualTo(first);
            assertThat(deck.plan.from()).isZero();
        }

        @Test
        void aGapEndsWhatSoundsAndAfterItItGoesOnFromThere() {
            ClockFollower follower = follow();
            follower.heard(RealTime.START, now.get());
            clocks(follower, 48);
            go(1_000);
            assertThat(motion.transport()).isEqualTo(Transport.STOPPED);
            assertThat(deck.told).endsWith("stop");
            clocks(follower, 2);
            assertThat(motion.transport()).isEqualTo(Transport.PLAYING);
            assertThat(motion.position()).isBetween(1_000 * MS, 1_100 * MS);
        }

        @Test
        void aJumpIsNoStop() {
            ClockFollower follower = follow();
            follower.heard(RealTime.START, now.get());
            clocks(follower, 48);
            follower.heard(RealTime.STOP, now.get());
            motion.pulse();
            follower.songPosition(0);
            follower.heard(RealTime.CONTINUE, now.get());
            motion.pulse();
            clocks(follower, 2);
            assertThat(deck.told).doesNotContain("stop");
            assertThat(follower.jumps()).isEqualTo(2);
        }
    }

    /** Whatever is pressed in whatever order, the deck is told no nonsense. */
    @Property(tries = 300)
    void anyOrderOfButtonsLeavesItInOneState(@ForAll long seed) {
        AtomicLong time = new AtomicLong(1_000_000 * MS);
        Document edited = new Document(demo, Performance.NEW);
        FakeDeck told = new FakeDeck();
        TransportState moved = new TransportState(time::get, edited, told);
        Random random = new Random(seed);
        boolean recording = false;
        for (int i = 0; i < 60; i++) {
            told.told.clear();
            switch (random.nextInt(9)) {
                case 0 -> moved.play(moved.place());
                case 1 -> moved.record();
                case 2 -> moved.stop();
                case 3 -> moved.locate(random.nextInt(20) * BAR);
                case 4 ->
                    moved.setOptions(new RecordOptions(
                            random.nextInt(3),
                            random.nextBoolean(),
                            PrintMode.values()[random.nextInt(3)],
                            new RecordOptions.Stretch(0, (1 + random.nextInt(4)) * 3840L),
                            random.nextBoolean(),
                            false,
                            null));
                case 5 -> {
                    TempoMap tempo = TempoMap.of(40 + random.nextInt(200));
                    edited.edit("tempo", session -> session.withTempo(tempo));
                    moved.follow();
                }
                case 6 -> {
                    if (recording && told.stopsAsked) {
                        moved.recordingEnded();
                        told.stopsAsked = false;
                    }
                }
                case 7 -> told.playing = told.playing && random.nextInt(4) > 0;
                default -> time.addAndGet(random.nextInt(3_000) * MS);
            }
            moved.pulse();
            assertThat(told.told.stream().filter("record"::equals)).hasSizeLessThanOrEqualTo(recording ? 0 : 1);
            told.stopsAsked |= told.told.contains("stop recording");
            recording = moved.transport() == Transport.RECORDING;
            if (moved.transport() == Transport.STOPPED) {
                assertThat(told.playing).isFalse();
                assertThat(moved.position()).isEqualTo(moved.place());
            }
            assertThat(moved.position()).isNotNegative();
            assertThat(moved.countsIn()).isNotNegative();
        }
    }
}
