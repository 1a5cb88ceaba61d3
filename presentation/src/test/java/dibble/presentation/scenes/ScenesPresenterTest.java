package dibble.presentation.scenes;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.midi.Range;
import dibble.routing.Scene;
import dibble.session.Document;
import org.junit.jupiter.api.Test;

class ScenesPresenterTest {
    private final Document document = new Document(LamplightersRound.session(), LamplightersRound.performance());
    private final ScenesPresenter presenter = new ScenesPresenter(document);

    private Scene scene(String id) {
        return document.session().scene(id).orElseThrow();
    }

    @Test
    void scenesSayWhatTheyHaveAndWhatCallsThem() {
        assertThat(ScenesPresenter.holds(scene("dusk"))).isEqualTo("1 zone · 1 control map · 1 sound");
        assertThat(presenter.calledBy(scene("snow"))).isEqualTo("F4 · program 4");
        document.edit("nobody", session -> session.withSceneSwitch(null));
        assertThat(presenter.calledBy(scene("snow"))).isEqualTo("F4 · program 4, from no sender");
        assertThat(presenter.always()).isEqualTo("In every scene as well: 10 zones · 3 control maps.");
    }

    @Test
    void oneStepsFromSceneToSceneAndStopsAtTheEnds() {
        presenter.step(-1);
        assertThat(presenter.active().orElseThrow().id()).isEqualTo("dusk");
        presenter.step(1);
        assertThat(presenter.active().orElseThrow().id()).isEqualTo("lamps");
        assertThat(presenter.next().orElseThrow().id()).isEqualTo("procession");
        presenter.call("snow");
        assertThat(presenter.next()).isEmpty();
        presenter.step(1);
        assertThat(presenter.active().orElseThrow().id()).isEqualTo("snow");
        assertThat(document.isChanged()).isFalse();
    }

    @Test
    void onlyWhatDiffersIsSaid() {
        String copy = presenter.duplicate("dusk");
        String zone = scene(copy).zones().get(0).id();
        document.edit(
                "keys",
                session -> ZoneEdits.changeZone(
                        session, zone, it -> it.withKeys(new Range(70, 96)).withTranspose(12)));
        assertThat(presenter.differences(scene("dusk"), scene(copy)))
                .containsExactly(new ScenesPresenter.Differs(
                        6, "6", "Larkspur 73 → Glass bowls", "F♯4–C7, as played", "A♯4–C7, ↑12"));
        assertThat(presenter.differences(scene("snow"), scene("snow"))).isEmpty();
        assertThat(presenter.differences(scene("lamps"), scene("snow")))
                .extracting(ScenesPresenter.Differs::name)
                .containsExactly("Tansy 32 → Kalimba", "sound of Celesta");
    }
}
