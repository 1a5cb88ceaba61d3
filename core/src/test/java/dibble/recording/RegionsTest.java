package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** The content of a track depends on its regions only, not on their order of arrival. */
class RegionsTest {
    private static MidiTrack print(Random random, long from, long to) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        long tick = from;
        while (tick + 60 < to) {
            int key = 50 + random.nextInt(12);
            clip.add(tick, ShortMessage.noteOn(0, key, 1 + random.nextInt(127)));
            if (random.nextInt(3) == 0) {
                clip.add(tick + 10, ShortMessage.controller(0, random.nextBoolean() ? 64 : 1, random.nextInt(128)));
            }
            tick += 20 + random.nextInt(40);
            clip.add(tick, ShortMessage.noteOff(0, key, random.nextInt(128)));
        }
        clip.add(to, ShortMessage.controller(0, 64, 0));
        clip.add(to, ShortMessage.controller(0, 1, 0));
        return clip.build(to);
    }

    static Regions random(Random random, int count) {
        Regions regions = Regions.NONE;
        for (int i = 0; i < count; i++) {
            long from = random.nextInt(20) * 100L;
            long to = from + 200 + random.nextInt(15) * 100L;
            PrintMode onto = PrintMode.values()[random.nextInt(3)];
            regions = regions.with(new Region("take-" + i, from, to, onto, false, print(random, from, to)));
        }
        return regions;
    }

    private static MidiTrack copy(MidiTrack track) {
        MidiTrack.Builder copy = new MidiTrack.Builder();
        for (int i = 0; i < track.size(); i++) {
            copy.copy(track, i);
        }
        return copy.build(track.endTick());
    }

    @Property(tries = 300)
    void printingAnyTakeAgainWithTheSameOutcomeChangesNothing(@ForAll long seed) {
        Random random = new Random(seed);
        Regions regions = random(random, 6);
        MidiTrack before = regions.sounding();
        for (int i = 0; i < 6; i++) {
            String take = "take-" + i;
            List<Region> stretches = regions.of(take);
            if (!stretches.isEmpty()) {
                // Through another print, so that the content is rebuilt.
                Regions other = regions.reprinted(take, Track.NOTHING);
                assertThat(other.of(take)).hasSameSizeAs(stretches);
                Regions again = other.reprinted(take, copy(stretches.get(0).print()));
                assertThat(again.sounding()).isEqualTo(before);
                assertThat(again).isEqualTo(regions);
            }
        }
    }

    @Property(tries = 300)
    void whatIsPutTogetherHangsNothing(@ForAll long seed) {
        MidiTrack clip = random(new Random(seed), 6).sounding();
        ClipIndex notes = ClipIndex.of(clip);
        int offs = 0;
        for (int i = 0; i < clip.size(); i++) {
            offs += ShortMessage.endsNote(clip.message(i)) ? 1 : 0;
        }
        for (int note = 0; note < notes.noteCount(); note++) {
            assertThat(notes.off(note)).isNotEqualTo(ClipIndex.NONE);
        }
        assertThat(offs).isEqualTo(notes.noteCount());
        assertThat(Chase.before(clip, Long.MAX_VALUE).messages()).allMatch(dibble.midi.NeutralValues::isAtRest);
    }

    @Test
    void aTakeWithinAnotherLeavesWhatIsBeforeAndBehindIt() {
        Random random = new Random(1);
        MidiTrack first = print(random, 0, 1600);
        MidiTrack punch = print(random, 400, 600);
        Regions regions = Regions.NONE
                .with(new Region("take-1", 0, 1600, PrintMode.REPLACE_ALL, false, first))
                .with(new Region("take-2", 400, 600, PrintMode.REPLACE_RANGE, false, punch));
        assertThat(regions.toString()).isEqualTo("take-1 0-400, take-1 600-1600, take-2 400-600");
        Regions chosen = regions.reprinted("take-2", print(random, 400, 600));
        assertThat(notesFrom(chosen.sounding(), 600)).isEqualTo(notesFrom(first, 600));
        Regions routed = regions.reprinted("take-1", print(random, 0, 1600));
        assertThat(routed.of("take-2")).isEqualTo(regions.of("take-2"));
    }

    private static long notesFrom(MidiTrack clip, long from) {
        ClipIndex notes = ClipIndex.of(clip);
        long count = 0;
        for (int note = 0; note < notes.noteCount(); note++) {
            count += notes.start(note) >= from ? notes.start(note) * 131 + notes.key(note) : 0;
        }
        return count;
    }

    @Test
    void whatIsKnownOfAnEarlierClipIsARegionAndTheRestIsOfNoTake() {
        MidiTrack clip = print(new Random(2), 0, 1600);
        Regions regions = Regions.of(
                clip, List.of(new Region("take-2", 400, 600, PrintMode.REPLACE_RANGE, false, Track.NOTHING)));
        assertThat(regions.sounding()).isSameAs(clip);
        assertThat(regions.toString()).isEqualTo("null 0-400, take-2 400-600, null 600-1600");
    }

    @Test
    void aTakeThatIsRoutedOntoAnotherTrackLiesBelowThoseThatReplacedIt() {
        Random random = new Random(3);
        Regions regions = Regions.NONE
                .with(new Region("take-1", 0, 1600, PrintMode.REPLACE_ALL, false, print(random, 0, 1600)))
                .with(new Region("take-3", 400, 600, PrintMode.REPLACE_RANGE, false, print(random, 400, 600)));
        Regions routed = regions.below(
                java.util.Set.of("take-3"),
                new Region("take-2", 0, 1000, PrintMode.OVERDUB, false, print(random, 0, 1000)));
        assertThat(routed.toString())
                .isEqualTo("take-1 0-400, take-1 600-1600, take-2 0-400, take-2 600-1000, take-3 400-600");
    }

    /** Coarser ticks can bring notes of two prints to one tick, where the order of the prints counts. */
    @Test
    void notesKeepTheirOriginsWhereTicksBecomeOne() {
        MidiTrack first = new MidiTrack.Builder()
                .add(6, ShortMessage.noteOn(0, 60, 80))
                .add(20, ShortMessage.noteOff(0, 60, 64))
                .build();
        MidiTrack second = new MidiTrack.Builder()
                .add(5, ShortMessage.noteOn(0, 62, 80))
                .add(20, ShortMessage.noteOff(0, 62, 64))
                .build();
        Regions regions = Regions.NONE
                .with(new Region("take-1", 0, 100, PrintMode.REPLACE_ALL, false, first))
                .with(new Region("take-2", 0, 100, PrintMode.OVERDUB, false, second));
        ManualEdits untouched = regions.editable();
        BitSet muted = new BitSet();
        muted.set(0);
        Regions retimed = regions.edited(new ManualEdits(untouched.whole(), untouched.origins(), muted))
                .retimed(tick -> tick / 4);
        ManualEdits edits = retimed.byHand().orElseThrow();
        ClipIndex printed = ClipIndex.of(retimed.printed());
        for (int note = 0; note < 2; note++) {
            assertThat(printed.key(edits.origins().played(note)))
                    .isEqualTo(edits.index().key(note));
        }
        assertThat(edits.index().key(edits.muted().nextSetBit(0))).isEqualTo(62);
    }
}
