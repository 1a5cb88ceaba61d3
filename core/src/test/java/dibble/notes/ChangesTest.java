package dibble.notes;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import dibble.recording.NoteOrigins;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The effect of each change on a few notes, written as {@code key start-end velocity}. */
class ChangesTest {
    private static MidiTrack clip(String notes) {
        record Event(long tick, int order, int message) {}
        List<Event> events = new ArrayList<>();
        for (String note : notes.split(", ")) {
            String[] parts = note.split("[ -]");
            int key = Integer.parseInt(parts[0]);
            events.add(new Event(Long.parseLong(parts[1]), 1, ShortMessage.noteOn(0, key, Integer.parseInt(parts[3]))));
            events.add(new Event(Long.parseLong(parts[2]), 0, ShortMessage.noteOff(0, key, 64)));
        }
        events.sort(Comparator.comparingLong(Event::tick).thenComparingInt(Event::order));
        MidiTrack.Builder clip = new MidiTrack.Builder();
        events.forEach(event -> clip.add(event.tick, event.message));
        return clip.build();
    }

    private static String words(MidiTrack clip) {
        ClipIndex index = ClipIndex.of(clip);
        return IntStream.range(0, index.noteCount())
                .mapToObj(note ->
                        index.key(note) + " " + index.start(note) + "-" + index.end(note) + " " + index.velocity(note))
                .collect(Collectors.joining(", "));
    }

    private static String changed(NoteFunction function, String notes) {
        MidiTrack clip = clip(notes);
        return words(function.of(clip, NoteFunction.all(ClipIndex.of(clip))).clip());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "velocity-set=9|60 0-100 50, 62 200-300 90|60 0-100 9, 62 200-300 9",
                "velocity-add=60|60 0-100 50, 62 200-300 90|60 0-100 110, 62 200-300 127",
                "velocity-scale=50|60 0-100 50, 62 200-300 1|60 0-100 25, 62 200-300 1",
                "velocity-limit=60,80|60 0-100 50, 62 200-300 90|60 0-100 60, 62 200-300 80",
                "velocity-even=100|60 0-100 50, 62 200-300 90|60 0-100 70, 62 200-300 70",
                "velocity-slope=10,30|60 0-100 50, 62 200-300 90, 64 400-500 1|60 0-100 10, 62 200-300 20, 64 400-500 30",
                "length-set=50|60 0-100 50, 62 200-900 90|60 0-50 50, 62 200-250 90",
                "length-scale=50|60 0-100 50, 62 200-300 90|60 0-50 50, 62 200-250 90",
                "length-minimum=200|60 0-100 50, 62 200-900 90|60 0-200 50, 62 200-900 90",
                "legato=10|60 0-100 50, 62 200-300 90, 64 200-250 1, 65 400-500 1|60 0-190 50, 62 200-390 90, 64 200-390 1, 65 400-500 1",
                "before-next=10|60 0-300 50, 62 200-250 90, 64 300-500 1|60 0-190 50, 62 200-250 90, 64 300-500 1",
                "transpose=-12|60 0-100 50, 5 200-300 90|48 0-100 50, 5 200-300 90",
                "into-scale=c,major|61 0-100 50, 64 200-300 90, 66 400-500 1|60 0-100 50, 64 200-300 90, 65 400-500 1",
                "shift=-50|60 30-100 50, 62 200-300 90|60 0-70 50, 62 170-270 90",
                "half-time|60 100-200 50, 62 200-300 90|60 100-300 50, 62 300-500 90",
                "double-time|60 100-200 50, 62 200-300 90|60 100-150 50, 62 150-200 90",
                "fit=1|60 0-960 50, 62 960-1920 90|60 0-1920 50, 62 1920-3840 90",
                "reverse|60 0-100 50, 62 200-500 90|62 0-300 90, 60 400-500 50",
                "delete-short=101|60 0-100 50, 62 200-500 90|62 200-500 90",
                "delete-soft=51|60 0-100 50, 62 200-500 90|62 200-500 90",
                "doubles=30|60 0-10 50, 60 20-500 90, 62 25-60 1|60 0-10 50, 62 25-60 1",
                "overlaps=10|60 0-100 50, 60 100-200 90|60 0-90 50, 60 100-200 90",
            })
    void eachDoesWhatItSays(String change, String before, String after) {
        assertThat(changed(NoteChange.parse(change, TempoMap.PPQ, 3840), before))
                .isEqualTo(after);
    }

    @Test
    void varyingIsTheSameForTheSameSeedAndLittle() {
        String notes = "60 0-100 50, 62 200-300 60, 64 400-500 70";
        String once = changed(Velocities.vary(5, 7), notes);
        assertThat(once)
                .isEqualTo(changed(Velocities.vary(5, 7), notes))
                .isNotEqualTo(changed(Velocities.vary(5, 8), notes));
        ClipIndex index = ClipIndex.of(Velocities.vary(5, 7)
                .of(clip(notes), NoteFunction.all(ClipIndex.of(clip(notes))))
                .clip());
        assertThat(index.velocity(0)).isBetween(45, 55);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Half of the way; ends to the grid; a chord goes as its first note does.
                "STARTS, 50, 0, 999, 0|60 100-200 50|60 50-150 50",
                "ENDS, 100, 0, 999, 0|60 100-400 50|60 100-480 50",
                "BOTH, 100, 0, 999, 0|60 100-400 50|60 0-480 50",
                "STARTS, 100, 110, 999, 0|60 100-200 50, 62 600-700 1|60 100-200 50, 62 480-580 1",
                "STARTS, 100, 0, 110, 0|60 100-200 50, 62 600-700 1|60 0-100 50, 62 600-700 1",
                "STARTS, 100, 0, 999, 60|60 100-200 50, 64 130-200 50|60 0-100 50, 64 30-100 50",
                // A note that would be over before it begins lasts to the next place.
                "ENDS, 100, 0, 999, 0|60 0-100 50|60 0-480 50",
            })
    void quantizingGoesAsFarAsItIsTold(String how, String before, String after) {
        String[] parts = how.split(", ");
        Grid grid = Grid.of(Grid.Step.parse("1/8"), TempoMap.of(120), 0);
        Quantize quantize = new Quantize(
                grid,
                Quantize.What.valueOf(parts[0]),
                Integer.parseInt(parts[1]),
                Long.parseLong(parts[2]),
                Long.parseLong(parts[3]),
                Long.parseLong(parts[4]));
        assertThat(changed(quantize, before)).isEqualTo(after);
    }

    /** Selected notes yield to unselected ones, and are never lost. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // It begins when that has ended, ends when that begins, or stays.
                "60 0-100 50, 60 150-300 60|1|-100|60 0-100 50, 60 100-200 60",
                "60 0-100 50, 60 150-300 60|0|100|60 100-150 50, 60 150-300 60",
                "60 0-500 50, 60 600-650 60|1|-300|60 0-500 50, 60 600-650 60",
                "60 0-100 50, 60 300-400 60|0|300|60 0-100 50, 60 300-400 60",
            })
    void aNoteGivesWayToOneThatIsNotSelected(String before, int note, long by, String after) {
        MidiTrack clip = clip(before);
        BitSet selected = new BitSet();
        selected.set(note);
        assertThat(words(TimeChanges.shift(by).of(clip, selected).clip())).isEqualTo(after);
    }

    @Test
    void theFeelOfAnotherTrackIsTakenOver() {
        // The other plays its second eighth late and loud.
        MidiTrack other = clip(
                "40 0-100 60, 40 540-600 100, 40 960-1000 60, 40 1500-1600 100, 40 1920-2000 60, 40 2460-2500 100, 40 2880-2900 60, 40 3420-3500 100");
        Grid grid = Grid.of(Grid.Step.parse("1/8"), TempoMap.of(120), 0);
        Groove feel = new Groove(grid, TempoMap.of(120), ClipIndex.of(other), 100, 100);
        assertThat(changed(feel, "60 10-50 70, 62 470-500 70")).isEqualTo("60 0-40 50, 62 540-570 90");
    }

    @Test
    void originsAreWrittenAndReadAgain() {
        NoteOrigins origins = NoteOrigins.of(
                new int[] {0, 1, 2, NoteOrigins.NONE, 9, 4, 5}, new long[] {0, 0, 0, 0, 0, -3840, -3840});
        assertThat(origins.text()).isEqualTo("0-2 + 9 4-5@-3840");
        assertThat(NoteOrigins.parse(origins.text(), 7, 10)).contains(origins);
        for (String wrong : List.of("0-2", "0-7", "0-2 + 10 4-5", "x", "2-0 + + + +", "0-6 7")) {
            assertThat(NoteOrigins.parse(wrong, 7, 10)).as(wrong).isEmpty();
        }
        assertThat(NoteOrigins.parse("", 0, 10)).contains(NoteOrigins.same(0));
    }
}
