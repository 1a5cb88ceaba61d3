package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.ControlEdits;
import dibble.midi.ShortMessage;
import dibble.presentation.app.Page;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.session.Session;
import dibble.standins.StandIn;
import javafx.scene.control.ToggleButton;
import org.junit.jupiter.api.Test;

/** A knob that sends a parameter is learned, read and asked about as one value. */
class ParametersJourneyTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private void send(int... numbersAndValues) {
        StandIn larkspur = desk().standIns().standIn("stand-in:larkspur").orElseThrow();
        for (int i = 0; i < numbersAndValues.length; i += 2) {
            larkspur.play(ShortMessage.controller(0, numbersAndValues[i], numbersAndValues[i + 1]));
        }
    }

    private ControlMap learned() {
        return ControlEdits.find(desk().session(), desk().selection().control().get())
                .orElseThrow();
    }

    @Test
    void aParameterIsLearnedWithAllItsMessages() {
        onFx(() -> window.show(Page.CONTROLS));
        onFx(() -> lookup("#learn-control").queryAs(ToggleButton.class).fire());
        int before = desk().session().controls().size();
        send(99, 2, 98, 44, 6, 64, 38, 5);
        until(() -> desk().session().controls().size() > before);
        assertThat(learned().when()).isEqualTo(ControlMap.Trigger.any(ControlKind.NRPN, 300));
        until(() -> text("#controls-told").contains("NRPN 300"));
        until(() -> lookup("#control-number").queryTextInputControl().getText().equals("300"));
        assertThat(desk().live()
                        .value("larkspur", ControlKind.NRPN, 300, learned().channels()))
                .isEqualTo(8197);
        onFx(() -> desk().document().undo());
        assertThat(desk().session().controls()).hasSize(before);
    }

    @Test
    void aKnobWithAFineHalfIsLearnedAsOne() {
        onFx(() -> window.show(Page.CONTROLS));
        onFx(() -> lookup("#learn-control").queryAs(ToggleButton.class).fire());
        int before = desk().session().controls().size();
        onFx(() -> send(12, 64, 44, 5));
        until(() -> desk().session().controls().size() > before);
        assertThat(learned().when()).isEqualTo(ControlMap.Trigger.any(ControlKind.CONTROLLER_14, 12));
    }
}
