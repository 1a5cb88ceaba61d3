package dibble.session;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.routing.Zone;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class DocumentTest {
    private final Document document = new Document(LamplightersRound.session(), Performance.NEW);

    private Range bassKeys() {
        return document.session().zone("bass-hand").orElseThrow().keys();
    }

    private static Session keys(Session session, int high) {
        return ZoneEdits.changeZone(session, "bass-hand", zone -> zone.withKeys(new Range(28, high)));
    }

    @Test
    void whatIsSwitchedWhilePlayingIsNoChangeAndNoStep() {
        document.perform(performance -> performance.withScene("snow").withHeard("tansy", false));
        assertThat(document.isChanged()).isFalse();
        assertThat(document.undoName()).isEmpty();
        assertThat(document.session().activeScene(document.performance())).isEqualTo("snow");
    }

    @Test
    void changedIsAPlaceInTheHistory() {
        document.edit("name", session -> session.withName("other"));
        assertThat(document.isChanged()).isTrue();
        document.markSaved(document.session(), document.performance());
        document.undo();
        assertThat(document.isChanged()).isTrue();
        document.redo();
        assertThat(document.isChanged()).isFalse();
        document.undo();
        document.edit("name", session -> session.withName("third"));
        document.undo();
        assertThat(document.isChanged()).isTrue();
    }

    @Test
    void whatIsChangedWhileItIsSavedStaysChanged() {
        document.edit("name", session -> session.withName("as it is saved"));
        Session saving = document.session();
        document.edit("name", session -> session.withName("changed meanwhile"));
        document.markSaved(saving, document.performance());
        assertThat(document.isChanged()).isTrue();
        document.undo();
        assertThat(document.isChanged()).isFalse();
    }

    @Property(tries = 200)
    void undoingEverythingLeadsBackThroughEveryValue(@ForAll long seed) {
        Random random = new Random(seed);
        Document edited = new Document(LamplightersRound.session(), Performance.NEW);
        List<Session> values = new ArrayList<>(List.of(edited.session()));
        for (int i = 0; i < 30; i++) {
            int high = 30 + random.nextInt(20);
            edited.edit("keys", session -> keys(session, high));
            if (!edited.session().equals(values.get(values.size() - 1))) {
                values.add(edited.session());
            }
        }
        for (int i = values.size() - 1; i > 0; i--) {
            assertThat(edited.session()).isEqualTo(values.get(i));
            edited.undo();
        }
        assertThat(edited.session()).isEqualTo(values.get(0));
        assertThat(edited.isChanged()).isFalse();
    }

    @Test
    void splittingCutsWhatIsUnderTheKeyAndGivesTheRestToTheNewPart() {
        PartRef bowls = new PartRef("sorrel", "bowls");
        Session split =
                ZoneEdits.splitAt(LamplightersRound.session(), "new", "larkspur", bowls, new Range(28, 100), 70, false);
        assertThat(split.zone("celesta").orElseThrow().keys()).isEqualTo(new Range(54, 69));
        assertThat(split.zone("bowls-soft").orElseThrow().keys()).isEqualTo(new Range(66, 69));
        assertThat(split.zone("new").map(Zone::keys)).contains(new Range(70, 100));
        assertThat(split.zone("marimba").orElseThrow().keys()).isEqualTo(new Range(53, 84));
        Session below =
                ZoneEdits.splitAt(LamplightersRound.session(), "new", "larkspur", bowls, new Range(28, 100), 70, true);
        assertThat(below.zone("bass-hand")).isEmpty();
        assertThat(below.zone("new").map(Zone::keys)).contains(new Range(28, 69));
        assertThat(below.zone("celesta").orElseThrow().keys()).isEqualTo(new Range(70, 100));
    }

    @Test
    void theWayBackIsBoundedByWhatItKeepsAndNotByTheNumberOfSteps() {
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        for (int i = 0; i < 5_000; i++) {
            int key = 30 + i % 20;
            document.edit(
                    "keys",
                    session -> ZoneEdits.changeZone(session, "bass-hand", it -> it.withKeys(new Range(key, 60))));
        }
        int back = 0;
        while (document.undoName().isPresent()) {
            document.undo();
            back++;
        }
        assertThat(back).isEqualTo(5_000);
    }

    @Test
    void takesThatAreDeletedAreKeptUntilTheyAreTooMuch() {
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        int takes = 40;
        for (int i = 0; i < takes; i++) {
            EventStore log = new EventStore();
            for (int e = 0; e < 200_000; e++) {
                log.add(e, 0, ShortMessage.controller(0, 1, e & 127));
            }
            Take take = new Take("take-" + i, "Take", List.of("larkspur"), log, List.of(), TempoMap.of(96), 200_000, 0);
            document.edit("take", session -> session.withTakes(List.of(take)));
        }
        int back = 0;
        while (document.undoName().isPresent()) {
            document.undo();
            back++;
        }
        // Each is some 4 MB.
        assertThat(back).isBetween(20, takes - 2);
    }

    @Test
    void whatTwoSessionsShareCostsNothing() {
        Session demo = LamplightersRound.session();
        assertThat(HistoryCost.bytes(demo, demo)).isLessThan(1_000);
        Session zone = ZoneEdits.changeZone(demo, "bass-hand", it -> it.withKeys(new Range(30, 50)));
        assertThat(HistoryCost.bytes(zone, demo)).isLessThan(10_000);
        EventStore log = new EventStore();
        for (int e = 0; e < 100_000; e++) {
            log.add(e, 0, ShortMessage.controller(0, 1, e & 127));
        }
        Take take = new Take("take-1", "Take", List.of("larkspur"), log, List.of(), TempoMap.of(96), 100_000, 0);
        Session with = demo.withTakes(List.of(take));
        assertThat(HistoryCost.bytes(with, demo)).isGreaterThan(1_500_000);
        assertThat(HistoryCost.bytes(demo, with)).isLessThan(1_000);
        assertThat(HistoryCost.bytes(with.withName("Another"), with)).isLessThan(1_000);
    }
}
