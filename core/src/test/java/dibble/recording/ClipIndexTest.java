package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Notes and lanes of a clip, compared with a simple search. */
class ClipIndexTest {
    private static MidiTrack random(Random random, boolean several) {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        long tick = 0;
        String to = MidiTrack.NO_DESTINATION;
        for (int i = 0; i < 120; i++) {
            tick += random.nextInt(4);
            int channel = random.nextInt(2);
            int key = 60 + random.nextInt(3);
            switch (random.nextInt(several ? 9 : 8)) {
                case 0, 1, 2 -> clip.add(tick, ShortMessage.noteOn(channel, key, 1 + random.nextInt(127)), to);
                case 3 -> clip.add(tick, ShortMessage.noteOn(channel, key, 0), to);
                case 4, 5 -> clip.add(tick, ShortMessage.noteOff(channel, key, random.nextInt(128)), to);
                case 6 -> clip.add(tick, ShortMessage.of(ShortMessage.KEY_PRESSURE, channel, key, 9), to);
                case 7 -> clip.add(tick, ShortMessage.controller(channel, 60 + random.nextInt(9), 5), to);
                default -> to = random.nextBoolean() ? "sorrel" : "yarrow";
            }
        }
        return clip.build(tick + 10);
    }

    private static boolean isAt(MidiTrack clip, ClipIndex index, int event, int note) {
        return clip.isChannelMessage(event)
                && ShortMessage.isNote(clip.message(event))
                && index.destination(event) == index.destination(index.on(note))
                && ShortMessage.channel(clip.message(event)) == index.channel(note)
                && ShortMessage.data1(clip.message(event)) == index.key(note);
    }

    @Property(tries = 200)
    void aNoteEndsWithWhatComesNextAtItsPlace(@ForAll long seed) {
        Random random = new Random(seed);
        MidiTrack clip = random(random, random.nextBoolean());
        ClipIndex index = ClipIndex.of(clip);
        int note = 0;
        for (int on = 0; on < clip.size(); on++) {
            if (!clip.isChannelMessage(on) || !ShortMessage.startsNote(clip.message(on))) {
                continue;
            }
            assertThat(index.on(note)).isEqualTo(on);
            assertThat(index.start(note)).isEqualTo(clip.tick(on));
            assertThat(index.velocity(note)).isEqualTo(ShortMessage.data2(clip.message(on)));
            int end = on + 1;
            while (end < clip.size() && !isAt(clip, index, end, note)) {
                end++;
            }
            boolean off = end < clip.size() && ShortMessage.endsNote(clip.message(end));
            assertThat(index.end(note)).isEqualTo(end < clip.size() ? clip.tick(end) : clip.endTick());
            assertThat(index.off(note)).isEqualTo(off ? end : ClipIndex.NONE);
            if (off) {
                assertThat(index.noteOf(end)).isEqualTo(note);
                boolean own = ShortMessage.kind(clip.message(end)) == ShortMessage.NOTE_OFF;
                assertThat(index.releaseVelocity(note)).isEqualTo(own ? ShortMessage.data2(clip.message(end)) : 64);
            }
            note++;
        }
        assertThat(index.noteCount()).isEqualTo(note);
    }

    @Property(tries = 200)
    void everyControllerIsInOneLane(@ForAll long seed) {
        MidiTrack clip = random(new Random(seed), true);
        List<Integer> inLanes = new ArrayList<>();
        for (ClipIndex.Lane lane : ClipIndex.of(clip).lanes()) {
            int first = clip.message(lane.events()[0]);
            for (int event : lane.events()) {
                inLanes.add(event);
                assertThat(ShortMessage.data1(clip.message(event))).isEqualTo(ShortMessage.data1(first));
                assertThat(ShortMessage.channel(clip.message(event))).isEqualTo(lane.channel());
            }
        }
        List<Integer> controllers = new ArrayList<>();
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isChannelMessage(i) && ShortMessage.kind(clip.message(i)) == ShortMessage.CONTROLLER) {
                controllers.add(i);
            }
        }
        assertThat(inLanes).containsExactlyInAnyOrderElementsOf(controllers);
    }

    @Test
    void dataOfAParameterIsInItsLane() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(0, ShortMessage.controller(0, 101, 0))
                .add(0, ShortMessage.controller(0, 100, 0))
                .add(1, ShortMessage.controller(0, 6, 12))
                .add(2, ShortMessage.controller(0, 101, 0))
                .add(2, ShortMessage.controller(0, 100, 1))
                .add(3, ShortMessage.controller(0, 6, 64))
                .add(3, ShortMessage.controller(0, 38, 3))
                .add(4, ShortMessage.controller(1, 6, 64))
                .build();
        assertThat(ClipIndex.of(clip).lanes())
                .extracting(lane -> lane.events().length)
                .containsExactly(1, 2, 1);
    }

    @Test
    void openNotesAreCountedAndEndedInOrder() {
        OpenNotes open = new OpenNotes();
        assertThat(open.end(3, ShortMessage.noteOff(0, 60, 64))).isEqualTo(OpenNotes.NONE);
        assertThat(open.begin(3, ShortMessage.noteOn(1, 60, 80), 7)).isEqualTo(OpenNotes.NONE);
        assertThat(open.begin(0, ShortMessage.noteOn(2, 61, 80), 8)).isEqualTo(OpenNotes.NONE);
        assertThat(open.begin(3, ShortMessage.noteOn(1, 60, 80), 9)).isEqualTo(7);
        assertThat(open.count()).isEqualTo(2);
        List<String> ended = new ArrayList<>();
        open.endAll((whose, off) -> ended.add(whose + " " + ShortMessage.data1(off)));
        assertThat(ended).containsExactly("0 61", "3 60");
        assertThat(open.count()).isZero();
    }

    @Test
    void aLogKeepsExclusivesBesideItsEvents() {
        EventStore log = new EventStore();
        byte[] message = {(byte) 0xF0, 1, (byte) 0xF7};
        for (int i = 0; i < 70_000; i++) {
            if (i % 7 == 0 && i < 7_000) {
                message[1] = (byte) (i % 128);
                log.addExclusive(i, 1, message);
            } else {
                log.add(i, 2, ShortMessage.controller(0, 1, i & 127), i % 3 == 0);
            }
        }
        EventStore copy = new EventStore();
        for (int i = 0; i < log.size(); i++) {
            copy.copy(log, i);
            boolean exclusive = i % 7 == 0 && i < 7_000;
            assertThat(copy.exclusive(i) != null).isEqualTo(exclusive);
            assertThat(copy.stamp(i)).isEqualTo(i);
            if (exclusive) {
                assertThat(copy.exclusive(i)[1]).isEqualTo((byte) (i % 128));
                assertThat(copy.message(i)).isEqualTo(0xF0);
                assertThat(copy.isEcho(i)).isFalse();
            } else {
                assertThat(copy.isEcho(i)).isEqualTo(i % 3 == 0);
            }
        }
    }
}
