package dibble.presentation.levels;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.Loudness;
import dibble.gear.PartRef;
import dibble.gear.StripRef;
import dibble.presentation.Decibels;
import dibble.presentation.Jobs;
import dibble.session.Document;
import dibble.session.Gesture;
import dibble.system.Workers;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class LevelsPresenterTest {
    private static final StripRef CELESTA = StripRef.of(new PartRef("sorrel", "celesta"));
    private static final StripRef MARIMBA = StripRef.of(new PartRef("sorrel", "marimba"));
    private static final PartRef HANDS = new PartRef("sorrel", "hands");

    private final BlockingQueue<Runnable> posted = new LinkedBlockingQueue<>();
    private final Jobs jobs = new Jobs(posted::add, Workers.shared().jobs());
    private final Document document = new Document(LamplightersRound.session(), LamplightersRound.performance());
    private final LevelsPresenter presenter = new LevelsPresenter(document, jobs);

    @AfterEach
    void close() {
        jobs.close();
    }

    private LevelsPresenter.Row row(StripRef ref) {
        return presenter.groups().stream()
                .flatMap(group -> group.rows().stream())
                .filter(row -> row.ref().equals(ref))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatDibbleSoundsComesFirstAndModulesEndAtZero() {
        assertThat(presenter.groups())
                .extracting(group -> group.instrument().id())
                .containsExactly("sorrel", "yarrow");
        assertThat(row(CELESTA).most()).isEqualTo(Loudness.MAX);
        assertThat(row(StripRef.of(new PartRef("yarrow", "harp"))).most()).isZero();
        // In Dusk the celesta has its level from the scene, and says so.
        assertThat(row(CELESTA).scene()).isEqualTo("Dusk");
        assertThat(row(MARIMBA).scene()).isEmpty();
    }

    @Test
    void aDragIsOneStepThatTakesTheGroupAlong() {
        presenter.setGroup(List.of(CELESTA, MARIMBA), 3);
        double before = row(MARIMBA).strip().levelNow();
        Gesture drag = document.begin(end -> {});
        drag.preview(presenter.levelEdit(MARIMBA, before - 2).change());
        drag.preview(presenter.levelEdit(MARIMBA, before - 5).change());
        drag.finish(presenter.levelEdit(MARIMBA, before - 6));
        assertThat(row(MARIMBA).strip().levelNow()).isEqualTo(Loudness.rounded(before - 6));
        document.undo();
        assertThat(row(MARIMBA).strip().levelNow()).isEqualTo(before);
        assertThat(row(CELESTA).strip().group()).isEqualTo(3);
    }

    @Test
    void outputsAreThoseInUseThoseNamedAndOneMore() {
        assertThat(presenter.outputs()).containsOnlyKeys(1, 2);
        assertThat(presenter.outputs().get(2)).containsExactly("Hand drums");
        assertThat(presenter.outputChoices()).containsExactly(1, 2, 3);
        assertThat(presenter.output(2)).isEqualTo("3–4 drums");
        presenter.nameOutput(5, "wet");
        assertThat(presenter.outputChoices()).containsExactly(1, 2, 3, 5);
        presenter.select(MARIMBA, false);
        presenter.select(CELESTA, true);
        // Counted up in the order of the rows, whoever was selected first.
        assertThat(presenter.plantOutputs(4, 2).rows().toString()).contains("Celesta", "4", "Marimba", "6");
        presenter.select(CELESTA, true);
        assertThat(presenter.selection()).containsExactly(MARIMBA);
        assertThat(presenter.meant(CELESTA)).containsExactly(CELESTA);
    }

    @Test
    void drumsWithNamesGetStripsOfTheirOwnAndAreArmed() throws InterruptedException {
        assertThat(presenter.drumsToSplit(CELESTA.part())).isEmpty();
        assertThat(presenter.drumsToSplit(HANDS)).containsExactly(41, 43, 45, 47, 48, 50, 54);
        presenter.splitDrums(HANDS);
        posted.take().run();
        assertThat(presenter.drumsToSplit(HANDS)).isEmpty();
        StripRef low = new StripRef(HANDS, 41);
        assertThat(row(low).name()).isEqualTo("Frame drum, low");
        assertThat(document.performance().armed())
                .contains(presenter.track(low).orElseThrow().id());
        presenter.setMuted(low, true);
        assertThat(presenter.isMuted(low)).isTrue();
        assertThat(presenter.isMuted(StripRef.of(HANDS))).isFalse();
    }

    @Test
    void levelsAreWrittenAndRead() {
        assertThat(Decibels.words(-6.04)).isEqualTo("−6.0");
        assertThat(Decibels.words(0)).isEqualTo("0.0");
        assertThat(Decibels.words(Loudness.SILENCE)).isEqualTo("off");
        assertThat(Decibels.whole(-13.6)).isEqualTo("−14");
        assertThat(Decibels.parse("-12,5 dB")).contains(-12.5);
        assertThat(Decibels.parse("−3")).contains(-3.0);
        assertThat(Decibels.parse("+2.25")).contains(2.25);
        assertThat(Decibels.parse("off")).contains(Loudness.SILENCE);
        assertThat(Decibels.parse("loud")).isEmpty();
    }
}
