package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import dibble.routing.ControlKind;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class PassedValueTest {
    private final Passed passed = new Passed(1 << 10);

    private Optional<PassedValue> played(int source, int controller, int value) {
        passed.take(
                passed.count(), Packed.of(Packed.PLAYED, source, 0, 0, ShortMessage.controller(0, controller, value)));
        return PassedValue.at(passed, passed.count() - 1);
    }

    private Optional<PassedValue> sent(int port, int controller, int value) {
        passed.take(0, Packed.of(Packed.SENT, 0, port, 1, ShortMessage.controller(0, controller, value)));
        return PassedValue.at(passed, passed.count() - 1);
    }

    @Test
    void aParameterIsWhatItsFourMessagesSay() {
        assertThat(played(1, 101, 0)).isEmpty();
        assertThat(played(1, 100, 1)).isEmpty();
        assertThat(played(1, 6, 64)).contains(new PassedValue(ControlKind.RPN, 1, 8192));
        assertThat(played(1, 38, 5)).contains(new PassedValue(ControlKind.RPN, 1, 8197));
    }

    @Test
    void playersAndPortsHaveTheirOwn() {
        played(1, 101, 0);
        played(1, 100, 0);
        played(2, 99, 2);
        played(2, 98, 44);
        sent(1, 101, 0);
        sent(1, 100, 2);
        assertThat(played(2, 6, 7)).contains(new PassedValue(ControlKind.NRPN, 300, 7 << 7));
        assertThat(played(1, 6, 12)).contains(new PassedValue(ControlKind.RPN, 0, 12 << 7));
        assertThat(sent(1, 6, 3)).contains(new PassedValue(ControlKind.RPN, 2, 3 << 7));
        assertThat(sent(2, 6, 3)).isEmpty();
        assertThat(played(3, 6, 3)).isEmpty();
    }

    @Test
    void theChoiceThatCameLastCountsAndNoneIsNone() {
        played(1, 101, 0);
        played(1, 100, 0);
        played(1, 99, 1);
        played(1, 98, 1);
        assertThat(played(1, 6, 1)).contains(new PassedValue(ControlKind.NRPN, 129, 128));
        played(1, 101, 127);
        played(1, 100, 127);
        assertThat(played(1, 6, 1)).isEmpty();
    }

    @Test
    void aFineHalfBelongsToTheCoarseOneBefore() {
        assertThat(played(1, 33, 5)).isEmpty();
        assertThat(played(1, 1, 64)).isEmpty();
        assertThat(played(1, 33, 5)).contains(new PassedValue(ControlKind.CONTROLLER_14, 1, 64 << 7 | 5));
        assertThat(played(2, 33, 5)).isEmpty();
        assertThat(played(1, 64, 127)).isEmpty();
    }
}
