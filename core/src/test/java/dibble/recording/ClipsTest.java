package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Clips cut and brought together hang nothing, whatever is on them. */
class ClipsTest {
    private static final int LENGTH = 1000;

    /** Notes that alternate, pedals and bends, in rising ticks. */
    private static MidiTrack random(Random random) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        boolean[] on = new boolean[4];
        for (int tick = 0; tick < LENGTH; tick += random.nextInt(40)) {
            int note = random.nextInt(4);
            switch (random.nextInt(4)) {
                case 0 -> clip.add(tick, ShortMessage.controller(2, 64, random.nextInt(128)));
                case 1 -> clip.add(tick, ShortMessage.of(ShortMessage.PITCH_BEND, 2, 0, random.nextInt(128)));
                default -> {
                    on[note] = !on[note];
                    clip.add(
                            tick,
                            on[note]
                                    ? ShortMessage.noteOn(2, 60 + note, 1 + random.nextInt(126))
                                    : ShortMessage.noteOff(2, 60 + note, 64));
                }
            }
        }
        for (int note = 0; note < 4; note++) {
            if (on[note]) {
                clip.add(LENGTH, ShortMessage.noteOff(2, 60 + note, 64));
            }
        }
        return clip.build(LENGTH);
    }

    private static List<String> notes(MidiTrack clip) {
        List<String> notes = new ArrayList<>();
        long[] since = new long[128];
        java.util.Arrays.fill(since, -1);
        for (int i = 0; i < clip.size(); i++) {
            int message = clip.message(i);
            int note = ShortMessage.data1(message);
            if (clip.isChannelMessage(i) && ShortMessage.startsNote(message)) {
                assertThat(since[note]).as("on in on").isEqualTo(-1);
                since[note] = clip.tick(i);
            } else if (clip.isChannelMessage(i) && ShortMessage.endsNote(message)) {
                assertThat(since[note]).as("off with no on").isNotEqualTo(-1);
                notes.add(note + ": " + since[note] + "-" + clip.tick(i));
                since[note] = -1;
            }
        }
        assertThat(since).as("left on").containsOnly(-1);
        return notes;
    }

    @Property(tries = 300)
    void whatIsCutOutLeavesAllAroundItAndNothingHanging(@ForAll long seed) {
        Random random = new Random(seed);
        MidiTrack clip = random(random);
        int from = random.nextInt(LENGTH);
        int to = from + 1 + random.nextInt(LENGTH - from);
        MidiTrack without =
                Clips.within(clip, List.of(new Clips.Stretch(0, from), new Clips.Stretch(to, Long.MAX_VALUE)));
        List<String> expected = notes(clip).stream()
                .map(note -> {
                    int start = Integer.parseInt(note.replaceAll(".*: (\\d+)-.*", "$1"));
                    int end = Integer.parseInt(note.replaceAll(".*-", ""));
                    String name = note.substring(0, note.indexOf(':'));
                    return start >= from && start < to
                            ? null
                            : start < from && end > from ? name + ": " + start + "-" + from : note;
                })
                .filter(java.util.Objects::nonNull)
                .toList();
        assertThat(notes(without)).containsExactlyInAnyOrderElementsOf(expected);
        // After it, pedals and bend have their previous values.
        assertThat(Chase.before(without, LENGTH + 1).messages())
                .containsExactlyInAnyOrderElementsOf(
                        Chase.before(clip, LENGTH + 1).messages());
        // Within it they are at rest.
        assertThat(Chase.before(without, from + 1).messages().stream()
                        .filter(message -> to > from + 1)
                        .filter(message -> !NeutralValues.isAtRest(message)))
                .isEmpty();
    }

    @Property(tries = 100)
    void twoClipsOverEachOtherHaveTheNotesOfBoth(@ForAll long seed) {
        Random random = new Random(seed);
        MidiTrack first = random(random);
        MidiTrack.Builder moved = new MidiTrack.Builder();
        MidiTrack other = random(random);
        for (int i = 0; i < other.size(); i++) {
            int message = other.message(i);
            moved.add(
                    other.tick(i),
                    ShortMessage.isNote(message)
                            ? ShortMessage.of(
                                    ShortMessage.kind(message),
                                    2,
                                    ShortMessage.data1(message) + 12,
                                    ShortMessage.data2(message))
                            : message);
        }
        MidiTrack second = moved.build();
        List<String> both = new ArrayList<>(notes(first));
        both.addAll(notes(second));
        assertThat(notes(Clips.over(first, second))).containsExactlyInAnyOrderElementsOf(both);
        // A pedal that both hold down comes up once, with the last; all else is there.
        assertThat(others(Clips.over(first, second), 64)).isEqualTo(others(first, 64) + others(second, 64));
        assertThat(Chase.before(Clips.over(first, second), LENGTH + 1).messages().stream()
                        .filter(message -> ShortMessage.data1(message) == 64 && !NeutralValues.isAtRest(message)))
                .hasSameSizeAs(Stream.of(first, second)
                        .flatMap(clip -> Chase.before(clip, LENGTH + 1).messages().stream())
                        .filter(message -> ShortMessage.kind(message) == ShortMessage.CONTROLLER)
                        .filter(message -> !NeutralValues.isAtRest(message))
                        .limit(1)
                        .toList());
    }

    private static long others(MidiTrack clip, int controller) {
        return IntStream.range(0, clip.size())
                .filter(i -> ShortMessage.kind(clip.message(i)) != ShortMessage.CONTROLLER
                        || ShortMessage.data1(clip.message(i)) != controller)
                .count();
    }

    @Test
    void aNoteThatBeginsWhileTheOtherClipSoundsItEndsThatAndKeepsItsOwnLength() {
        MidiTrack one = new MidiTrack.Builder()
                .add(10, ShortMessage.noteOn(0, 60, 80))
                .add(14, ShortMessage.noteOff(0, 60, 64))
                .build();
        MidiTrack two = new MidiTrack.Builder()
                .add(12, ShortMessage.noteOn(0, 60, 90))
                .add(16, ShortMessage.noteOff(0, 60, 30))
                .build();
        ClipIndex notes = ClipIndex.of(Clips.over(one, two));
        assertThat(notes.noteCount()).isEqualTo(2);
        assertThat(notes.end(0)).isEqualTo(12);
        assertThat(notes.end(1)).isEqualTo(16);
        assertThat(notes.releaseVelocity(1)).isEqualTo(30);
    }

    /** As live: the last one that holds a key ends its note. */
    @Test
    void aNoteLastsUntilBothClipsHaveReleasedItsKey() {
        MidiTrack longer = new MidiTrack.Builder()
                .add(10, ShortMessage.noteOn(0, 60, 80))
                .add(30, ShortMessage.noteOff(0, 60, 20))
                .build();
        MidiTrack shorter = new MidiTrack.Builder()
                .add(12, ShortMessage.noteOn(0, 60, 90))
                .add(16, ShortMessage.noteOff(0, 60, 30))
                .build();
        ClipIndex notes = ClipIndex.of(Clips.over(longer, shorter));
        assertThat(notes.noteCount()).isEqualTo(2);
        assertThat(notes.end(0)).isEqualTo(12);
        assertThat(notes.end(1)).isEqualTo(30);
        assertThat(notes.releaseVelocity(1)).isEqualTo(20);
    }

    @Test
    void mergedEventsKeepTheirDestinations() {
        MidiTrack one = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80), "sorrel")
                .add(20, ShortMessage.noteOff(0, 60, 64), "sorrel")
                .build();
        MidiTrack two = new MidiTrack.Builder()
                .add(10, ShortMessage.noteOn(0, 50, 80), "yarrow")
                .add(30, ShortMessage.noteOff(0, 50, 64), "yarrow")
                .build();
        var parts = Clips.byDestination(Clips.over(one, two));
        assertThat(parts.keySet()).containsExactly("sorrel", "yarrow");
        assertThat(notes(parts.get("sorrel"))).containsExactly("60: 0-20");
        assertThat(notes(parts.get("yarrow"))).containsExactly("50: 10-30");
    }

    @Property(tries = 100)
    void destinationsSurviveAFile(@ForAll long seed) {
        Random random = new Random(seed);
        MidiTrack events = random(random);
        String[] names = {"", "sorrel", "yarrow", "sorrel/celesta", "yarrow/harp", "sorrel/kalimba"};
        MidiTrack.Builder named = new MidiTrack.Builder();
        for (int i = 0; i < events.size(); i++) {
            named.copyTo(names[random.nextInt(names.length)], events, i);
        }
        MidiTrack clip = named.build(events.endTick());
        MidiTrack read = Clips.readDeviceNames(Clips.writeDeviceNames(clip));
        assertThat(read).isEqualTo(clip);
        for (int i = 0; i < clip.size(); i++) {
            assertThat(read.destination(i)).isEqualTo(clip.destination(i));
        }
    }

    /** An earlier version lost the names of notes that were moved before all others. */
    @Test
    void eventsBeforeTheFirstDeviceNameAreForThatDevice() {
        MidiTrack track = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .text(5, MidiTrack.META_DEVICE, "sorrel")
                .add(10, ShortMessage.noteOff(0, 60, 64))
                .build();
        MidiTrack read = Clips.readDeviceNames(track);
        assertThat(read.size()).isEqualTo(2);
        assertThat(read.destination(0)).isEqualTo("sorrel");
        assertThat(read.destination(1)).isEqualTo("sorrel");
    }

    /** Two instruments on one channel are two: cutting one leaves the other. */
    @Property(tries = 100)
    void destinationsAreCutIndependently(@ForAll long seed) {
        Random random = new Random(seed);
        MidiTrack one = random(random);
        MidiTrack two = random(random);
        MidiTrack both = Clips.over(Clips.withDestination(one, "sorrel"), Clips.withDestination(two, "yarrow"));
        int from = random.nextInt(LENGTH);
        List<Clips.Stretch> stretches =
                List.of(new Clips.Stretch(0, from), new Clips.Stretch(from + random.nextInt(200) + 1L, Long.MAX_VALUE));
        var parts = Clips.byDestination(Clips.within(both, stretches));
        assertThat(notes(parts.getOrDefault("sorrel", Track.NOTHING))).isEqualTo(notes(Clips.within(one, stretches)));
        assertThat(notes(parts.getOrDefault("yarrow", Track.NOTHING))).isEqualTo(notes(Clips.within(two, stretches)));
    }

    @Test
    void whatIsCutAtTheOffOfANoteKeepsItsReleaseVelocity() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(10, ShortMessage.noteOn(0, 60, 80))
                .add(20, ShortMessage.noteOff(0, 60, 33))
                .add(20, ShortMessage.noteOn(0, 62, 80))
                .add(30, ShortMessage.noteOff(0, 62, 64))
                .build();
        MidiTrack cut = Clips.within(clip, List.of(new Clips.Stretch(0, 20)));
        assertThat(cut.size()).isEqualTo(2);
        assertThat(ClipIndex.of(cut).releaseVelocity(0)).isEqualTo(33);
    }

    @Test
    void timesOfSpansAreWhatTheirReaderMakesOfThem() {
        EventStore log = new EventStore();
        log.add(10, 0, ShortMessage.noteOn(0, 60, 80));
        log.add(20, 1, ShortMessage.noteOn(0, 60, 80));
        log.add(30, 0, ShortMessage.noteOff(0, 60, 64));
        NoteSpans spans = new NoteSpans(log, 0, nanos -> nanos * 3);
        spans.update();
        assertThat(spans.size()).isEqualTo(1);
        assertThat(spans.start(0)).isEqualTo(30);
        assertThat(spans.end(0)).isEqualTo(90);
        log.add(40, 0, ShortMessage.noteOn(0, 64, 80));
        spans.update();
        assertThat(spans.end(1)).isEqualTo(NoteSpans.OPEN);
    }
}
