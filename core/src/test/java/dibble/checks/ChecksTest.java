package dibble.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import dibble.demo.LamplightersRound;
import dibble.edits.GearEdits;
import dibble.edits.ZoneEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.Source;
import dibble.midi.ChannelSet;
import dibble.midi.EventKind;
import dibble.midi.Range;
import dibble.recording.Track;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSwitch;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.AcceptedFinding;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class ChecksTest {
    private static final PartRef HARP = new PartRef("yarrow", "harp");
    private static final PartRef WINDS = new PartRef("yarrow", "winds");

    /** Two parts, each played by half of a keyboard, each with its armed track: nothing to say. */
    private static Session good() {
        Instrument yarrow = Instrument.of(
                "yarrow",
                "Yarrow",
                false,
                "yarrow",
                List.of(
                        Part.of("harp", "Harp", 1, 46, new Range(20, 110), 1),
                        Part.of("winds", "Low winds", 2, 71, new Range(20, 110), 2)));
        Source larkspur = Source.keyboard("larkspur", "Larkspur", "keys", new Range(28, 100))
                .withListen(ChannelSet.of(1, 2));
        return Session.empty("Checks")
                .withSources(List.of(larkspur))
                .withInstruments(List.of(yarrow))
                .withZones(List.of(
                        Zone.of("low", "Low", "larkspur", new Range(28, 59), WINDS),
                        Zone.of("high", "High", "larkspur", new Range(60, 100), HARP)))
                .withTracks(List.of(Track.of("a", "A", HARP), Track.of("b", "B", WINDS)));
    }

    private static Session zone(String id, UnaryOperator<Zone> change) {
        return ZoneEdits.changeZone(good(), id, change);
    }

    private static Session part(PartRef ref, UnaryOperator<Part> change) {
        return GearEdits.changePart(good(), ref, change);
    }

    private static Session source(UnaryOperator<Source> change) {
        return GearEdits.changeSource(good(), "larkspur", change);
    }

    private static Session instrument(UnaryOperator<Instrument> change) {
        return good().withInstruments(List.of(change.apply(good().instruments().get(0))));
    }

    private static Session plus(Zone zone) {
        return ZoneEdits.addZone(good(), zone, null);
    }

    private static ControlMap map(String id, int number, SendTarget to) {
        return ControlMap.of(id, "larkspur", ControlMap.Trigger.controller(number), ControlMap.Send.controller(11, to));
    }

    private static Session sixteenMore() {
        List<Part> parts = new ArrayList<>(good().instruments().get(0).parts());
        IntStream.range(0, 15).forEach(i -> parts.add(Part.of("p" + i, "P" + i, null, 0, Range.ALL, 3)));
        return instrument(it -> it.withParts(parts));
    }

    private static Arguments mended(String code, String ids, Session session) {
        return Arguments.of(code, List.of(ids.split(" ")), session, true);
    }

    private static Arguments told(String code, String ids, Session session) {
        return Arguments.of(code, List.of(ids.split(" ")), session, false);
    }

    static Stream<Arguments> surprises() {
        PartRef gone = new PartRef("yarrow", "gone");
        Set<EventKind> all = EnumSet.complementOf(EnumSet.of(EventKind.NOTES));
        return Stream.of(
                told(
                        "part-missing",
                        "low yarrow/gone",
                        zone(
                                "low",
                                it -> it.with().to(new ZoneTarget.ToPart(gone)).build())),
                told(
                        "part-missing",
                        "c yarrow/gone",
                        good().withControls(List.of(map("c", 21, new ZoneTarget.ToPart(gone))))),
                told(
                        "part-missing",
                        "c dawn",
                        good().withControls(List.of(ControlMap.of(
                                "c",
                                "larkspur",
                                ControlMap.Trigger.controller(20),
                                new ControlMap.Send(
                                        ControlKind.SCENE, 0, 0, 127, null, new SendTarget.ToScene("dawn")))))),
                told(
                        "source-missing",
                        "low gone",
                        zone("low", it -> it.with().source("gone").build())),
                mended("source-missing", "gone", good().withSceneSwitch(new SceneSwitch("gone", 1))),
                mended("channel-clash", "yarrow/harp yarrow/winds", part(WINDS, it -> it.withChannel(1))),
                mended("no-channel-left", "yarrow/p13", sixteenMore()),
                mended(
                        "loop",
                        "larkspur yarrow",
                        good().withSources(List.of(Source.keyboard("larkspur", "Larkspur", "yarrow", new Range(28, 100))
                                .withEchoes(true)))),
                mended("doubled", "larkspur high more", plus(Zone.of("more", "", "larkspur", new Range(50, 80), HARP))),
                mended("doubled", "larkspur high more", plus(Zone.of("more", "", "larkspur", new Range(70, 80), HARP))),
                mended("doubled", "larkspur low", source(it -> it.withOwnSounds(true, "yarrow"))),
                mended("gap", "larkspur 50-59", zone("low", it -> it.withKeys(new Range(28, 49)))),
                mended("gap", "larkspur 28-30", zone("low", it -> it.withKeys(new Range(31, 59)))),
                mended("outside-part", "high larkspur", zone("high", it -> it.withTranspose(20))),
                mended("outside-part", "low larkspur", part(WINDS, it -> it.withKeys(new Range(40, 110)))),
                mended(
                        "deaf",
                        "low larkspur",
                        zone(
                                "low",
                                it -> it.with().channels(ChannelSet.of(1, 2, 5)).build())),
                told(
                        "deaf",
                        "low larkspur",
                        GearEdits.changeSource(
                                zone(
                                        "low",
                                        it -> it.with()
                                                .channels(ChannelSet.of(2))
                                                .build()),
                                "larkspur",
                                it -> it.withSends(ChannelSet.of(1)))),
                mended(
                        "twice-recorded",
                        "a c",
                        good().withTracks(List.of(
                                Track.of("a", "A", HARP), Track.of("b", "B", WINDS), Track.of("c", "C", HARP)))),
                told("omni-module", "yarrow", instrument(it -> it.withReceives(Receives.ALL))),
                mended("bypass", "yarrow larkspur", instrument(it -> it.withHearsDirectly(List.of("larkspur")))),
                told(
                        "fought-over",
                        "c d",
                        good().withControls(List.of(
                                map("c", 21, new ZoneTarget.ToPart(HARP)), map("d", 22, new SendTarget.AllParts())))),
                mended(
                        "hits-keyswitch",
                        "low larkspur",
                        part(WINDS, it -> it.withKeyswitches(Map.of(28, "Closed", 29, "Open")))),
                mended(
                        "scene-program-clash",
                        "one two",
                        good().withScenes(List.of(
                                Scene.of("one", "One", 3, List.of()), Scene.of("two", "Two", 3, List.of())))),
                told("unfed", "yarrow/winds", zone("low", it -> it.withEnabled(false))),
                mended("program-leak", "low larkspur", zone("low", it -> it.withPass(all))),
                told("layer", "larkspur low high", zone("high", it -> it.withKeys(new Range(50, 100)))));
    }

    private static Performance armed(Session session) {
        Performance performance = Performance.NEW;
        for (Track track : session.tracks()) {
            performance = performance.withArmed(track.id(), true);
        }
        return performance;
    }

    private static List<Finding> find(String code, Session session, Performance performance) {
        return Checks.run(session, performance).stream()
                .filter(finding -> finding.code().equals(code))
                .toList();
    }

    @Test
    void aSessionThatSurprisesNobodyHasNoFindings() {
        assertThat(Checks.run(good(), armed(good()))).isEmpty();
    }

    @ParameterizedTest
    @MethodSource("surprises")
    void eachSurpriseIsFoundOnceAndMendedWhereItCanBe(
            String code, List<String> ids, Session session, boolean mendable) {
        List<Finding> found = find(code, session, armed(session));
        assertThat(found).extracting(Finding::ids).contains(ids).doesNotHaveDuplicates();
        Finding finding =
                found.stream().filter(it -> it.ids().equals(ids)).findFirst().orElseThrow();
        assertThat(finding.text()).endsWith(".");
        assertThat(finding.mend().isPresent()).isEqualTo(mendable);
        if (mendable) {
            Session after = finding.mend().get().session().apply(session);
            Performance performance = finding.mend().get().performance().apply(armed(session));
            assertThat(find(code, after, performance)).extracting(Finding::ids).doesNotContain(ids);
        }
    }

    @ParameterizedTest
    @MethodSource("surprises")
    void mendingACheckLeavesNothingOfItThatItCouldMend(
            String code, List<String> ids, Session session, boolean mendable) {
        Checks.Checked mended = Checks.mend(session, armed(session), code);
        assertThat(find(code, mended.session(), mended.performance()))
                .noneMatch(finding -> finding.mend().isPresent());
        assertThat(mended.session().equals(session) && mended.performance().equals(armed(session)))
                .isEqualTo(!mendable);
    }

    @ParameterizedTest
    @MethodSource("surprises")
    void whatIsMarkedAsIntendedIsNotReportedAgain(String code, List<String> ids, Session session, boolean mendable) {
        Session settled = session.withSettled(List.of(new AcceptedFinding(code, ids)));
        assertThat(find(code, settled, armed(session))).extracting(Finding::ids).doesNotContain(ids);
    }

    @Test
    void aPartIsUnrecordedWhileItsTrackIsNotArmed() {
        Performance performance = armed(good()).withArmed("b", false);
        List<Finding> found = find("unrecorded", good(), performance);
        assertThat(found).extracting(Finding::ids).containsExactly(List.of("yarrow/winds"));
        assertThat(found.get(0).mend().orElseThrow().performance().apply(performance))
                .isEqualTo(armed(good()));
    }

    @Test
    void portsAreMissedOnlyWhereTheyAreKnown() {
        assertThat(find("port-missing", good(), armed(good()))).isEmpty();
        assertThat(Checks.run(good(), armed(good()), Live.ports(Set.of("yarrow"))))
                .extracting(Finding::code, Finding::ids)
                .containsExactly(tuple("port-missing", List.of("larkspur")));
    }

    @Test
    void zonesCountForEachSceneTogetherWithThoseThatAreAlwaysThere() {
        Zone again = Zone.of("again", "", "larkspur", new Range(90, 100), HARP);
        Session session = good().withScenes(
                        List.of(Scene.of("one", "One", 0, List.of()), Scene.of("two", "Two", 1, List.of(again))));
        assertThat(find("doubled", session, armed(session)))
                .extracting(Finding::text)
                .containsExactly(
                        "Larkspur, F♯6 90 to E7 100: zone “High” and zone to Yarrow / Harp both play Yarrow / Harp,"
                                + " in scene “Two”.");
    }

    @Test
    void zonesThatTheSessionOfTheDemoHasAreMeant() {
        Session demo = LamplightersRound.session();
        assertThat(Checks.run(demo, LamplightersRound.performance()))
                .noneMatch(finding -> finding.level() == Level.ERROR);
    }

    /** Findings that depend on the running gear. */
    @Test
    void loopsTwinsAndMissingPortsAreFoundLive() {
        Session session = GearEdits.addSource(good(), Source.keyboard("tansy", "Tansy", "more keys", Range.ALL));
        Live live = new Live(
                Optional.of(Set.of("keys", "more keys")),
                Set.of(new Live.Loop("more keys", "yarrow")),
                Set.of(new Live.Twins("larkspur", "tansy"), new Live.Twins("larkspur", "gone")));
        List<Finding> found = Checks.find(Set.of("loop", "twin-ports", "port-missing"), session, Performance.NEW, live);
        assertThat(found)
                .extracting(Finding::code, Finding::ids)
                .containsExactly(
                        tuple("loop", List.of("tansy", "yarrow")),
                        tuple("twin-ports", List.of("larkspur", "tansy")),
                        tuple("port-missing", List.of("yarrow")));
        Session mended = found.get(1).mend().orElseThrow().session().apply(session);
        assertThat(Checks.find(Set.of("twin-ports"), mended, Performance.NEW, live))
                .isEmpty();
    }

    @Test
    void everyCheckSaysWhatComesOfIt() {
        assertThat(Checks.codes())
                .doesNotHaveDuplicates()
                .allSatisfy(code -> assertThat(Checks.about(code)).endsWith("."));
        assertThatThrownBy(() -> Checks.about("nothing")).hasMessageContaining("check nothing (expected one of");
    }

    @Test
    void aSourcesTrackAndItsPartsRecordTheSame() {
        Session session = good().withTracks(List.of(
                Track.of("a", "A", HARP),
                Track.of("all", "All", new Track.OfSource("larkspur")),
                Track.of("high", "High", new Track.OfZone("high")),
                Track.of("low", "Low", new Track.OfZone("low")),
                Track.of("sorted", "Sorted", new Track.Nothing())));
        Performance both = Performance.NEW.withArmed("a", true).withArmed("all", true);
        assertThat(Checks.find(Set.of("twice-recorded"), session, both, Live.UNKNOWN))
                .extracting(Finding::ids)
                .containsExactly(List.of("a", "all"));
        Performance apart =
                Performance.NEW.withArmed("a", true).withArmed("low", true).withArmed("sorted", true);
        assertThat(Checks.find(Set.of("twice-recorded"), session, apart, Live.UNKNOWN))
                .isEmpty();
    }
}
