package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** Regions against a plain model: for each print the cells of 100 ticks in which it sounds. */
class RegionsModelTest {
    private static final long CELL = 100;
    private static final int CELLS = 60;

    /** A print and the cells that it still has. */
    private record Layer(String take, PrintMode onto, BitSet cells, MidiTrack print) {
        List<Clips.Stretch> stretches() {
            List<Clips.Stretch> stretches = new ArrayList<>();
            for (int from = cells.nextSetBit(0); from >= 0; ) {
                int to = cells.nextClearBit(from);
                stretches.add(new Clips.Stretch(from * CELL, to * CELL));
                from = cells.nextSetBit(to);
            }
            return stretches;
        }
    }

    /** The layers of a track, the lowest first, and every take that was ever printed onto it. */
    private static final class Model {
        final List<Layer> layers = new ArrayList<>();
        final Set<String> known = new TreeSet<>();

        void with(Region next) {
            int from = (int) (next.from() / CELL);
            int to = next.printed() == PrintMode.REPLACE_ALL ? CELLS * 2 : (int) (next.to() / CELL);
            if (next.printed() != PrintMode.OVERDUB) {
                layers.forEach(layer -> layer.cells.clear(from, to));
                layers.removeIf(layer -> layer.cells.isEmpty());
            }
            layers.add(layer(next));
            known.add(next.take());
        }

        void below(Set<String> later, Region next) {
            Layer added = layer(next);
            int place = layers.size();
            for (int i = layers.size() - 1; i >= 0; i--) {
                if (later.contains(layers.get(i).take)) {
                    place = i;
                    if (layers.get(i).onto != PrintMode.OVERDUB) {
                        added.cells.andNot(layers.get(i).cells);
                    }
                }
            }
            if (!added.cells.isEmpty()) {
                layers.add(place, added);
                known.add(next.take());
            }
        }

        private static Layer layer(Region region) {
            BitSet cells = new BitSet();
            cells.set((int) (region.from() / CELL), (int) (region.to() / CELL));
            return new Layer(region.take(), region.printed(), cells, region.print());
        }

        MidiTrack clip() {
            MidiTrack clip = Track.NOTHING;
            for (Layer layer : layers) {
                clip = Clips.over(clip, Clips.within(layer.print, layer.stretches()));
            }
            return clip;
        }
    }

    private static MidiTrack print(Random random, long from, long to, int lowest) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (long tick = from; tick + 60 < to; tick += 70) {
            int key = lowest + random.nextInt(12);
            clip.add(tick, ShortMessage.noteOn(0, key, 1 + random.nextInt(127)));
            clip.add(tick + 20 + random.nextInt(40), ShortMessage.noteOff(0, key, 64));
        }
        return clip.build(to);
    }

    private static Region region(Random random, String take) {
        long from = random.nextInt(CELLS / 2) * CELL;
        long to = from + (1 + random.nextInt(CELLS / 2)) * CELL;
        PrintMode onto = PrintMode.values()[random.nextInt(PrintMode.values().length)];
        return new Region(take, from, to, onto, false, print(random, from, to, 50));
    }

    private static Set<String> cells(Regions regions, String take) {
        Set<String> cells = new TreeSet<>();
        for (Region region : regions.of(take)) {
            for (long at = region.from(); at < region.to(); at += CELL) {
                assertThat(cells.add(take + " " + at))
                        .as("a cell that two regions of one print have")
                        .isTrue();
            }
        }
        return cells;
    }

    private static Set<String> cells(Layer layer) {
        return layer.cells.stream()
                .mapToObj(cell -> layer.take + " " + cell * CELL)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private static void assertSame(Regions regions, Model model) {
        assertThat(regions.prints()).hasSameSizeAs(model.layers);
        for (int i = 0; i < model.layers.size(); i++) {
            Layer layer = model.layers.get(i);
            assertThat(regions.prints().get(i)).isSameAs(layer.print);
            assertThat(cells(regions, layer.take)).isEqualTo(cells(layer));
            for (Region region : regions.of(layer.take)) {
                assertThat(regions.printNumber(region)).isEqualTo(i);
                assertThat(region.printed()).isEqualTo(layer.onto);
            }
        }
        assertThat(regions.sounding()).isEqualTo(model.clip());
        assertThat(regions.isEmpty()).isEqualTo(model.known.isEmpty());
        for (int i = 0; i < 8; i++) {
            String take = "take-" + i;
            assertThat(regions.knows(take)).as(take).isEqualTo(model.known.contains(take));
            boolean sounds = model.layers.stream().anyMatch(layer -> layer.take.equals(take));
            assertThat(regions.of(take).isEmpty()).as(take).isEqualTo(!sounds);
        }
    }

    @Property(tries = 200)
    void takesReplaceEachOtherAsTheModelDoes(@ForAll long seed) {
        Random random = new Random(seed);
        Regions regions = Regions.NONE;
        Model model = new Model();
        assertSame(regions, model);
        for (int i = 0; i < 6; i++) {
            Region next = region(random, "take-" + i);
            regions = regions.with(next);
            model.with(next);
            assertSame(regions, model);
        }
    }

    /** A take that is routed onto a track afterwards lies below those that were recorded after it. */
    @Property(tries = 200)
    void aTakeGoesBelowLaterOnesAsTheModelDoes(@ForAll long seed) {
        Random random = new Random(seed);
        Regions regions = Regions.NONE;
        Model model = new Model();
        for (int i = 0; i < 7; i++) {
            if (i != 2) {
                Region next = region(random, "take-" + i);
                regions = regions.with(next);
                model.with(next);
            }
        }
        Set<String> later = Set.of("take-3", "take-4", "take-5", "take-6");
        Region late = region(random, "take-2");
        regions = regions.below(later, late);
        model.below(later, late);
        assertSame(regions, model);
    }

    /** The stretches of a clip may come in any order, overlap, and be gone. */
    @Property(tries = 200)
    void everyCellOfAClipIsOfTheFirstStretchThatHasIt(@ForAll long seed) {
        Random random = new Random(seed);
        MidiTrack clip = print(random, 0, CELLS * CELL, 50);
        List<Region> stretches = new ArrayList<>();
        for (int i = 0; i < random.nextInt(6); i++) {
            Region stretch = region(random, "take-" + i);
            stretches.add(
                    random.nextInt(4) == 0 ? Region.gone("take-" + i, stretch.from(), stretch.printed()) : stretch);
        }
        List<Region> inOrder = stretches.stream()
                .filter(stretch -> !stretch.isGone())
                .sorted((a, b) -> Long.compare(a.from(), b.from()))
                .toList();
        Regions regions = Regions.of(clip, stretches);
        for (int cell = 0; cell < CELLS; cell++) {
            long at = cell * CELL;
            String expected = inOrder.stream()
                    .filter(stretch -> stretch.from() <= at && at < stretch.to())
                    .findFirst()
                    .map(Region::take)
                    .orElse(null);
            List<Region> there = regions.all().stream()
                    .filter(region -> region.from() <= at && at < region.to())
                    .toList();
            assertThat(there).as("regions at " + at).hasSize(1);
            assertThat(there.get(0).take()).isEqualTo(expected);
            assertThat(there.get(0).print()).isSameAs(clip);
        }
        for (Region stretch : stretches) {
            assertThat(!stretch.isGone() || regions.knows(stretch.take())).isTrue();
        }
        assertThat(regions.sounding()).isEqualTo(clip);
    }

    /** Printing one take again leaves every note outside its stretches as it was, muted ones included. */
    @Property(tries = 200)
    void printingAgainChangesNothingOutside(@ForAll long seed) {
        Random random = new Random(seed);
        Regions regions = Regions.NONE;
        for (int i = 0; i < 5; i++) {
            regions = regions.with(region(random, "take-" + i));
        }
        ManualEdits untouched = regions.editable();
        BitSet muted = new BitSet();
        for (int note = 0; note < untouched.index().noteCount(); note++) {
            muted.set(note, random.nextInt(4) == 0);
        }
        Regions edited = drawnBehind(
                regions.edited(new ManualEdits(untouched.whole(), untouched.origins(), muted)),
                regions.printed().endTick() + random.nextInt(2) * 500L);
        String take = "take-" + random.nextInt(5);
        List<Region> stretches = edited.of(take);
        if (stretches.isEmpty()) {
            return;
        }
        // Other keys: none of its notes is one that was there.
        MidiTrack other = print(random, 0, CELLS * CELL, 80);
        Regions again = edited.reprinted(take, other);
        long end = edited.printed().endTick();
        assertThat(notes(again.sounding(), stretches, end, false))
                .isEqualTo(notes(edited.sounding(), stretches, end, false));
        Set<String> sounding = notes(again.sounding(), stretches, end, true);
        Set<String> printed = notes(again.printed(), stretches, end, true);
        // Notes of other takes within the stretches may stay muted; of the new print every note sounds.
        sounding.removeIf(RegionsModelTest::isOfAnotherPrint);
        printed.removeIf(RegionsModelTest::isOfAnotherPrint);
        assertThat(sounding).isEqualTo(printed);
        assertThat(again.reprinted(take, other)).isEqualTo(again);
    }

    /** Draws a note where the track ends, or behind. */
    private static Regions drawnBehind(Regions regions, long at) {
        ManualEdits before = regions.editable();
        MidiTrack note = new MidiTrack.Builder()
                .add(at, ShortMessage.noteOn(0, 100, 80))
                .add(at + 50, ShortMessage.noteOff(0, 100, 64))
                .build();
        int[] from = new int[before.index().noteCount() + 1];
        Arrays.setAll(from, number -> number);
        from[from.length - 1] = ClipIndex.NONE;
        return regions.edited(before.after(Clips.over(before.whole(), note), from, null));
    }

    /** Without some takes a track sounds as if these had only made way for others. */
    @Property(tries = 200)
    void theOthersSoundWhereTheyDid(@ForAll long seed) {
        Random random = new Random(seed);
        Regions regions = Regions.NONE;
        Model model = new Model();
        for (int i = 0; i < 6; i++) {
            Region next = region(random, "take-" + i);
            regions = regions.with(next);
            model.with(next);
        }
        List<String> takes = List.of("take-1", "take-3", "take-4");
        model.layers.removeIf(layer -> takes.contains(layer.take));
        assertThat(regions.clipOfOthersThan(takes)).isEqualTo(model.clip());
    }

    private static boolean isOfAnotherPrint(String note) {
        return Integer.parseInt(note.split(" ")[1]) < 80;
    }

    /** The notes that begin within the stretches, of which the last goes on behind the end of the track; or all others. */
    private static Set<String> notes(MidiTrack clip, List<Region> stretches, long end, boolean within) {
        ClipIndex index = ClipIndex.of(clip);
        long lastEnd = stretches.stream().mapToLong(Region::to).max().orElseThrow();
        Set<String> notes = new TreeSet<>();
        for (int note = 0; note < index.noteCount(); note++) {
            long start = index.start(note);
            boolean isWithin = stretches.stream().anyMatch(stretch -> stretch.from() <= start && start < stretch.to())
                    || lastEnd >= end && start >= lastEnd;
            if (isWithin == within) {
                notes.add(start + " " + index.key(note) + " " + clip.message(index.on(note)));
            }
        }
        return notes;
    }

    /** Another rate moves every region with its notes, and back again. */
    @Property(tries = 100)
    void retimedThereAndBackIsTheSame(@ForAll long seed) {
        Random random = new Random(seed);
        Regions regions = Regions.NONE;
        for (int i = 0; i < 5; i++) {
            regions = regions.with(region(random, "take-" + i));
        }
        Regions twice = regions.retimed(tick -> tick * 2);
        assertThat(twice.all()).hasSameSizeAs(regions.all());
        for (int i = 0; i < twice.all().size(); i++) {
            Region before = regions.all().get(i);
            Region after = twice.all().get(i);
            assertThat(after.from()).isEqualTo(2 * before.from());
            assertThat(after.to()).isEqualTo(2 * before.to());
            assertThat(after.isGone()).isEqualTo(before.isGone());
        }
        assertThat(twice.prints()).hasSameSizeAs(regions.prints());
        assertThat(twice.retimed(tick -> tick / 2)).isEqualTo(regions);
        assertThat(twice.retimed(tick -> tick / 2).hashCode()).isEqualTo(regions.hashCode());
        assertThat(twice.equals(regions)).isFalse();
    }
}
