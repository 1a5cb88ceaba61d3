package dibble.presentation.channels;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.gear.PartRef;
import dibble.midi.ChannelSet;
import dibble.routing.ZoneTarget;
import dibble.session.ChannelChart;
import dibble.session.Document;
import dibble.text.UserException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChannelsPresenterTest {
    private final Document document = new Document(LamplightersRound.session(), LamplightersRound.performance());
    private final ChannelsPresenter presenter = new ChannelsPresenter(document, source -> new ChannelSet(0));

    @ParameterizedTest
    @CsvSource({
        "2 kalimba, tansy, 2, sorrel, kalimba",
        "Teasel 13 harp, teasel, 13, yarrow, harp",
        "teasel all -> Sorrel Cel, teasel, 0, sorrel, celesta",
        "10 HAND DRUMS, tansy, 10, sorrel, hands"
    })
    void aChannelAndASoundAreTyped(String text, String source, int channel, String instrument, String part) {
        ChannelsPresenter.Typed typed = presenter.read(text, "tansy");
        assertThat(typed.from().source()).isEqualTo(source);
        assertThat(typed.from().channel()).isEqualTo(channel);
        assertThat(typed.to()).isEqualTo(new ZoneTarget.ToPart(new PartRef(instrument, part)));
    }

    @ParameterizedTest
    @CsvSource({"kalimba, expected", "17 kalimba, expected 1 to 16", "2 bells, no sound called", "2 h, 3 sounds called"
    })
    void whatCannotBeReadIsSaid(String text, String message) {
        assertThatThrownBy(() -> presenter.read(text, "tansy"))
                .isInstanceOf(UserException.class)
                .hasMessageContaining(message);
    }

    @Test
    void ribbonsSayWhatIsNotWhole() {
        ChannelChart chart = presenter.chart();
        assertThat(chart.ways().stream().map(presenter::label))
                .contains("F♯4–C7 · velocity 1–78 · Dusk only", "↑12", "E1–F3 · ↓12");
        assertThat(presenter.sentence(chart.ways().get(1)))
                .isEqualTo("Larkspur 73, channel 1, F♯3–E7, to Celesta on Sorrel 1");
        presenter.show("teasel");
        assertThat(presenter.chart().arrivals()).hasSize(5);
        assertThat(presenter.shownSources()).containsExactly("teasel");
    }
}
