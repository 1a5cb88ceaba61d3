package dibble.transport;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.time.TempoMap;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Tracks along somebody else's clock, which stops, starts, jumps, jitters, and is not there for a while. */
class FollowingTest {
    private static final TempoMap TEMPO = TempoMap.of(120);
    private static final long EACH = 500_000_000L / 24;
    private static final int STEP = 60;

    private final AtomicLong now = new AtomicLong(1_000_000_000L);
    private final ClockFollower follower = new ClockFollower(now::get, TEMPO);
    private final AtomicInteger notes = new AtomicInteger();
    private PlaybackState playing;
    private int jumps;

    /** Where the other says that it is, in ticks; and from where it went there. */
    private long told;

    private long toldFrom;

    private static Timeline timeline() {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (long tick = 0; tick < 960 * 400; tick += STEP) {
            clip.add(tick, ShortMessage.noteOn(0, 60, 80));
            clip.add(tick + STEP / 2, ShortMessage.noteOff(0, 60, 64));
        }
        return Timeline.of(List.of(clip.build()), TEMPO);
    }

    /** Begins with the other's start. */
    private void begin() {
        begin(follower.jumpedTo());
    }

    private void begin(long entry) {
        PlaybackPlan.Out out = message -> notes.addAndGet(ShortMessage.startsNote(message) ? 1 : 0);
        PlaybackPlan program = new PlaybackPlan(
                PlaybackTimebase.of(TEMPO, 0, 0), timeline(), List.of(new PlaybackPlan.PlannedTrack("one", out)));
        jumps = follower.jumps();
        notes.set(0);
        playing = new PlaybackState(program, entry);
    }

    /** As a player does. */
    private void play() {
        if (jumps != follower.jumps()) {
            jumps = follower.jumps();
            notes.set(0);
            playing.jump(follower.jumpedTo());
        }
        while (playing.due() <= follower.nanos()) {
            playing.act();
        }
        long most = (told + 2 * ClockSender.TICKS - toldFrom) / STEP + 2;
        assertThat((long) notes.get()).isLessThanOrEqualTo(most);
        assertThat(follower.nanos()).isLessThanOrEqualTo(TEMPO.nanos(told + 2 * ClockSender.TICKS));
    }

    private void go(long nanos) {
        for (long left = nanos; left > 0; left -= 2_000_000) {
            now.addAndGet(Math.min(left, 2_000_000));
            if (playing != null) {
                play();
            }
        }
    }

    private void clock() {
        told += ClockSender.TICKS;
        follower.heard(RealTime.CLOCK, now.get());
    }

    private void startAt(long tick, int status) {
        toldFrom = tick;
        told = tick - ClockSender.TICKS;
        follower.heard(status, now.get());
    }

    @Property(tries = 100)
    void neverMoreNotesAreSentThanAreDue(@ForAll long seed) {
        Random random = new Random(seed);
        startAt(0, RealTime.START);
        clock();
        begin();
        for (int i = 0; i < 60; i++) {
            switch (random.nextInt(8)) {
                case 0 -> {
                    // A gap: the cable was out, and whoever sends clocks says nothing of it.
                    go(1_000_000_000L + random.nextInt(1_000_000_000));
                    toldFrom = told + ClockSender.TICKS;
                }
                case 1 -> {
                    follower.heard(RealTime.STOP, now.get());
                    go(random.nextInt(1_500_000_000));
                    startAt(told + ClockSender.TICKS, RealTime.CONTINUE);
                    told = toldFrom - ClockSender.TICKS;
                }
                case 2 -> {
                    follower.heard(RealTime.STOP, now.get());
                    int sixteenths = random.nextInt(400);
                    follower.songPosition(sixteenths);
                    startAt(sixteenths * 240L, RealTime.CONTINUE);
                }
                case 3 -> startAt(0, RealTime.START);
                default -> {
                    // Goes on.
                }
            }
            double stretch = 0.8 + random.nextDouble() * 0.4;
            for (int n = 0; n < 20; n++) {
                clock();
                play();
                go((long) (EACH * stretch) + random.nextInt(6_000_000) - 3_000_000);
            }
        }
    }

    @Test
    void whoJoinsWhileItRunsBeginsWhereItIs() {
        startAt(0, RealTime.START);
        for (int n = 0; n < 24 * 8; n++) {
            clock();
            now.addAndGet(EACH);
        }
        begin(follower.nanos());
        play();
        assertThat(notes.get()).isLessThanOrEqualTo(1);
        assertThat(TEMPO.ticks(follower.nanos())).isBetween(told, told + ClockSender.TICKS);
    }

    @Test
    void afterAGapItGoesOnWhereItWas() {
        startAt(0, RealTime.START);
        clock();
        begin();
        for (int n = 0; n < 48; n++) {
            go(EACH);
            clock();
        }
        go(1_000_000_000L);
        assertThat(follower.isRunning()).isFalse();
        int before = notes.get();
        toldFrom = told + ClockSender.TICKS;
        clock();
        play();
        assertThat(follower.isRunning()).isTrue();
        assertThat(TEMPO.ticks(follower.jumpedTo())).isEqualTo(told);
        assertThat(notes.get()).isLessThanOrEqualTo(1);
        assertThat(before).isPositive();
    }
}
