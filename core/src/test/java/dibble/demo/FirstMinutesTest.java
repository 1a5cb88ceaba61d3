package dibble.demo;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.checks.Checks;
import dibble.edits.TakeEdits;
import dibble.edits.TrackEdits;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.List;
import org.junit.jupiter.api.Test;

class FirstMinutesTest {
    private final FirstMinutes minutes = new FirstMinutes();
    private Session session = FirstMinutes.session("First");

    private void stays(FirstMinutes.Step step) {
        assertThat(minutes.look(session)).isFalse();
        assertThat(minutes.now()).isEqualTo(step);
    }

    private void goesOnTo(FirstMinutes.Step step) {
        assertThat(minutes.look(session)).isTrue();
        assertThat(minutes.now()).isEqualTo(step);
    }

    @Test
    void eachStepIsNoticedWhenItIsDoneAndNotBefore() {
        stays(FirstMinutes.Step.PLAY);
        minutes.played();
        goesOnTo(FirstMinutes.Step.SPLIT);
        stays(FirstMinutes.Step.SPLIT);
        session = ZoneEdits.splitAt(
                session, "bass", "larkspur", new PartRef("sorrel", "upright-bass"), new Range(28, 100), 54, true);
        goesOnTo(FirstMinutes.Step.LAYER);
        stays(FirstMinutes.Step.LAYER);
        session = ZoneEdits.addZone(
                session,
                Zone.of("bowls", "", "larkspur", new Range(60, 90), new PartRef("sorrel", "glass-bowls")),
                null);
        goesOnTo(FirstMinutes.Step.SECOND_KEYBOARD);
        session = session.withSources(List.of(
                session.sources().get(0), Source.keyboard("tansy", "Tansy 32", "stand-in:tansy", new Range(53, 84))));
        stays(FirstMinutes.Step.SECOND_KEYBOARD);
        session = ZoneEdits.addZone(
                session, Zone.of("marimba", "", "tansy", new Range(53, 84), new PartRef("sorrel", "marimba")), null);
        goesOnTo(FirstMinutes.Step.RECORD);
        stays(FirstMinutes.Step.RECORD);
        recordBoth();
        goesOnTo(FirstMinutes.Step.ROUTE_AGAIN);
        stays(FirstMinutes.Step.ROUTE_AGAIN);
        session = ZoneEdits.changeZone(session, "bass", zone -> zone.withKeys(new Range(28, 47)));
        session = ZoneEdits.changeZone(session, "celesta", zone -> zone.withKeys(new Range(48, 100)));
        stays(FirstMinutes.Step.ROUTE_AGAIN);
        session = TakeEdits.routeAgain(session, Performance.NEW, "take-1");
        assertThat(minutes.look(session)).isTrue();
        assertThat(minutes.now()).isNull();
        assertThat(minutes.look(session)).isFalse();
    }

    private void recordBoth() {
        EventStore log = new EventStore();
        for (int source = 0; source < 2; source++) {
            int key = source == 0 ? 50 : 70;
            log.add(source * 1_000_000_000L, source, ShortMessage.noteOn(0, key, 80));
            log.add(source * 1_000_000_000L + 400_000_000L, source, ShortMessage.noteOff(0, key, 64));
        }
        session = TrackEdits.addMissingTracks(session);
        Take take = new Take(
                "take-1",
                "Take 1",
                List.of("larkspur", "tansy"),
                log,
                List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                session.tempo(),
                2_000_000_000L,
                0);
        Performance armed = Performance.NEW;
        for (Track track : session.tracks()) {
            armed = armed.withArmed(track.id(), true);
        }
        session = TakeEdits.keep(session, armed, take);
    }

    @Test
    void theSessionThatItBeginsWithHasNoWarnings() {
        assertThat(Checks.run(session, Performance.NEW))
                .noneMatch(it -> !it.code().equals("unfed"));
    }
}
