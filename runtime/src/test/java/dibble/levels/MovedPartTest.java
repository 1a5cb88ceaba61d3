package dibble.levels;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.edits.TakeEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.PrintMode;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** A part that moves to another channel between two overdubs takes along all that was recorded for it. */
class MovedPartTest {
    private static final TempoMap TEMPO = TempoMap.of(125);
    private static final long TICK = 500_000;
    private static final PartRef HARP = new PartRef("yarrow", "harp");

    private static Session session() {
        return Session.empty("Moved")
                .withTempo(TEMPO)
                .withSources(List.of(Source.keyboard("larkspur", "Larkspur", "keys", Range.ALL)))
                .withInstruments(List.of(onChannel(1)))
                .withZones(List.of(Zone.of("all", "", "larkspur", Range.ALL, HARP)))
                .withTracks(List.of(Track.of("harp", "Harp", HARP)));
    }

    private static Instrument onChannel(int channel) {
        return Instrument.of(
                "yarrow", "Yarrow", false, "yarrow", List.of(Part.of("harp", "Harp", channel, 46, Range.ALL, 1)));
    }

    private static Session overdubbed(Session session, long at, int... messages) {
        EventStore log = new EventStore();
        for (int i = 0; i < messages.length; i++) {
            log.add(i * 100 * TICK, 0, messages[i]);
        }
        String id = TakeEdits.freshTakeId(session);
        List<Take.Mark> marks = List.of(new Take.Mark(0, 0, session.routing(Performance.NEW)));
        Take take = new Take(id, id, List.of("larkspur"), log, marks, TEMPO, messages.length * 100 * TICK, at * TICK);
        return TakeEdits.keep(session, take, Printer.print(take, session.tracks(), Set.of("harp")), PrintMode.OVERDUB);
    }

    @Test
    void notesAndPedalsOfBothOverdubsLastAsLongAsTheyWereHeld() {
        Session first = overdubbed(
                session(),
                0,
                ShortMessage.noteOn(0, 60, 80),
                ShortMessage.controller(0, 64, 127),
                ShortMessage.controller(0, 1, 50),
                ShortMessage.controller(0, 64, 0),
                ShortMessage.noteOff(0, 60, 64));
        Session moved = first.withInstruments(List.of(onChannel(5)));
        Session both = overdubbed(moved, 150, ShortMessage.noteOn(0, 64, 70), ShortMessage.noteOff(0, 64, 64));
        OfflinePlayback rendition = OfflinePlayback.ofTracks(both, Performance.NEW);
        List<String> played = new ArrayList<>();
        for (int i = 0; i < rendition.size(); i++) {
            int message = rendition.message(i);
            boolean isPedal =
                    ShortMessage.kind(message) == ShortMessage.CONTROLLER && ShortMessage.data1(message) == 64;
            assertThat(ShortMessage.channel(message)).isEqualTo(4);
            if (ShortMessage.isNote(message) || isPedal) {
                played.add(rendition.stamp(i) / TICK
                        + (ShortMessage.startsNote(message) ? " on " : " ")
                        + ShortMessage.data1(message));
            }
        }
        assertThat(played).containsExactly("0 on 60", "100 64", "150 on 64", "250 64", "300 64", "400 60");
    }
}
