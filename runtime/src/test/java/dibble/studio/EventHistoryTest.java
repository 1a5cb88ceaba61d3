package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** What passed, kept in groups; and sources that keep sending the same. */
class EventHistoryTest {
    private static final int ON = ShortMessage.noteOn(0, 60, 80);
    private final EventHistory passed = new EventHistory(8);

    private static long played(int source) {
        return Packed.of(Packed.PLAYED, source, 0, 0, ON);
    }

    private static long sent() {
        return Packed.of(Packed.SENT, 0, 1, 1, ON);
    }

    @Test
    void whatLeftBelongsToWhatWasPlayed() {
        passed.take(1, played(0));
        passed.take(1, sent());
        passed.take(1, sent());
        passed.take(2, played(1));
        passed.take(5, sent());
        passed.take(5, sent());
        assertThat(passed.groups()).isEqualTo(3);
        assertThat(passed.leader(2)).isZero();
        assertThat(passed.end(0)).isEqualTo(3);
        assertThat(passed.end(3)).isEqualTo(4);
        // What left by itself is a group of its own.
        assertThat(passed.leader(5)).isEqualTo(4);
        assertThat(passed.end(4)).isEqualTo(6);
    }

    @Test
    void theOldestGoAndWhatIsLookedAtStays() {
        for (int i = 0; i < 6; i++) {
            passed.take(i, played(i));
        }
        EventHistory copy = passed.copy();
        for (int i = 6; i < 20; i++) {
            passed.take(i, played(i));
        }
        assertThat(passed.count()).isEqualTo(20);
        assertThat(passed.first()).isEqualTo(12);
        assertThat(Packed.voice(passed.entry(12))).isEqualTo(12);
        assertThat(copy.count()).isEqualTo(6);
        assertThat(Packed.voice(copy.entry(5))).isEqualTo(5);
        passed.skip(3);
        passed.clear();
        assertThat(passed.count()).isZero();
        assertThat(passed.skipped()).isEqualTo(3);
    }

    @Nested
    class Twins {
        private static final long MILLI = 1_000_000;
        private final TwinPorts twins = new TwinPorts();

        private void play(int times, long apart, int second) {
            for (int i = 0; i < times; i++) {
                long at = i * 100 * MILLI;
                twins.take(at, 0, ShortMessage.noteOn(0, 40 + i, 80));
                twins.take(at + apart, second, ShortMessage.noteOn(0, 40 + i, 80));
            }
        }

        @Test
        void eightInARowWithinAFewMillisecondsAreOneDeviceOnTwoPorts() {
            play(7, 2 * MILLI, 3);
            assertThat(twins.found()).isEmpty();
            play(8, 2 * MILLI, 3);
            assertThat(twins.found()).containsExactly(new TwinPorts.Twins(0, 3));
            twins.reset();
            assertThat(twins.found()).isEmpty();
        }

        @Test
        void twoWhoPlayTheSameALittleApartAreNot() {
            play(40, 8 * MILLI, 1);
            assertThat(twins.found()).isEmpty();
        }

        @Test
        void sourcesOfOnePortHearTheSameAtTheSameTime() {
            play(40, 0, 1);
            assertThat(twins.found()).isEmpty();
        }

        @Test
        void oneThatPlaysSomethingOfItsOwnBreaksTheRow() {
            for (int i = 0; i < 40; i++) {
                long at = i * 100 * MILLI;
                twins.take(at, 0, ShortMessage.noteOn(0, 40 + i, 80));
                twins.take(at + MILLI, 1, ShortMessage.noteOn(0, 40 + i, 80));
                if (i % 5 == 4) {
                    twins.take(at + 50 * MILLI, 1, ShortMessage.noteOn(0, 90, 80));
                }
            }
            assertThat(twins.found()).isEmpty();
        }
    }
}
