package dibble.transport;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.recording.Chase;
import dibble.recording.TrackVoice;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Clips merged in the order of their time, and what holds in them. */
class TimelineTest {
    private static final TempoMap TEMPO = new TempoMap(
            List.of(new TempoMap.Tempo(0, 100), new TempoMap.Tempo(700, 43.7)), List.of(new TempoMap.Meter(0, 4, 4)));

    private static MidiTrack random(Random random) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        long tick = 0;
        for (int i = 0; i < 60; i++) {
            tick += random.nextInt(40);
            switch (random.nextInt(3)) {
                case 0 -> clip.text(tick, MidiTrack.META_MARKER, "here");
                case 1 -> clip.add(tick, ShortMessage.controller(random.nextInt(3), random.nextInt(12), i));
                default -> clip.add(tick, ShortMessage.noteOn(random.nextInt(3), 60, 1 + i));
            }
        }
        return clip.build(tick + 5);
    }

    @Property(tries = 200)
    void atEqualTimesWheelsComeToRestFirstAndClipsKeepTheirOrder(@ForAll long seed) {
        Random random = new Random(seed);
        List<MidiTrack> clips = List.of(random(random), random(random), random(random));
        Timeline timeline = Timeline.of(clips, TEMPO);
        List<List<Integer>> byLane = List.of(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        for (int i = 0; i < timeline.size(); i++) {
            if (i > 0) {
                assertThat(timeline.nanos(i)).isGreaterThanOrEqualTo(timeline.nanos(i - 1));
                if (timeline.nanos(i) == timeline.nanos(i - 1)) {
                    boolean isRestFirst = rests(timeline.message(i - 1)) && !rests(timeline.message(i));
                    assertThat(timeline.lane(i) >= timeline.lane(i - 1) || isRestFirst)
                            .isTrue();
                }
            }
            byLane.get(timeline.lane(i)).add(timeline.message(i));
            int first = timeline.firstAt(timeline.nanos(i));
            assertThat(timeline.nanos(first)).isEqualTo(timeline.nanos(i));
            assertThat(first == 0 || timeline.nanos(first - 1) < timeline.nanos(i))
                    .isTrue();
        }
        for (int lane = 0; lane < 3; lane++) {
            MidiTrack clip = clips.get(lane);
            List<Integer> wanted = new ArrayList<>();
            for (int i = 0; i < clip.size(); i++) {
                if (clip.isChannelMessage(i)) {
                    wanted.add(clip.message(i));
                }
            }
            assertThat(byLane.get(lane)).isEqualTo(wanted);
        }
        assertThat(timeline.length())
                .isEqualTo(TEMPO.nanos(
                        clips.stream().mapToLong(MidiTrack::endTick).max().orElse(0)));
    }

    private static boolean rests(int message) {
        return NeutralValues.moves(message) && NeutralValues.isAtRest(message);
    }

    @Test
    void aBendThatBeginsWhereAnotherTracksBendEndsIsHeard() {
        MidiTrack first = new MidiTrack.Builder()
                .add(100, ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 90))
                .build();
        MidiTrack second = new MidiTrack.Builder()
                .add(10, ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 30))
                .add(100, ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, 64))
                .build();
        Timeline timeline = Timeline.of(List.of(first, second), TEMPO);
        assertThat(ShortMessage.data2(timeline.message(2))).isEqualTo(90);
    }

    @Property(tries = 200)
    void whatHoldsIsWhatCameBeforeOnTopOfTheStart(@ForAll long seed) {
        Random random = new Random(seed);
        List<MidiTrack> clips = List.of(random(random), random(random));
        Timeline timeline = Timeline.of(clips, TEMPO);
        long tick = random.nextInt(1500);
        List<Chase> held = timeline.chase(TEMPO.nanos(tick));
        for (int lane = 0; lane < 2; lane++) {
            Chase wanted = new Chase(timeline.start(lane));
            Chase.before(clips.get(lane), tick).messages().forEach(wanted::add);
            assertThat(wanted.wayTo(held.get(lane))).isEmpty();
            assertThat(held.get(lane).wayTo(wanted)).isEmpty();
        }
    }

    @Test
    void aPartsClipIsOnOneChannelAndBeginsWithItsSound() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(10, ShortMessage.programChange(4, 9))
                .add(10, ShortMessage.controller(4, 7, 30))
                .add(20, ShortMessage.controller(5, 64, 127))
                .add(20, ShortMessage.controller(5, 20, 1))
                .build();
        int[] sound = {
            ShortMessage.controller(0, 0, 1),
            ShortMessage.controller(0, 32, 2),
            ShortMessage.programChange(0, 3),
            ShortMessage.controller(0, 7, 88),
            ShortMessage.controller(0, 10, 5)
        };
        Timeline timeline =
                new Timeline(List.of(new Timeline.Clip(new TrackVoice.Events(clip, null), sound, true, 0)), TEMPO);
        for (int i = 0; i < timeline.size(); i++) {
            assertThat(ShortMessage.channel(timeline.message(i))).isZero();
        }
        // What it never moves is not put anywhere: the pan is, but not by this track.
        assertThat(timeline.start(0).messages())
                .containsExactlyInAnyOrder(
                        ShortMessage.controller(0, 0, 1),
                        ShortMessage.controller(0, 32, 2),
                        ShortMessage.programChange(0, 3),
                        ShortMessage.controller(0, 7, 88),
                        ShortMessage.controller(0, 64, 0));
    }

    @Test
    void aBendRangeThatIsMovedBeginsAtTwoSemitones() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(10, ShortMessage.controller(0, 101, 0))
                .add(10, ShortMessage.controller(0, 100, 0))
                .add(10, ShortMessage.controller(0, 6, 12))
                .build();
        Timeline timeline = Timeline.of(List.of(clip), TEMPO);
        List<Integer> way = timeline.chase(Long.MAX_VALUE).get(0).wayTo(timeline.start(0));
        assertThat(way)
                .containsSubsequence(
                        ShortMessage.controller(0, 6, 2),
                        ShortMessage.controller(0, 38, 0),
                        ShortMessage.controller(0, 101, 127),
                        ShortMessage.controller(0, 100, 127));
        assertThat(way).doesNotContain(ShortMessage.controller(0, 6, 12));
    }
}
