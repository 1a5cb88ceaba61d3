package dibble.desktop.takes;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.session.Document;
import dibble.session.Edits;
import dibble.session.Performance;
import dibble.session.Session;
import org.junit.jupiter.api.Test;

class TakesPresenterTest {
    @Test
    void thePlanSaysWhatWillGoWhere() {
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        TakesPresenter presenter = new TakesPresenter(document);
        assertThat(presenter.plan()).isEqualTo("5 sources → 10 tracks");
        document.edit("tracks", Edits::addMissingTracks);
        document.session().tracks().forEach(track -> presenter.setArmed(track, true));
        presenter.setArmed(document.session().tracks().get(0), false);
        assertThat(presenter.plan()).isEqualTo("5 sources → 9 tracks, 1 part to Everything else");
        assertThat(new TakesPresenter(new Document(Session.empty("New"), Performance.NEW)).plan())
                .isEqualTo("0 sources → 0 tracks");
    }
}
