package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.HeardMessage;
import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import org.junit.jupiter.api.Test;

/** What passed, read as the values that several controllers make together. */
class EventHistoryValuesTest {
    private final EventHistory passed = new EventHistory(1 << 10);

    private static void assertIsParameter(HeardMessage heard, boolean nrpn, int number, int value) {
        assertThat(heard.choice()).isEqualTo(Parameter.choice(nrpn, number));
        assertThat(heard.parameter()).isEqualTo(value);
    }

    private static void assertIsAlone(HeardMessage heard) {
        assertThat(heard.isParameter() || heard.isPair()).isFalse();
    }

    private HeardMessage played(int source, int controller, int value) {
        passed.take(
                passed.count(), Packed.of(Packed.PLAYED, source, 0, 0, ShortMessage.controller(0, controller, value)));
        return passed.heard(passed.count() - 1);
    }

    private HeardMessage sent(int port, int controller, int value) {
        passed.take(0, Packed.of(Packed.SENT, 0, port, 1, ShortMessage.controller(0, controller, value)));
        return passed.heard(passed.count() - 1);
    }

    @Test
    void aParameterIsWhatItsFourMessagesSay() {
        assertIsAlone(played(1, 101, 0));
        assertIsAlone(played(1, 100, 1));
        assertIsParameter(played(1, 6, 64), false, 1, 8192);
        assertIsParameter(played(1, 38, 5), false, 1, 8197);
    }

    @Test
    void playersAndPortsHaveTheirOwn() {
        played(1, 101, 0);
        played(1, 100, 0);
        played(2, 99, 2);
        played(2, 98, 44);
        sent(1, 101, 0);
        sent(1, 100, 2);
        assertIsParameter(played(2, 6, 7), true, 300, 7 << 7);
        assertIsParameter(played(1, 6, 12), false, 0, 12 << 7);
        assertIsParameter(sent(1, 6, 3), false, 2, 3 << 7);
        assertIsAlone(sent(2, 6, 3));
        assertIsAlone(played(3, 6, 3));
    }

    @Test
    void theChoiceThatCameLastCountsAndNoneIsNone() {
        played(1, 101, 0);
        played(1, 100, 0);
        played(1, 99, 1);
        played(1, 98, 1);
        assertIsParameter(played(1, 6, 1), true, 129, 128);
        played(1, 101, 127);
        played(1, 100, 127);
        assertIsAlone(played(1, 6, 1));
    }

    @Test
    void aFineHalfBelongsToTheCoarseOneBefore() {
        assertIsAlone(played(1, 33, 5));
        assertIsAlone(played(1, 1, 64));
        assertThat(played(1, 33, 5))
                .matches(HeardMessage::isPair)
                .extracting(HeardMessage::pair)
                .isEqualTo(64 << 7 | 5);
        assertIsAlone(played(2, 33, 5));
        assertIsAlone(played(1, 64, 127));
    }
}
