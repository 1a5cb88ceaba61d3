package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.demo.LamplightersRound;
import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.gear.PartRef;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Printer;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

/** Zones cut, copied, moved, brought together; keyswitches; tracks of single keys. */
class ZoneEditsTest {
    private static final PartRef HANDS = new PartRef("sorrel", "hands");
    private final Session demo = LamplightersRound.session();

    @Test
    void aZoneIsCutInTwoWhereItHolds() {
        Session cut = ZoneEdits.cutZone(demo, "bowls-soft", "upper", 80);
        assertThat(cut.zone("bowls-soft").orElseThrow().keys()).isEqualTo(new Range(66, 79));
        Zone upper = cut.zone("upper").orElseThrow();
        assertThat(upper.keys()).isEqualTo(new Range(80, 96));
        assertThat(upper.velocity()).isEqualTo(new Range(1, 78));
        assertThat(cut.sceneOf("upper").orElseThrow().id()).isEqualTo("dusk");
        assertThatThrownBy(() -> ZoneEdits.cutZone(demo, "bowls-soft", "upper", 66))
                .isInstanceOf(UserException.class);
    }

    @Test
    void aZoneIsCopiedToAnotherSourceAndMovedToAScene() {
        Session copied = ZoneEdits.copyZone(demo, demo.zone("celesta").orElseThrow(), "again", "tansy", "snow");
        assertThat(copied.zone("again").orElseThrow().source()).isEqualTo("tansy");
        assertThat(copied.sceneOf("again").orElseThrow().id()).isEqualTo("snow");
        Session moved = ZoneEdits.moveZone(copied, "again", null);
        assertThat(moved.sceneOf("again")).isEmpty();
        assertThat(moved.zone("again")).isEqualTo(copied.zone("again"));
        assertThat(ZoneEdits.moveZone(copied, "again", "snow")).isSameAs(copied);
    }

    private static Zone zone(String id, int low, int high) {
        return Zone.of(id, "", "larkspur", new Range(low, high), HANDS);
    }

    private List<Range> closed(Zone... zones) {
        Session session = demo.withZones(List.of(zones)).withScenes(List.of());
        return ZoneEdits.closeGaps(session, session.zones()).zones().stream()
                .map(Zone::keys)
                .toList();
    }

    @Test
    void gapsCloseOverlapsEndAndLayersStay() {
        assertThat(closed(zone("a", 20, 40), zone("b", 50, 70), zone("c", 65, 90)))
                .containsExactly(new Range(20, 49), new Range(50, 64), new Range(65, 90));
        assertThat(closed(zone("a", 20, 60), zone("soft", 30, 60), zone("b", 70, 90)))
                .containsExactly(new Range(20, 69), new Range(30, 69), new Range(70, 90));
        assertThat(closed(zone("a", 20, 60))).containsExactly(new Range(20, 60));
    }

    /** However the zones lie: afterwards no key between the first and the last is without one, and none grew at its low end. */
    @Property(tries = 300)
    void nothingIsLeftBetweenZones(
            @ForAll @Size(min = 1, max = 8) List<@IntRange(min = 0, max = 100) Integer> lows,
            @ForAll @IntRange(min = 0, max = 27) int width) {
        List<Zone> zones = new ArrayList<>();
        for (int i = 0; i < lows.size(); i++) {
            zones.add(zone("z" + i, lows.get(i), lows.get(i) + width * (i % 3) / 2));
        }
        Session session = demo.withZones(zones).withScenes(List.of());
        List<Zone> after = ZoneEdits.closeGaps(session, session.zones()).zones();
        int first = zones.stream().mapToInt(zone -> zone.keys().low()).min().orElseThrow();
        int last = zones.stream().mapToInt(zone -> zone.keys().high()).max().orElseThrow();
        for (int key = first; key <= last; key++) {
            int now = key;
            assertThat(after).anyMatch(zone -> zone.keys().holds(now));
        }
        for (int i = 0; i < zones.size(); i++) {
            assertThat(after.get(i).keys().low()).isEqualTo(zones.get(i).keys().low());
        }
    }

    @Test
    void keyswitchesLieOnKeysOneAfterTheOther() {
        Session session = ZoneEdits.addKeyswitchZone(demo, "stops", "fern", new PartRef("yarrow", "organ"), 36);
        Zone stops = session.zone("stops").orElseThrow();
        assertThat(stops.keyswitch()).isTrue();
        assertThat(stops.keys()).isEqualTo(new Range(36, 38));
        assertThat(stops.noteMap()).isEqualTo(Map.of(36, List.of(24), 37, List.of(25), 38, List.of(26)));
        assertThatThrownBy(() -> ZoneEdits.addKeyswitchZone(demo, "none", "fern", HANDS, 36))
                .hasMessageContaining("keyswitches");
    }

    @Test
    void oneZoneIsHeardAlone() {
        Routing alone = demo.routing(LamplightersRound.performance()).alone("celesta");
        assertThat(alone.zones().stream().filter(Zone::enabled).map(Zone::id))
                .contains("celesta", "marimba", "drums")
                .doesNotContain("bass-hand", "bowls-soft");
        Routing all = demo.routing(LamplightersRound.performance());
        assertThat(all.alone("gone")).isSameAs(all);
    }

    @Test
    void eachDrumIsRecordedOnItsOwnTrackAndTheOthersOnTheParts() throws SessionFormatException {
        Session session = TrackEdits.addKeyTracks(TrackEdits.addMissingTracks(demo), HANDS, List.of(41, 43));
        session = TrackEdits.addKeyTracks(session, HANDS, List.of(43));
        List<Track> drums = session.tracks().stream()
                .filter(track -> track.part().filter(HANDS::equals).isPresent())
                .toList();
        assertThat(drums).hasSize(3);
        assertThat(session.trackOf(HANDS, 41)).contains(drums.get(0));
        assertThat(session.trackOf(HANDS, 60)).contains(drums.get(2));
        assertThat(SessionContent.readJson(SessionContent.json(session, Performance.NEW))
                        .session()
                        .tracks())
                .extracting(Track::input)
                .isEqualTo(session.tracks().stream().map(Track::input).toList());
        Printer printer = new Printer(
                session.tracks(), session.tracks().stream().map(Track::id).collect(Collectors.toSet()));
        printer.install(session.routing(LamplightersRound.performance()), 0);
        // The pads' first key plays 41, the third 43, the fourth 44.
        for (int key : new int[] {53, 55, 56}) {
            printer.event("sedge", ShortMessage.noteOn(9, key, 90), 1000L * key, false);
            printer.event("sedge", ShortMessage.noteOff(9, key, 64), 1000L * key + 500, false);
        }
        printer.finish(1_000_000);
        for (Track drum : drums) {
            int place = session.tracks().indexOf(drum);
            assertThat(printer.takesSomething(place)).isTrue();
            EventStore printed = printer.log(place);
            Set<Integer> notes = new java.util.HashSet<>();
            for (int i = 0; i < printed.size(); i++) {
                notes.add(ShortMessage.data1(printed.message(i)));
            }
            int expected = drum.input() instanceof Track.OfKey of ? of.key() : 44;
            assertThat(notes).containsExactly(expected);
            assertThat(printed.size()).isEqualTo(2);
        }
    }
}
