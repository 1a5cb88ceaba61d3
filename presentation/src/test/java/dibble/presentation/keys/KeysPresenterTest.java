package dibble.presentation.keys;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.TakeEdits;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.presentation.Jobs;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.ZoneTarget;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.system.Workers;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class KeysPresenterTest {
    private final Document document = new Document(LamplightersRound.session(), Performance.NEW.withScene("dusk"));
    private final BlockingQueue<Runnable> posted = new LinkedBlockingQueue<>();
    private final KeysPresenter presenter =
            new KeysPresenter(document, new Jobs(posted::add, Workers.shared().jobs()));

    @Test
    void bandsThatOverlapLieOverOneAnother() {
        assertThat(presenter.levels("larkspur"))
                .containsEntry("bass-hand", 0)
                .containsEntry("celesta", 0)
                .containsEntry("bowls-soft", 1);
    }

    @Test
    void zonesOfOtherScenesAreNotShown() {
        assertThat(presenter.zonesOf("larkspur")).hasSize(3);
        document.perform(performance -> performance.withScene("snow"));
        assertThat(presenter.zonesOf("larkspur")).hasSize(2);
    }

    @Test
    void gapsAreTheKeysThatNoZoneTakes() {
        assertThat(presenter.gaps(document.session().sources().get(0))).isEmpty();
        document.edit(presenter.keysEdit("celesta", new Range(60, 90)));
        document.perform(performance -> performance.withScene("snow"));
        assertThat(presenter.gaps(document.session().sources().get(0)))
                .containsExactly(new Range(54, 59), new Range(91, 100));
        presenter.delete("marimba");
        assertThat(presenter.gaps(document.session().sources().get(1))).isEmpty();
    }

    @Test
    void liningUpLeadsTheFirstKeyToTheFirstThatThePartAnswersTo() {
        var marimba = document.session().zone("marimba").orElseThrow();
        assertThat(presenter.lineUp(marimba)).contains(45 - 53);
        presenter.transpose("marimba", presenter.lineUp(marimba).orElseThrow());
        assertThat(presenter
                        .soundsAt(document.session().zone("marimba").orElseThrow())
                        .orElseThrow()
                        .low())
                .isEqualTo(45);
        assertThat(presenter.lineUp(
                        marimba.with().to(new ZoneTarget.ToChannel("sorrel", 9)).build()))
                .isEmpty();
    }

    @Test
    void movingAndResizingStayInsideTheKeyboardsOfTheWorld() {
        assertThat(KeysPresenter.moved(new Range(10, 20), -50)).isEqualTo(new Range(0, 10));
        assertThat(KeysPresenter.moved(new Range(100, 120), 50)).isEqualTo(new Range(107, 127));
        assertThat(KeysPresenter.resized(new Range(10, 20), true, 50)).isEqualTo(new Range(20, 20));
        assertThat(KeysPresenter.resized(new Range(10, 20), false, -50)).isEqualTo(new Range(10, 10));
    }

    @Test
    void aSourceThatPlaysSomethingIsAskedAbout() {
        assertThat(presenter.needsAnswer("tansy")).isTrue();
        presenter.delete("marimba");
        assertThat(presenter.needsAnswer("tansy")).isFalse();
        String id = presenter.layer("tansy", new PartRef("sorrel", "kalimba"));
        assertThat(document.session().zone(id).orElseThrow().keys()).isEqualTo(new Range(53, 84));
        assertThat(presenter.canSplit("tansy", 53)).isFalse();
        assertThat(presenter.canSplit("tansy", 54)).isTrue();
    }

    @Test
    void whatSoundsIsWhereItIsTransposedTo() {
        var bass = document.session().zone("bass-hand").orElseThrow();
        assertThat(presenter.soundsAt(bass)).contains(new Range(16, 41));
        assertThat(presenter.soundsAt(bass.withTranspose(-100))).isEmpty();
    }

    /** What was recorded of the notes comes along, as where drums are split into strips. */
    @Test
    void notesGetTracksOfTheirOwnWithWhatWasRecorded() throws InterruptedException {
        PartRef drums = new PartRef("sorrel", "hands");
        EventStore log = new EventStore();
        for (int i = 0; i < 4; i++) {
            log.add(i * 1_000_000L, 0, ShortMessage.noteOn(9, i % 2 == 0 ? 53 : 55, 90));
            log.add(i * 1_000_000L + 500_000, 0, ShortMessage.noteOff(9, i % 2 == 0 ? 53 : 55, 64));
        }
        Take take = new Take(
                "take-1",
                "Take 1",
                List.of("sedge"),
                log,
                List.of(new Take.Mark(0, 0, document.routing())),
                document.session().tempo(),
                5_000_000,
                0);
        document.edit("take", before -> TakeEdits.keep(before, document.performance(), take));
        long before = document.session().trackOf(drums).orElseThrow().noteCount();
        MidiTrack clip = document.session().trackOf(drums).orElseThrow().sounding();
        List<Integer> sounded = IntStream.range(0, clip.size())
                .map(clip::message)
                .filter(ShortMessage::startsNote)
                .map(ShortMessage::data1)
                .distinct()
                .boxed()
                .toList();
        presenter.tracksFor(drums, sounded);
        posted.take().run();
        assertThat(before).isEqualTo(4);
        for (int note : sounded) {
            Track track = document.session().trackOf(drums, note).orElseThrow();
            assertThat(track.noteCount()).isEqualTo(2);
            assertThat(document.performance().armed()).contains(track.id());
        }
    }
}
