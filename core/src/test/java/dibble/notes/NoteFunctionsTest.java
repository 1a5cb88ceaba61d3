package dibble.notes;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Invariants of every function, on clips as irregular as those of files. */
class NoteFunctionsTest {
    private static final TempoMap TEMPO = TempoMap.of(100);
    private static final Grid GRID = Grid.of(Grid.Step.parse("1/16"), TEMPO, 0);

    private record Named(String name, NoteFunction function) {
        @Override
        public String toString() {
            return name;
        }
    }

    static Stream<Named> functions() {
        Stream<Named> changes = Stream.of(NoteChange.values())
                .map(change -> new Named(change.word(), change.with(change.usual(), 960, 3840)));
        Stream<Named> others = Stream.of(
                new Named("quantize starts", Quantize.starts(GRID)),
                new Named("quantize ends", new Quantize(GRID, Quantize.What.ENDS, 70, 0, 9999, 0)),
                new Named("quantize both", new Quantize(GRID, Quantize.What.BOTH, 100, 10, 100, 60)),
                new Named("feel", new Groove(GRID, TEMPO, ClipIndex.of(RandomClips.clip(new Random(5), 60)), 80, 50)),
                new Named("drag", TimeChanges.drag(-333, 2)),
                new Named("drag later", TimeChanges.drag(1000, -1)),
                new Named("to a channel", ManualChanges.onChannel(1)),
                new Named("join", ManualChanges.join()),
                new Named("delete", CleanUp.delete()));
        return Stream.concat(changes, others);
    }

    @ParameterizedTest
    @MethodSource("functions")
    void keepsNotesPairedAndWhatIsNotSelectedAsItWas(Named function) {
        for (int seed = 0; seed < 400; seed++) {
            Random random = new Random(seed);
            MidiTrack clip = RandomClips.clip(random, 1 + random.nextInt(60));
            BitSet selected = RandomClips.selection(random, clip);
            ChangeResult changed = function.function().of(clip, selected);
            String about = function + ", seed " + seed;
            assertPaired(changed.clip(), about);
            assertUnselectedStay(clip, selected, changed, about);
            assertOthersStay(clip, changed.clip(), function.name(), about);
        }
    }

    @ParameterizedTest
    @MethodSource("functions")
    void doesNothingToNothing(Named function) {
        MidiTrack clip = RandomClips.clip(new Random(3), 40);
        assertSame(clip, function.function().of(clip, new BitSet()).clip());
    }

    /** No off without its on, no event out of order or behind the end, nothing that sounds on beyond it. */
    private static void assertPaired(MidiTrack clip, String about) {
        ClipIndex index = ClipIndex.of(clip);
        for (int i = 1; i < clip.size(); i++) {
            assertTrue(clip.tick(i) >= clip.tick(i - 1), about);
        }
        for (int note = 0; note < index.noteCount(); note++) {
            assertTrue(index.end(note) >= index.start(note), about);
            assertTrue(index.end(note) <= clip.endTick(), about);
        }
    }

    private static void assertUnselectedStay(MidiTrack clip, BitSet selected, ChangeResult changed, String about) {
        List<String> before = new ArrayList<>();
        List<String> after = new ArrayList<>();
        ClipIndex was = ClipIndex.of(clip);
        ClipIndex is = ClipIndex.of(changed.clip());
        for (int note = 0; note < was.noteCount(); note++) {
            if (!selected.get(note)) {
                before.add(words(was, note));
            }
        }
        for (int note = 0; note < is.noteCount(); note++) {
            int from = changed.from()[note];
            if (from != ClipIndex.NONE && !selected.get(from)) {
                assertEquals(words(was, from), words(is, note), about);
                after.add(words(is, note));
            }
        }
        before.sort(null);
        after.sort(null);
        assertEquals(before, after, about);
    }

    private static String words(ClipIndex index, int note) {
        return index.destinationName(index.destination(index.on(note))) + " " + index.channel(note) + " "
                + index.key(note)
                + " from " + index.start(note) + " to " + index.end(note) + ", " + index.velocity(note) + " "
                + index.releaseVelocity(note);
    }

    /** Controllers, bend and the like stay at their ticks and in their order, where the function is none for them. */
    private static void assertOthersStay(MidiTrack before, MidiTrack after, String function, String about) {
        if (List.of("thin", "half-time", "double-time", "fit").contains(function)) {
            return;
        }
        assertEquals(others(before), others(after), about);
    }

    private static List<String> others(MidiTrack clip) {
        ClipIndex index = ClipIndex.of(clip);
        return IntStream.range(0, clip.size())
                .filter(i -> clip.isChannelMessage(i)
                        && !ShortMessage.isNote(clip.message(i))
                        && ShortMessage.kind(clip.message(i)) != ShortMessage.KEY_PRESSURE)
                .mapToObj(i -> clip.tick(i) + " " + clip.destination(i) + " " + clip.message(i))
                .toList();
    }

    @Test
    void strengthNoneChangesNothing() {
        for (int seed = 0; seed < 100; seed++) {
            MidiTrack clip = RandomClips.clip(new Random(seed), 50);
            BitSet all = NoteFunction.all(ClipIndex.of(clip));
            for (Quantize.What what : Quantize.What.values()) {
                assertSame(
                        clip,
                        new Quantize(GRID, what, 0, 0, Long.MAX_VALUE, 0)
                                .of(clip, all)
                                .clip(),
                        what + ", seed " + seed);
            }
            Groove none = new Groove(GRID, TEMPO, ClipIndex.of(RandomClips.clip(new Random(9), 40)), 0, 0);
            assertSame(clip, none.of(clip, all).clip(), "feel, seed " + seed);
        }
    }

    @Test
    void allNotesOfAQuantizedClipBeginOnTheGridOrSayThatTheyStayed() {
        for (int seed = 0; seed < 100; seed++) {
            MidiTrack clip = RandomClips.clip(new Random(seed), 50);
            BitSet all = NoteFunction.all(ClipIndex.of(clip));
            ChangeResult changed = Quantize.starts(GRID).of(clip, all);
            ClipIndex index = ClipIndex.of(changed.clip());
            long off = IntStream.range(0, index.noteCount())
                    .filter(note -> GRID.nearest(index.start(note)) != index.start(note))
                    .count();
            // One that has to wait for one that stayed is not on the grid either.
            assertTrue(off <= 2L * changed.effect().stayed(), "seed " + seed + ": " + off + " " + changed.effect());
            assertEquals(all.cardinality(), index.noteCount(), "no note is lost, seed " + seed);
            assertNotEquals(0, changed.effect().moved());
        }
    }

    @Test
    void whatIsDrawnOntoANoteEndsThatAndTakesItsPlaceWhereBothBegin() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 90))
                .add(960, ShortMessage.noteOff(0, 60, 64))
                .add(1920, ShortMessage.noteOn(0, 60, 90))
                .add(2880, ShortMessage.noteOff(0, 60, 64))
                .build(3840);
        ChangeResult changed = ManualChanges.draw(
                        List.of(Note.of(0, 60, 480, 1440, 100), Note.of(0, 60, 1920, 2000, 50)))
                .of(clip, new BitSet());
        ClipIndex index = ClipIndex.of(changed.clip());
        assertEquals(
                List.of(
                        " 0 60 from 0 to 480, 90 64",
                        " 0 60 from 480 to 1440, 100 64",
                        " 0 60 from 1920 to 2000, 50 64"),
                IntStream.range(0, index.noteCount())
                        .mapToObj(note -> words(index, note))
                        .toList());
    }
}
