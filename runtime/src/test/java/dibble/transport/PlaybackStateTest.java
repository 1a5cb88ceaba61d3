package dibble.transport;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.recording.TrackVoice;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** A program being played: round its loop, and while it is edited. Driven by times, without a thread. */
class PlaybackStateTest {
    private static final long LENGTH = 3840;

    /** What a receiver has: for tests of where it is left. */
    private static final class Receiver implements PlaybackPlan.Out {
        final int[] controllers = new int[128];
        final boolean[] on = new boolean[128];
        final List<Integer> heard = new ArrayList<>();
        final List<byte[]> exclusives = new ArrayList<>();
        int bend = 64;
        int pressure;
        int program;
        int breaches;

        Receiver() {
            controllers[7] = 100;
            controllers[10] = 64;
            controllers[11] = 127;
            Arrays.fill(controllers, 70, 80, 64);
        }

        @Override
        public void play(int message) {
            heard.add(message);
            int first = ShortMessage.data1(message);
            switch (ShortMessage.kind(message)) {
                case ShortMessage.CONTROLLER -> controllers[first] = ShortMessage.data2(message);
                case ShortMessage.PITCH_BEND -> bend = ShortMessage.data2(message);
                case ShortMessage.CHANNEL_PRESSURE -> pressure = first;
                case ShortMessage.PROGRAM_CHANGE -> program = first;
                case ShortMessage.NOTE_ON -> {
                    breaches += on[first] ? 1 : 0;
                    on[first] = true;
                }
                default -> on[first] = false;
            }
        }

        @Override
        public void exclusive(byte[] message) {
            exclusives.add(message);
        }

        String state() {
            return Arrays.toString(controllers) + bend + " " + pressure + " " + program;
        }

        boolean sounds() {
            for (boolean note : on) {
                if (note) {
                    return true;
                }
            }
            return false;
        }

        boolean isAtRest() {
            return bend == 64 && pressure == 0 && controllers[1] == 0 && !isPedalDown();
        }

        private boolean isPedalDown() {
            for (int pedal = NeutralValues.FIRST_PEDAL; pedal <= NeutralValues.LAST_PEDAL; pedal++) {
                if (controllers[pedal] >= 64) {
                    return true;
                }
            }
            return false;
        }
    }

    private static MidiTrack clip(Random random) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        boolean[] on = new boolean[4];
        int[] moved = {1, 7, 10, 11, 64, 66, 69, 74};
        for (long tick = random.nextInt(200); tick < LENGTH; tick += 1 + random.nextInt(150)) {
            int note = random.nextInt(4);
            switch (random.nextInt(6)) {
                case 0 -> clip.add(tick, ShortMessage.controller(0, moved[random.nextInt(8)], random.nextInt(128)));
                case 1 -> clip.add(tick, ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, random.nextInt(128)));
                case 2 -> clip.add(tick, ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, 0, random.nextInt(128), 0));
                default -> {
                    on[note] = !on[note];
                    clip.add(
                            tick,
                            on[note]
                                    ? ShortMessage.noteOn(0, 60 + note, 1 + random.nextInt(126))
                                    : ShortMessage.noteOff(0, 60 + note, 64));
                }
            }
        }
        for (int note = 0; note < 4; note++) {
            if (on[note]) {
                clip.add(LENGTH, ShortMessage.noteOff(0, 60 + note, 64));
            }
        }
        return clip.build(LENGTH);
    }

    private static final int[] SOUND = {ShortMessage.programChange(0, 5), ShortMessage.controller(0, 7, 90)};

    private static Timeline timeline(TempoMap tempo, MidiTrack... clips) {
        List<Timeline.Clip> lanes = new ArrayList<>();
        for (MidiTrack clip : clips) {
            lanes.add(new Timeline.Clip(new TrackVoice.Events(clip, null), SOUND, true, lanes.size()));
        }
        return new Timeline(lanes, tempo);
    }

    private static PlaybackPlan program(PlaybackTimebase course, Timeline timeline, Receiver... outs) {
        List<PlaybackPlan.PlannedTrack> lanes = new ArrayList<>();
        for (int i = 0; i < outs.length; i++) {
            lanes.add(new PlaybackPlan.PlannedTrack("track-" + i, outs[i]));
        }
        return new PlaybackPlan(course, timeline, lanes);
    }

    /** Plays what is due until a time. */
    private static void playUntil(PlaybackState playing, long time) {
        while (!playing.isOver() && playing.due() <= time) {
            playing.act();
        }
    }

    @Property(tries = 300)
    void theSecondPassOfALoopLeavesTheStateOfTheFirst(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap tempo = TempoMap.of(60 + random.nextInt(120));
        long from = random.nextInt(2000);
        long to = from + 200 + random.nextInt(1600);
        Receiver receiver = new Receiver();
        PlaybackTimebase course =
                new PlaybackTimebase(tempo, tempo.nanos(from), 0, new PlaybackTimebase.Loop(from, to));
        PlaybackState playing = new PlaybackState(program(course, timeline(tempo, clip(random)), receiver), 0);
        List<String> begins = new ArrayList<>();
        List<String> ends = new ArrayList<>();
        List<List<Integer>> heard = new ArrayList<>();
        for (int pass = 0; pass < 3; pass++) {
            begins.add(receiver.state());
            receiver.heard.clear();
            playUntil(playing, course.startOf(pass + 1) - 1);
            ends.add(receiver.state());
            heard.add(List.copyOf(receiver.heard));
            playing.act();
            assertThat(receiver.sounds()).isFalse();
        }
        assertThat(begins).containsOnly(begins.get(0));
        assertThat(ends).containsOnly(ends.get(0));
        assertThat(heard.get(1)).isEqualTo(heard.get(2));
        assertThat(receiver.breaches).isZero();
        playing.end();
        assertThat(receiver.isAtRest()).isTrue();
    }

    /** After a standstill the music is as if it had begun where it is now. */
    @Property(tries = 300)
    void whatWasMissedIsSkipped(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap tempo = TempoMap.of(60 + random.nextInt(120));
        PlaybackTimebase.Loop loop =
                random.nextBoolean() ? new PlaybackTimebase.Loop(480, 480 + 200 + random.nextInt(3000)) : null;
        PlaybackTimebase course = new PlaybackTimebase(tempo, 0, 0, loop);
        Timeline timeline = timeline(tempo, clip(random));
        Receiver receiver = new Receiver();
        PlaybackState playing = new PlaybackState(program(course, timeline, receiver), 0);
        long stops = random.nextLong(2 * timeline.length());
        playUntil(playing, stops);
        long now = stops + (long) Math.pow(10, 9 + random.nextDouble(4));
        if (playing.isOver() || !playing.hasMissed(now)) {
            return;
        }
        playing.jump(now);
        assertThat(receiver.sounds()).isFalse();
        assertThat(playing.due()).isGreaterThanOrEqualTo(Math.min(now, timeline.length()));
        assertThat(playing.hasMissed(now)).isFalse();
        receiver.heard.clear();
        Receiver other = new Receiver();
        PlaybackState begun = new PlaybackState(program(course, timeline, other), now);
        assertThat(receiver.state()).isEqualTo(other.state());
        other.heard.clear();
        playUntil(playing, now + 2 * timeline.length());
        playUntil(begun, now + 2 * timeline.length());
        assertThat(receiver.heard).isEqualTo(other.heard);
        assertThat(receiver.breaches).isZero();
        playing.end();
        assertThat(receiver.isAtRest()).isTrue();
    }

    @Property(tries = 300)
    void whateverIsEditedNothingHangsAndNothingIsLeftWhereItDoesNotBelong(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap tempo = TempoMap.of(120);
        MidiTrack[] clips = {clip(random), clip(random)};
        Receiver[] receivers = new Receiver[4];
        Arrays.setAll(receivers, i -> new Receiver());
        Receiver[] outs = {receivers[0], receivers[1]};
        PlaybackTimebase.Loop loop = random.nextBoolean() ? new PlaybackTimebase.Loop(480, 2880) : null;
        PlaybackTimebase course = new PlaybackTimebase(tempo, 0, 0, loop);
        Timeline timeline = timeline(tempo, clips);
        PlaybackState playing = new PlaybackState(program(course, timeline, outs), 0);
        long now = 0;
        for (int edit = 0; edit < 12; edit++) {
            now += random.nextInt(400) * 1_000_000L;
            playUntil(playing, now);
            if (playing.isOver()) {
                break;
            }
            int track = random.nextInt(2);
            switch (random.nextInt(5)) {
                case 0 -> outs[track] = outs[track] == null ? receivers[track] : null;
                case 1 -> outs[track] = receivers[track + (random.nextBoolean() ? 0 : 2)];
                case 2 -> {
                    tempo = TempoMap.of(40 + random.nextInt(200));
                    course = course.withTempo(tempo, now);
                    timeline = timeline(tempo, clips);
                }
                case 3 -> {
                    clips[track] = clip(random);
                    timeline = timeline(tempo, clips);
                }
                default -> course = new PlaybackTimebase(tempo, tempo.nanos(random.nextInt((int) LENGTH)), now, loop);
            }
            playing.change(program(course, timeline, outs), now);
            for (int i = 0; i < 4; i++) {
                boolean heard = outs[i % 2] == receivers[i];
                if (outs[i % 2] == null) {
                    assertThat(receivers[i].sounds()).as("muted").isFalse();
                }
                if (!heard) {
                    assertThat(receivers[i].isAtRest()).as("left").isTrue();
                    assertThat(receivers[i].controllers[7]).isIn(90, 100);
                    assertThat(receivers[i].controllers[11]).isEqualTo(127);
                }
            }
        }
        playing.end();
        for (Receiver receiver : receivers) {
            assertThat(receiver.sounds()).isFalse();
            assertThat(receiver.isAtRest()).isTrue();
            assertThat(receiver.breaches).isZero();
        }
    }

    @Property(tries = 200)
    void whatIsHeardAgainHasTheStateThatItWouldHaveHad(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap tempo = TempoMap.of(120);
        MidiTrack clip = clip(random);
        PlaybackTimebase course = PlaybackTimebase.of(tempo, 0, 0);
        Timeline timeline = timeline(tempo, clip);
        Receiver all = new Receiver();
        PlaybackState whole = new PlaybackState(program(course, timeline, all), 0);
        Receiver some = new Receiver();
        PlaybackState muted = new PlaybackState(program(course, timeline, some), 0);
        long off = random.nextInt(1_000_000_000);
        long on = off + random.nextInt(900_000_000);
        playUntil(muted, off);
        muted.change(program(course, timeline, (Receiver) null), off);
        playUntil(muted, on);
        muted.change(program(course, timeline, some), on);
        long later = on + random.nextInt(100_000_000);
        playUntil(muted, later);
        playUntil(whole, later);
        assertThat(some.state()).isEqualTo(all.state());
    }

    @Test
    void aPartThatMovesToAnotherChannelIsPlayedThereAndItsNotesEndWhereTheyAre() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(0, ShortMessage.controller(4, 74, 20))
                .add(100, ShortMessage.noteOn(4, 60, 80))
                .add(500, ShortMessage.noteOff(4, 60, 33))
                .add(600, ShortMessage.noteOn(4, 62, 80))
                .add(700, ShortMessage.noteOff(4, 62, 64))
                .build();
        TempoMap tempo = TempoMap.of(125);
        Timeline timeline = timeline(tempo, clip);
        PlaybackTimebase course = PlaybackTimebase.of(tempo, 0, 0);
        Receiver one = new Receiver();
        Receiver nine = new Receiver();
        PlaybackState playing = new PlaybackState(program(course, timeline, one), 0);
        playUntil(playing, tempo.nanos(300));
        playing.change(program(course, timeline, nine), tempo.nanos(300));
        playUntil(playing, tempo.nanos(800));
        assertThat(one.heard)
                .containsExactly(
                        ShortMessage.controller(0, 74, 64),
                        ShortMessage.controller(0, 74, 20),
                        ShortMessage.noteOn(0, 60, 80),
                        ShortMessage.controller(0, 74, 64),
                        ShortMessage.noteOff(0, 60, 33));
        assertThat(nine.heard)
                .containsExactly(
                        ShortMessage.controller(0, 74, 20),
                        ShortMessage.noteOn(0, 62, 80),
                        ShortMessage.noteOff(0, 62, 64));
    }

    private static MidiTrack onTheBeats() {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (int beat = 0; beat < 16; beat++) {
            clip.add(beat * 960L, ShortMessage.noteOn(0, 60 + beat, 80));
            clip.add(beat * 960L + 480, ShortMessage.noteOff(0, 60 + beat, 64));
        }
        return clip.build();
    }

    private static List<Integer> keys(Receiver receiver) {
        return receiver.heard.stream()
                .filter(ShortMessage::startsNote)
                .map(ShortMessage::data1)
                .toList();
    }

    @Test
    void theFirstNoteIsNotLostThoughThePlayersThreadIsLate() {
        TempoMap tempo = TempoMap.of(240);
        SteppingClock clock = new SteppingClock(1_000_000_000_000L);
        Receiver receiver = new Receiver();
        PlaybackTimebase course = PlaybackTimebase.of(tempo, 0, clock.nanos() - 50_000_000L);
        try (Player player = new Player("late", clock, program(course, timeline(tempo, onTheBeats()), receiver))) {
            player.start();
            await().until(() -> !player.isPlaying());
        }
        assertThat(keys(receiver)).hasSize(16).startsWith(60);
    }

    @Test
    void aNoteOnThePlaceThatIsChosenWhileItPlaysIsHeard() {
        TempoMap tempo = TempoMap.of(120);
        Timeline timeline = timeline(tempo, onTheBeats());
        Receiver receiver = new Receiver();
        PlaybackState playing = new PlaybackState(program(PlaybackTimebase.of(tempo, 0, 0), timeline, receiver), 0);
        playUntil(playing, tempo.nanos(1_000));
        long at = tempo.nanos(1_100);
        // The player learns of it a moment after it has begun.
        playing.change(
                program(PlaybackTimebase.of(tempo, tempo.nanos(960 * 8), at), timeline, receiver), at + 3_000_000);
        playUntil(playing, at + tempo.nanos(1_000));
        assertThat(keys(receiver)).containsExactly(60, 61, 68, 69);
    }

    @Property(tries = 300)
    void noNoteIsLostOrPlayedTwiceWhenTheTempoChanges(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap tempo = TempoMap.of(120);
        PlaybackTimebase course = PlaybackTimebase.of(tempo, 0, 0);
        Receiver receiver = new Receiver();
        PlaybackState playing = new PlaybackState(program(course, timeline(tempo, onTheBeats()), receiver), 0);
        long now = 0;
        for (int i = 0; i < 10; i++) {
            now += random.nextInt(600) * 1_000_000L;
            playUntil(playing, now);
            tempo = TempoMap.of(60 + random.nextInt(200));
            course = course.withTempo(tempo, now);
            // It plays on a little before it learns of it.
            now += random.nextInt(3) * 1_000_000L;
            playUntil(playing, now);
            playing.change(program(course, timeline(tempo, onTheBeats()), receiver), now);
        }
        playUntil(playing, Long.MAX_VALUE);
        List<Integer> keys = keys(receiver);
        assertThat(keys).doesNotHaveDuplicates().hasSize(16);
    }

    /**
     * Edits that leave the music as it is, and other tempos, round a loop: the same notes come in the same order, however
     * late the player notices.
     */
    @Property(tries = 500)
    void changesThatAreNoticedLateLoseAndRepeatNothing(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap tempo = TempoMap.of(120);
        MidiTrack.Builder builder = new MidiTrack.Builder();
        for (int i = 0; i < 16; i++) {
            builder.add(i * 120L, ShortMessage.noteOn(0, 40 + i, 80))
                    .add(i * 120L + 100, ShortMessage.noteOff(0, 40 + i, 64));
        }
        MidiTrack clip = builder.build(1920);
        long from = random.nextInt(8) * 120L;
        PlaybackTimebase.Loop loop = new PlaybackTimebase.Loop(from, from + 120L * (1 + random.nextInt(8)));
        PlaybackTimebase course = new PlaybackTimebase(tempo, tempo.nanos(from), 0, loop);
        List<Integer> heard = new ArrayList<>();
        PlaybackPlan.Out out = message -> {
            if (ShortMessage.startsNote(message)) {
                heard.add(ShortMessage.data1(message));
            }
        };
        List<PlaybackPlan.PlannedTrack> lanes = List.of(new PlaybackPlan.PlannedTrack("track-0", out));
        PlaybackState playing = new PlaybackState(new PlaybackPlan(course, timeline(tempo, clip), lanes), 0);
        long now = 0;
        for (int i = 0; i < 40; i++) {
            now += random.nextInt(200_000_000);
            if (random.nextInt(4) > 0) {
                playUntil(playing, now);
            }
            if (random.nextBoolean()) {
                long changed = now - random.nextInt(2) * random.nextInt(20_000_000);
                tempo = TempoMap.of(60 + random.nextInt(120));
                course = course.withTempo(tempo, Math.max(changed, course.at()));
            }
            playing.change(new PlaybackPlan(course, timeline(tempo, clip), lanes), now);
        }
        // By then it has caught up.
        now += 1_000_000_000;
        playUntil(playing, now);
        List<Integer> wanted = new ArrayList<>();
        int notes = (int) ((loop.to() - loop.from()) / 120);
        for (int i = 0; i < heard.size(); i++) {
            wanted.add(40 + (int) (from / 120) + i % notes);
        }
        assertThat(heard).isEqualTo(wanted);
        int inPass = 0;
        while (inPass < notes && course.tempo().nanos(from + inPass * 120L) <= course.position(now)) {
            inPass++;
        }
        assertThat(heard.size() % notes).isEqualTo(inPass % notes);
    }

    @Test
    void playingFromTheBeginningPutsBackWhatAFadeLeft() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(100, ShortMessage.controller(0, 7, 10))
                .add(100, ShortMessage.controller(0, 11, 20))
                .add(100, ShortMessage.controller(0, 64, 127))
                .build(LENGTH);
        TempoMap tempo = TempoMap.of(120);
        Receiver receiver = new Receiver();
        receiver.play(ShortMessage.controller(0, 7, 10));
        receiver.play(ShortMessage.controller(0, 11, 20));
        receiver.heard.clear();
        new PlaybackState(program(PlaybackTimebase.of(tempo, 0, 0), timeline(tempo, clip), receiver), 0);
        // The part's own volume; a pedal is always up where nobody holds it.
        assertThat(receiver.heard)
                .containsExactlyInAnyOrder(ShortMessage.controller(0, 7, 90), ShortMessage.controller(0, 11, 127));
    }

    @Test
    void systemExclusiveOfATrackIsPlayedWhole() {
        MidiTrack clip = new MidiTrack.Builder()
                .exclusive(100, 0xF0, new byte[] {0x7D, 1, (byte) 0xF7})
                .exclusive(200, 0xF7, new byte[] {1, 2})
                .build(LENGTH);
        TempoMap tempo = TempoMap.of(120);
        Receiver receiver = new Receiver();
        PlaybackState playing =
                new PlaybackState(program(PlaybackTimebase.of(tempo, 0, 0), timeline(tempo, clip), receiver), 0);
        playUntil(playing, Long.MAX_VALUE);
        assertThat(receiver.exclusives).hasSize(1);
        assertThat(receiver.exclusives.get(0)).containsExactly(0xF0, 0x7D, 1, 0xF7);
        assertThat(playing.isOver()).isTrue();
    }

    @Property(tries = 200)
    void aCourseIsWhereItSays(@ForAll long seed) {
        Random random = new Random(seed);
        TempoMap tempo = new TempoMap(
                List.of(new TempoMap.Tempo(0, 90), new TempoMap.Tempo(960, 61.3)),
                List.of(new TempoMap.Meter(0, 4, 4)));
        PlaybackTimebase.Loop loop =
                random.nextBoolean() ? new PlaybackTimebase.Loop(480, 480 + 1 + random.nextInt(3000)) : null;
        PlaybackTimebase course = new PlaybackTimebase(tempo, tempo.nanos(random.nextInt(480)), 5_000, loop);
        long now = 5_000 + (long) (random.nextDouble() * 60e9);
        long position = course.position(now);
        assertThat(course.time(position, course.pass(now))).isEqualTo(now);
        assertThat(Objects.isNull(loop) || position < course.loopTo()).isTrue();
        long tick = tempo.tickAtOrBefore(position);
        // The other tempo holds from the last whole tick on.
        PlaybackTimebase other = course.withTempo(TempoMap.of(200), now);
        long sinceTick = position - tempo.nanos(tick);
        long goesOn = other.tempo().nanos(tick) + sinceTick;
        assertThat(other.position(now)).isEqualTo(loop == null ? goesOn : Math.min(goesOn, other.loopTo() - 1));
        assertThat(course.leadsOn(other)).isTrue();
    }
}
