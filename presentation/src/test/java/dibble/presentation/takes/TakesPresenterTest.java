package dibble.presentation.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.edits.TrackEdits;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.studio.RecordOptions;
import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.List;
import org.junit.jupiter.api.Test;

class TakesPresenterTest {
    @Test
    void thePlanSaysWhatWillGoWhere() {
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        TakesPresenter presenter = new TakesPresenter(document);
        assertThat(presenter.plan()).isEqualTo("5 sources → 10 tracks");
        document.edit("tracks", TrackEdits::addMissingTracks);
        document.session().tracks().forEach(track -> presenter.setArmed(track, true));
        presenter.setArmed(document.session().tracks().get(0), false);
        assertThat(presenter.plan()).isEqualTo("5 sources → 9 tracks, 1 part to Everything else");
        assertThat(new TakesPresenter(new Document(Session.empty("New"), Performance.NEW)).plan())
                .isEqualTo("no sources → no tracks");
    }

    @Test
    void barsAreARangeOfTicksAndWhatIsNoneIsNot() {
        TakesPresenter presenter = new TakesPresenter(new Document(LamplightersRound.session(), Performance.NEW));
        long bar = TempoMap.PPQ * 4L;
        assertThat(presenter.range("9", " 12 ")).contains(new RecordOptions.Stretch(8 * bar, 12 * bar));
        assertThat(presenter.range("3", "3")).contains(new RecordOptions.Stretch(2 * bar, 3 * bar));
        for (String[] wrong : new String[][] {{"4", "3"}, {"0", "2"}, {"", "2"}, {"a", "2"}, {"1", "-2"}}) {
            assertThat(presenter.range(wrong[0], wrong[1])).isEmpty();
        }
    }

    @Test
    void tempoAndMeterChangeAtTheBarWhereItPlaysFrom() {
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        TakesPresenter presenter = new TakesPresenter(document);
        long bar = TempoMap.PPQ * 4L;
        assertThat(presenter.changeAt(bar + 500)).isEqualTo(bar);
        presenter.setTempo(0, 72.5);
        presenter.setTempo(2 * bar, 120);
        presenter.setMeter(4 * bar, 6, 8);
        TempoMap tempo = document.session().tempo();
        assertThat(tempo.bpm(bar)).isEqualTo(72.5);
        assertThat(tempo.bpm(2 * bar)).isEqualTo(120);
        assertThat(tempo.meter(bar)).isEqualTo(new TempoMap.Meter(0, 4, 4));
        assertThat(tempo.meter(5 * bar)).isEqualTo(new TempoMap.Meter(4 * bar, 6, 8));
        // One that is that of what is before it is no change any more.
        presenter.setTempo(2 * bar, 72.5);
        presenter.setMeter(4 * bar, 4, 4);
        assertThat(document.session().tempo().tempos()).hasSize(1);
        assertThat(document.session().tempo().meters()).hasSize(1);
        assertThatThrownBy(() -> presenter.setTempo(0, 1000)).isInstanceOf(UserException.class);
    }

    @Test
    void aClockIsSaidInWords() {
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        TakesPresenter presenter = new TakesPresenter(document);
        assertThat(presenter.clockWords(0)).isEqualTo("Clock…");
        presenter.setClock(plan -> plan.withTo("stand-in:teasel", true));
        assertThat(presenter.clockWords(0)).isEqualTo("Clock: to 1 port");
        presenter.setClock(plan -> plan.withFrom("stand-in:teasel"));
        assertThat(presenter.clockWords(119.97)).isEqualTo("Clock: follows Teasel, 120.0");
        assertThat(presenter.clockOutputs(List.of("machine:x"), false)).contains("machine:x", "stand-in:teasel");
    }
}
