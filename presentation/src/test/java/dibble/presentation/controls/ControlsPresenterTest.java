package dibble.presentation.controls;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.midi.HeardMessage;
import dibble.midi.ShortMessage;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.SendTarget;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import org.junit.jupiter.api.Test;

class ControlsPresenterTest {
    private final Document document = new Document(LamplightersRound.session(), LamplightersRound.performance());
    private final ControlsPresenter presenter = new ControlsPresenter(document);

    private ControlMap map(String id) {
        return presenter.map(id).orElseThrow();
    }

    @Test
    void mapsSayWhatTheyDo() {
        assertThat(presenter.count()).isEqualTo("3 in every scene · 1 in Dusk");
        assertThat(presenter.holdsIn(map("fade"))).isEqualTo("Dusk");
        ControlsPresenter.Said said =
                presenter.said(map("lean-in"), map("lean-in").sends().get(0));
        assertThat(said.to()).isEqualTo("Marimba");
        assertThat(said.what()).isEqualTo("CC 92 tremolo");
        assertThat(said.values()).isEqualTo("30–127 → 0–90");
        assertThat(presenter.said(map("heel"), map("heel").sends().get(0)).to()).isEqualTo("switch to the next scene");
        assertThat(ControlsPresenter.now(map("lean-in"), map("lean-in").sends().get(0), 10))
                .isEqualTo("10 → 0");
        assertThat(ControlsPresenter.now(map("fade"), map("fade").sends().get(0), 127))
                .isEqualTo("127 → 0");
    }

    @Test
    void aControlThatIsMovedGetsAMapThatDoesWhatItsZonesDo() {
        ControlMap.Trigger wheel = ControlsPresenter.trigger(HeardMessage.alone(ShortMessage.controller(1, 1, 5)))
                .orElseThrow();
        String id = presenter.add("tansy", wheel);
        assertThat(map(id).sends()).hasSize(1);
        assertThat(map(id).sends().get(0).number()).isEqualTo(1);
        assertThat(presenter.add("tansy", wheel)).as("once").isEqualTo(id);
        assertThat(ControlsPresenter.trigger(HeardMessage.alone(ShortMessage.noteOn(0, 60, 80))))
                .isEmpty();
        ControlsPresenter bare = new ControlsPresenter(new Document(Session.empty("Bare"), Performance.NEW));
        assertThatThrownBy(() -> bare.add("tansy", wheel)).hasMessageContaining("add one in Gear");
    }

    @Test
    void valuesAreSaidAsTheTradeSaysThem() {
        assertThat(SessionFormatter.value(ControlKind.PITCH_BEND, 8192)).isEqualTo("0");
        assertThat(SessionFormatter.value(ControlKind.PITCH_BEND, 0)).isEqualTo("−8192");
        assertThat(SessionFormatter.value(ControlKind.PROGRAM_CHANGE, 0)).isEqualTo("1");
    }

    /** A number that the other kind has is kept: the fine half belongs to the same controller. */
    @Test
    void aSendOfAnotherKindKeepsTheNumberWhereThatHasIt() {
        ControlMap.Send expression = ControlMap.Send.controller(11, new SendTarget.AllParts());
        ControlMap.Send fine = ControlsPresenter.ofKind(expression, ControlKind.CONTROLLER_14);
        assertThat(fine.number()).isEqualTo(11);
        assertThat(fine.last()).isEqualTo(16_383);
        ControlMap.Send sustain = ControlMap.Send.controller(64, new SendTarget.AllParts());
        assertThat(ControlsPresenter.ofKind(sustain, ControlKind.CONTROLLER_14).number())
                .isEqualTo(1);
        assertThat(ControlsPresenter.ofKind(fine.withNumber(2), ControlKind.RPN).number())
                .isEqualTo(2);
    }
}
