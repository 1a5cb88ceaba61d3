package dibble.presentation.sounds;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.StripEdits;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.presentation.SoundPreview;
import dibble.session.Document;
import dibble.sound.Preset;
import dibble.sound.SoundBank;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class SoundsPresenterTest {
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");

    private final List<String> heard = new ArrayList<>();
    private final SoundPreview listening = new SoundPreview() {
        @Override
        public Map<String, SoundBank> banks() {
            return Map.of();
        }

        @Override
        public void listen(String file, Preset preset, int key) {
            heard.add(preset.name() + " " + key);
        }
    };
    private final Document document = new Document(LamplightersRound.session(), LamplightersRound.performance());
    private final SoundsPresenter presenter = new SoundsPresenter(document, listening);

    @BeforeEach
    void read() {
        presenter.setUsual(SoundBank.usual());
        presenter.choose(CELESTA);
    }

    private Part celesta() {
        return document.session().part(CELESTA).orElseThrow();
    }

    private List<String> names() {
        return presenter.sounds().stream().map(sound -> sound.preset().name()).toList();
    }

    @Test
    void soundsAreFoundByNameFamilyNumberAndKit() {
        assertThat(presenter.sounds()).hasSize(130);
        presenter.search("KALI");
        assertThat(names()).containsExactly("Kalimba");
        presenter.search("organ reed");
        assertThat(names()).contains("Reed organ");
        presenter.search("kit");
        assertThat(names()).containsExactly("Standard kit", "Hand drums");
        presenter.search("no such sound");
        assertThat(names()).isEmpty();
    }

    @Test
    void aPartTakesASoundAndAKitNamesItsDrums() {
        presenter.search("celesta");
        assertThat(presenter.isChosen(presenter.sounds().get(0))).isTrue();
        presenter.search("hand drums");
        SoundsPresenter.Sound kit = presenter.sounds().get(0);
        presenter.listen(kit);
        assertThat(heard).containsExactly("Hand drums 41");
        presenter.take(kit);
        assertThat(celesta().drums()).isTrue();
        assertThat(celesta().program()).isEqualTo(1);
        assertThat(celesta().noteNames()).containsEntry(41, "Frame drum, low").hasSize(16);
        assertThat(presenter.isChosen(kit)).isTrue();
        document.undo();
        assertThat(celesta().drums()).isFalse();
    }

    @Test
    void aFileThatIsNotOpenIsListedAsMissing() {
        document.edit("file", session -> StripEdits.addSoundFile(session, "Glass", "/x/glass.sf2", "0".repeat(64)));
        assertThat(presenter.banks())
                .extracting(SoundsPresenter.Bank::name)
                .hasSize(2)
                .endsWith("Glass");
        assertThat(presenter.banks().get(1).missing()).isTrue();
        presenter.only("glass");
        assertThat(presenter.isShown("glass")).isTrue();
        assertThat(presenter.sounds()).isEmpty();
        presenter.showAll();
        assertThat(presenter.sounds()).hasSize(130);
    }
}
