package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.PrintMode;
import dibble.recording.Printer;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Sorting;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Takes kept, chosen again, routed again. */
class TakeEditsTest {
    private static final TempoMap TEMPO = LamplightersRound.session().tempo();
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");
    private static final PartRef UPRIGHT = new PartRef("sorrel", "upright");

    private final Session demo = LamplightersRound.session();
    private final Performance performance = Performance.NEW.withScene("snow");

    private static Session splitAt(Session session, int key) {
        Session lower = ZoneEdits.changeZone(session, "bass-hand", zone -> zone.withKeys(new Range(28, key - 1)));
        return ZoneEdits.changeZone(lower, "celesta", zone -> zone.withKeys(new Range(key, 100)));
    }

    private static Take take(List<Take.Mark> marks, Random random) {
        EventStore log = new EventStore();
        for (int i = 0; i < 400; i++) {
            int key = 40 + random.nextInt(30);
            long at = i * 50_000_000L;
            log.add(at, 0, ShortMessage.noteOn(0, key, 1 + random.nextInt(127)));
            if (random.nextInt(5) == 0) {
                log.add(at + 1, 0, ShortMessage.controller(0, 64, random.nextInt(128)));
            }
            log.add(at + 40_000_000L, 0, ShortMessage.noteOff(0, key, 64));
        }
        return new Take("take-1", "Take 1", List.of("larkspur"), log, marks, TEMPO, 400 * 50_000_000L, 0);
    }

    private static MidiTrack clip(Session session, PartRef part) {
        return session.trackOf(part).map(Track::sounding).orElse(Track.NOTHING);
    }

    @Property(tries = 20)
    void routedAgainTheTracksAreWhatTheyWouldHaveBeen(@ForAll long seed) {
        Session wrong = splitAt(demo, 48);
        Session right = splitAt(demo, 54);
        Routing wrongly = wrong.routing(performance);
        Routing rightly = right.routing(performance);
        Session played =
                TakeEdits.keep(wrong, performance, take(List.of(new Take.Mark(0, 0, wrongly)), new Random(seed)));
        Session moved = splitAt(played, 54);
        Session again = TakeEdits.routeAgain(moved, performance, "take-1");
        Session asItWouldHaveBeen =
                TakeEdits.keep(right, performance, take(List.of(new Take.Mark(0, 0, rightly)), new Random(seed)));
        for (PartRef part : List.of(CELESTA, UPRIGHT)) {
            assertThat(clip(again, part)).isEqualTo(clip(asItWouldHaveBeen, part));
            assertThat(clip(again, part)).isNotEqualTo(clip(played, part));
        }
        // The take is unchanged, and the previous print returns.
        assertThat(again.takes()).isEqualTo(played.takes());
        Session chosen = TakeEdits.choose(again, "take-1");
        assertThat(clip(chosen, CELESTA)).isEqualTo(clip(played, CELESTA));
    }

    @Property(tries = 20)
    void aZoneThatIsMovedInMidTakeIsPrintedAsItWasHeard(@ForAll long seed) {
        Session before = splitAt(demo, 48);
        Session after = splitAt(demo, 60);
        Take take = take(
                List.of(
                        new Take.Mark(0, 0, before.routing(performance)),
                        new Take.Mark(501, 10_000_000_000L, after.routing(performance))),
                new Random(seed));
        Session kept = TakeEdits.keep(after, performance, take);
        for (int i = 0; i < clip(kept, CELESTA).size(); i++) {
            int message = clip(kept, CELESTA).message(i);
            boolean before501 =
                    clip(kept, CELESTA).tick(i) <= demo.tempo().ticks(take.log().stamp(500));
            if (ShortMessage.startsNote(message)) {
                assertThat(ShortMessage.data1(message)).isGreaterThanOrEqualTo(before501 ? 48 : 60);
            }
        }
        assertThat(kept.trackOf(CELESTA).orElseThrow().noteCount()
                        + kept.trackOf(UPRIGHT).orElseThrow().noteCount())
                .isEqualTo(400);
    }

    @Test
    void whereTheSceneChangedWhileItWasPlayedItChangesWhenItIsRoutedAgain() {
        Session now = demo;
        Take take = take(
                List.of(
                        new Take.Mark(0, 0, now.routing(performance)),
                        new Take.Mark(
                                300, 6_000_000_000L, now.routing(performance).withScene("procession"))),
                new Random(1));
        Take again = TakeEdits.routedAgain(
                ZoneEdits.changeZone(now, "dulcimer", zone -> zone.withEnabled(false)), performance, take);
        assertThat(again.marks())
                .extracting(mark -> mark.routing().activeScene())
                .containsExactly("snow", "procession");
        assertThat(again.marks().get(1).routing().zones())
                .anyMatch(zone -> zone.id().equals("dulcimer") && !zone.enabled());
    }

    @Test
    void aTakeOnTopOrWithinLeavesWhatItDoesNotTouch() {
        Routing routing = demo.routing(performance);
        Take whole = take(List.of(new Take.Mark(0, 0, routing)), new Random(3));
        Session first = TakeEdits.keep(demo, performance, whole);
        int before = first.trackOf(CELESTA).orElseThrow().noteCount();
        EventStore log = new EventStore();
        log.add(0, 0, ShortMessage.noteOn(0, 90, 80));
        log.add(1_000_000_000L, 0, ShortMessage.noteOff(0, 90, 64));
        Take small = new Take(
                "take-2",
                "Take 2",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, routing)),
                TEMPO,
                2_000_000_000L,
                4_000_000_000L);
        Session ready = TrackEdits.readyToRecord(first);
        Set<String> armed = Set.of(first.trackOf(CELESTA).orElseThrow().id());
        Printer printer = Printer.print(small, ready.tracks(), armed);
        Session over = TakeEdits.keep(first, small, printer, PrintMode.OVERDUB);
        assertThat(over.trackOf(CELESTA).orElseThrow().noteCount()).isEqualTo(before + 1);
        Session within = TakeEdits.keep(first, small, printer, PrintMode.REPLACE_RANGE);
        assertThat(within.trackOf(CELESTA).orElseThrow().noteCount()).isLessThan(before);
        assertThat(within.trackOf(CELESTA).orElseThrow().noteCount()).isGreaterThan(before / 2);
        Session instead = TakeEdits.keep(first, small, printer, PrintMode.REPLACE_ALL);
        assertThat(clip(instead, CELESTA).endTick())
                .isLessThanOrEqualTo(demo.tempo().ticks(6_000_000_000L));
        // A track that was not armed is as it was.
        assertThat(clip(instead, UPRIGHT)).isEqualTo(clip(first, UPRIGHT));
        assertThat(TakeEdits.delete(over, "take-2").takes()).hasSize(1);
        assertThat(TakeEdits.rename(over, "take-2", "Verse").takes().get(1).name())
                .isEqualTo("Verse");
    }

    private Session recorded() {
        return TakeEdits.keep(
                demo, performance, take(List.of(new Take.Mark(0, 0, demo.routing(performance))), new Random(11)));
    }

    @Test
    void whatWasPlayedIsSortedByTheZonesOfNow() {
        Session session = ZoneEdits.cutZone(recorded(), "celesta", "celesta-high", 62);
        Track track = session.trackOf(CELESTA).orElseThrow();
        Sorting byZone = TrackSorting.byZone(session, performance, track, false);
        assertThat(byZone.piles()).extracting(Sorting.Pile::name).containsExactly("Celesta", "Celesta");
        assertThat(byZone.piles().stream().mapToInt(Sorting.Pile::notes).sum()).isEqualTo(track.noteCount());
        Sorting bySource = TrackSorting.byZone(session, performance, track, true);
        assertThat(bySource.piles()).extracting(Sorting.Pile::name).containsExactly("Larkspur 73");
        Session without = TakeEdits.delete(session, "take-1");
        assertThat(TrackSorting.byZone(without, performance, track, false).warning())
                .isNotEmpty();
    }

    @Test
    void whatComesOfSortingIsPlayedWhereTheTrackWas() {
        Session session = recorded();
        Track track = session.trackOf(CELESTA).orElseThrow();
        Sorting sorting = TrackSorting.by(session, track, Sorting.How.by(Sorting.By.RANGE));
        Session sorted = TrackSorting.sort(session, track, sorting);
        int place = session.tracks().indexOf(track);
        List<Track> more = sorted.tracks().subList(place + 1, place + 3);
        assertThat(more).allSatisfy(it -> {
            assertThat(it.input()).isEqualTo(new Track.Nothing());
            assertThat(it.playsOn()).contains(CELESTA);
        });
        assertThat(more.stream().mapToInt(Track::noteCount).sum()).isEqualTo(track.noteCount());
        // The original stays, and recording does not change the sorted tracks.
        assertThat(sorted.tracks()).contains(track);
        Session again = TakeEdits.choose(sorted, "take-1");
        assertThat(again.tracks()).containsAll(more);
    }

    private static TempoMap randomTempo(Random random) {
        List<TempoMap.Tempo> tempos = new ArrayList<>(List.of(new TempoMap.Tempo(0, 40 + random.nextInt(160))));
        List<TempoMap.Meter> meters = new ArrayList<>(List.of(new TempoMap.Meter(0, 2 + random.nextInt(4), 4)));
        for (int i = 1; i < 4; i++) {
            tempos.add(new TempoMap.Tempo(i * 7680L + random.nextInt(3840), 30 + random.nextInt(200)));
            meters.add(new TempoMap.Meter(i * 7680L, 1 + random.nextInt(7), 8));
        }
        return new TempoMap(tempos, meters);
    }

    private Take random(Random random, int number, TempoMap tempo, Routing routing) {
        EventStore log = new EventStore();
        long at = 0;
        for (int i = 0; i < 40; i++) {
            int key = 30 + random.nextInt(60);
            log.add(at, 0, ShortMessage.noteOn(0, key, 1 + random.nextInt(127)));
            if (random.nextInt(4) == 0) {
                log.add(at, 0, ShortMessage.controller(0, random.nextBoolean() ? 64 : 1, random.nextInt(128)));
            }
            at += 20_000_000 + random.nextInt(180_000_000);
            log.add(at, 0, ShortMessage.noteOff(0, key, random.nextInt(128)));
        }
        return new Take(
                "take-" + number,
                "Take " + number,
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, routing)),
                tempo,
                at,
                random.nextInt(12) * 1_000_000_000L);
    }

    @Property(tries = 60)
    void printingAnyTakeAgainChangesNothingHoweverTheTracksCameAbout(@ForAll long seed) {
        Random random = new Random(seed);
        Session session = TrackEdits.readyToRecord(demo);
        Set<String> all = session.tracks().stream().map(Track::id).collect(Collectors.toSet());
        Routing routing = session.routing(performance);
        for (int i = 1; i <= 5; i++) {
            session = session.withTempo(randomTempo(random));
            Take take = random(random, i, session.tempo(), routing);
            PrintMode onto = PrintMode.values()[random.nextInt(3)];
            session = TakeEdits.keep(session, take, Printer.print(take, session.tracks(), all), onto);
        }
        session = session.withTempo(randomTempo(random));
        for (Take take : session.takes()) {
            boolean sounds = session.tracks().stream()
                    .anyMatch(track -> !track.regions().of(take.id()).isEmpty());
            if (sounds) {
                Session again = TakeEdits.choose(session, take.id());
                assertThat(again.tracks()).isEqualTo(session.tracks());
                Session routed = TakeEdits.routeAgain(session, performance, take.id());
                assertThat(routed.tracks()).isEqualTo(session.tracks());
                assertThat(routed.tracks())
                        .extracting(Track::sounding)
                        .isEqualTo(
                                session.tracks().stream().map(Track::sounding).toList());
            }
        }
    }

    @Test
    void aTakeStaysOnItsBarsWhenTheTempoIsAnotherLater() {
        Session at120 = demo.withTempo(TempoMap.of(120));
        EventStore log = new EventStore();
        log.add(0, 0, ShortMessage.noteOn(0, 70, 80));
        log.add(500_000_000L, 0, ShortMessage.noteOff(0, 70, 64));
        // Bar 9 at 120 is 16 s from the start.
        Take take = new Take(
                "take-1",
                "Take 1",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, demo.routing(performance))),
                at120.tempo(),
                1_000_000_000L,
                16_000_000_000L);
        Session kept = TakeEdits.keep(at120, performance, take);
        assertThat(clip(kept, CELESTA).tick(0)).isEqualTo(8 * 3840);
        Session slower = kept.withTempo(TempoMap.of(90));
        assertThat(clip(TakeEdits.routeAgain(slower, performance, "take-1"), CELESTA)
                        .tick(0))
                .isEqualTo(8 * 3840);
    }

    private Session punched() {
        Session first = TakeEdits.keep(demo, performance, random(new Random(5), 1, TEMPO, demo.routing(performance)));
        Take whole = first.takes().get(0);
        EventStore log = new EventStore();
        log.add(0, 0, ShortMessage.noteOn(0, 90, 80));
        log.add(200_000_000L, 0, ShortMessage.noteOff(0, 90, 64));
        Take punch = new Take(
                "take-2",
                "Take 2",
                List.of("larkspur"),
                log,
                whole.marks(),
                TEMPO,
                800_000_000L,
                whole.start() + 1_000_000_000L);
        Set<String> all = first.tracks().stream().map(Track::id).collect(Collectors.toSet());
        return TakeEdits.keep(first, punch, Printer.print(punch, first.tracks(), all), PrintMode.REPLACE_RANGE);
    }

    @Test
    void aPunchThatIsPrintedAgainLeavesWhatIsBehindItAndTheFirstTakeLeavesThePunch() {
        Session punched = punched();
        assertThat(clip(TakeEdits.choose(punched, "take-2"), CELESTA)).isEqualTo(clip(punched, CELESTA));
        assertThat(clip(TakeEdits.choose(punched, "take-1"), CELESTA)).isEqualTo(clip(punched, CELESTA));
        Session moved = splitAt(punched, 60);
        Session routed = TakeEdits.routeAgain(moved, performance, "take-1");
        assertThat(routed.trackOf(CELESTA).orElseThrow().regions().of("take-2"))
                .isEqualTo(punched.trackOf(CELESTA).orElseThrow().regions().of("take-2"));
        assertThat(clip(routed, CELESTA)).isNotEqualTo(clip(punched, CELESTA));
    }

    @Test
    void sortingByZoneHasTheNotesOfAllTakesOnTheTrack() {
        Session punched = punched();
        Track track = punched.trackOf(CELESTA).orElseThrow();
        assertThat(track.regions().all()).hasSize(3);
        Sorting byZone = TrackSorting.byZone(punched, performance, track, false);
        assertThat(byZone.piles().stream().mapToInt(Sorting.Pile::notes).sum()).isEqualTo(track.noteCount());
        assertThat(byZone.warning()).isEmpty();
        Session without = TakeEdits.delete(punched, "take-1");
        Sorting rest = TrackSorting.byZone(without, performance, track, false);
        assertThat(rest.piles().stream().mapToInt(Sorting.Pile::notes).sum()).isEqualTo(track.noteCount());
        assertThat(rest.warning()).contains("a take that is gone");
    }

    @Test
    void whatWasEditedByHandSaysSoBeforeItIsOverwritten() {
        Session punched = punched();
        Track track = punched.trackOf(CELESTA).orElseThrow();
        Region own = track.regions().of("take-2").get(0).asEdited();
        Session edited = TrackEdits.replaceTracks(punched, List.of(track.withRegions(new Regions(List.of(own)))));
        assertThat(TakeEdits.compare(edited, TakeEdits.choose(edited, "take-2"), "take-2"))
                .filteredOn(TakeEdits.Outcome::edited)
                .extracting(outcome -> outcome.track().id())
                .containsExactly(track.id());
        assertThat(TakeEdits.choose(edited, "take-2")
                        .trackOf(CELESTA)
                        .orElseThrow()
                        .regions()
                        .of("take-2"))
                .noneMatch(Region::edited);
    }

    @Test
    void aTakeThatIsOnNoTrackMakesRoomForItselfWhereItLies() {
        Routing routing = demo.routing(performance);
        Session session = TrackEdits.readyToRecord(demo);
        Set<String> all = session.tracks().stream().map(Track::id).collect(Collectors.toSet());
        for (int i = 1; i <= 2; i++) {
            Take random = random(new Random(i), i, TEMPO, routing);
            Take take = new Take(
                    random.id(),
                    random.name(),
                    random.sources(),
                    random.log(),
                    random.marks(),
                    TEMPO,
                    random.length(),
                    0);
            session = TakeEdits.keep(session, take, Printer.print(take, session.tracks(), all), PrintMode.REPLACE_ALL);
        }
        assertThat(session.trackOf(CELESTA).orElseThrow().regions().of("take-1"))
                .isEmpty();
        Session chosen = TakeEdits.choose(session, "take-1");
        assertThat(chosen.trackOf(CELESTA).orElseThrow().regions().of("take-1")).hasSize(1);
        // An id is not given again while anything of its take is known.
        Session deleted = TakeEdits.delete(TakeEdits.delete(chosen, "take-1"), "take-2");
        assertThat(TakeEdits.freshTakeId(deleted)).isEqualTo("take-3");
    }

    @Test
    void whatWasEditedByHandStaysTogetherWhenItIsSortedByZone() {
        Session punched = punched();
        Track track = punched.trackOf(CELESTA).orElseThrow();
        List<Region> regions = track.regions().all().stream()
                .map(region -> "take-2".equals(region.take()) ? region.asEdited() : region)
                .toList();
        Track edited = track.withRegions(new Regions(regions));
        Sorting bySource =
                TrackSorting.byZone(TrackEdits.replaceTracks(punched, List.of(edited)), performance, edited, true);
        assertThat(bySource.piles()).extracting(Sorting.Pile::name).containsExactly("Larkspur 73", "From no take");
        assertThat(bySource.piles().get(1).notes()).isEqualTo(1);
        assertThat(bySource.warning()).startsWith("1 note was edited by hand");
    }

    @Test
    void aTakeThatIsRoutedOntoATrackThatIsAnothersLiesBesideIt() {
        // The upper half went to the celesta, and now to the bass, where a later take has been punched in.
        Session punched = punched();
        Session moved = ZoneEdits.changeZone(
                punched,
                "celesta",
                zone -> zone.with()
                        .to(new dibble.routing.ZoneTarget.ToPart(UPRIGHT))
                        .build());
        Session routed = TakeEdits.routeAgain(moved, performance, "take-1");
        Track celesta = routed.trackOf(CELESTA).orElseThrow();
        assertThat(celesta.regions().of("take-2"))
                .isEqualTo(punched.trackOf(CELESTA).orElseThrow().regions().of("take-2"));
        // Its own region has what leads there now: nothing.
        assertThat(celesta.regions().of("take-1"))
                .allMatch(region -> region.print().size() == 0);
        assertThat(routed.trackOf(UPRIGHT).orElseThrow().noteCount())
                .isGreaterThan(punched.trackOf(UPRIGHT).orElseThrow().noteCount());
        Session back = TakeEdits.choose(routed, "take-1");
        assertThat(clip(back, CELESTA)).isEqualTo(clip(punched, CELESTA));
        assertThat(clip(back, UPRIGHT)).isEqualTo(clip(punched, UPRIGHT));
    }
}
