package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Similar tracks share memory, and keep their content. */
class SharedClipsTest {
    private static MidiTrack track(int events, Random random, int without, int more) {
        MidiTrack.Builder track = new MidiTrack.Builder();
        for (int i = 0; i < events; i++) {
            if (i == more) {
                track.add(i * 10L, ShortMessage.noteOn(1, 1, 1));
            }
            int message = ShortMessage.noteOn(0, random.nextInt(128), 1 + random.nextInt(127));
            if (i != without) {
                if (i % 500 == 7) {
                    track.text(i * 10L, MidiTrack.META_TEXT, "word " + i);
                } else {
                    track.add(i * 10L, message);
                }
            }
        }
        return track.build(events * 10L);
    }

    private static int apart(MidiTrack track, MidiTrack other) {
        Set<Object> known = Collections.newSetFromMap(new IdentityHashMap<>());
        other.addTo(known);
        return track.apartFrom(known);
    }

    @Test
    void aChangeOfAFewEventsCostsAFewPieces() {
        MidiTrack before = track(100_000, new Random(1), -1, -1);
        MidiTrack after = track(100_000, new Random(1), 500, 90_000);
        MidiTrack shared = after.sharing(before);
        assertThat(shared).isEqualTo(after).hasSameHashCodeAs(after).isNotEqualTo(before);
        assertThat(apart(shared, before)).isLessThan(5_000);
        // And so again, from step to step.
        MidiTrack next = track(100_000, new Random(1), 70_000, 200).sharing(shared);
        assertThat(next).isEqualTo(track(100_000, new Random(1), 70_000, 200));
        assertThat(apart(next, shared)).isLessThan(9_000);
    }

    @Test
    void whateverIsSharedTheTrackIsTheSame() {
        for (int seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            int events = random.nextInt(6000);
            MidiTrack before = track(events, new Random(seed), random.nextInt(events + 1), random.nextInt(events + 1));
            MidiTrack after = track(events, new Random(seed), random.nextInt(events + 1), random.nextInt(events + 1));
            MidiTrack shared = after.sharing(before);
            assertThat(shared).isEqualTo(after);
            assertThat(shared.size()).isEqualTo(after.size());
            for (int i = 0; i < shared.size(); i += 1 + random.nextInt(40)) {
                assertThat(shared.tick(i)).isEqualTo(after.tick(i));
                assertThat(shared.message(i)).isEqualTo(after.message(i));
                assertThat(shared.data(i)).isEqualTo(after.data(i));
            }
        }
    }
}
