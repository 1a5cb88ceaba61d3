package dibble.studio;

import static dibble.midi.ShortMessage.controller;
import static dibble.midi.ShortMessage.noteOff;
import static dibble.midi.ShortMessage.noteOn;
import static dibble.midi.ShortMessage.programChange;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.edits.ZoneEdits;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.gear.Source;
import dibble.gear.UnknownFields;
import dibble.midi.ChannelSet;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.RealTime;
import dibble.midi.ShortMessage;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.SceneSwitch;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.session.ClockPlan;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.HandClock;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Ports that come and go, scenes that are called by playing, loops: the studio around the router. */
@Tag("slow")
class PortsTest {
    private static final PartRef HARP = new PartRef("yarrow", "harp");
    private static final PartRef WINDS = new PartRef("yarrow", "winds");

    private final FakeDevices devices = new FakeDevices();
    private final FakeDevices.Out yarrow = devices.out("yarrow");
    private final FakeDevices.In keys = devices.in("keys");
    private final HandClock clock = new HandClock();
    private Document document;
    private Studio studio;

    private static Session session() {
        Instrument instrument = Instrument.of(
                "yarrow",
                "Yarrow",
                false,
                "yarrow",
                List.of(
                        Part.of("harp", "Harp", 1, 46, Range.ALL, 1),
                        Part.of("winds", "Low winds", 2, 71, Range.ALL, 2)));
        return Session.empty("Ports")
                .withSources(List.of(Source.keyboard("larkspur", "Larkspur", "keys", Range.ALL)))
                .withInstruments(List.of(instrument))
                .withScenes(List.of(
                        Scene.of("dusk", "Dusk", 0, List.of(Zone.of("one", "", "larkspur", Range.ALL, HARP))),
                        Scene.of("snow", "Snow", 1, List.of(Zone.of("two", "", "larkspur", Range.ALL, WINDS)))))
                .withSceneSwitch(new SceneSwitch("larkspur", 1));
    }

    private void open(Session session) {
        document = new Document(session, Performance.NEW);
        studio = new Studio(clock, devices, document);
        settle();
    }

    /** Waits until all that was decided has been sent. */
    private void settle() {
        studio.soundingCount();
        studio.lane("yarrow").ifPresent(lane -> await().until(() -> lane.backlog() == 0));
    }

    private List<Integer> sentAfter(Runnable act) {
        settle();
        int before = yarrow.sent.size();
        act.run();
        settle();
        // The last of them may be on its way from the lane to the port.
        await().until(() -> studio.lane("yarrow")
                .map(lane -> lane.sent() >= yarrow.sent.size())
                .orElse(true));
        return new ArrayList<>(yarrow.sent.subList(before, yarrow.sent.size()));
    }

    @AfterEach
    void close() {
        if (studio != null) {
            studio.close();
        }
    }

    /** A source that listens to every port keeps the keys that are held on the ports that stay. */
    @Test
    void aPortThatGoesReleasesItsOwnKeysAlone() {
        FakeDevices.In other = devices.in("other");
        open(session().withSources(List.of(Source.keyboard("larkspur", "Larkspur", "any", Range.ALL))));
        sentAfter(() -> keys.play(noteOn(0, 60, 80)));
        sentAfter(() -> other.play(noteOn(0, 64, 80), controller(0, 64, 127)));
        assertThat(sentAfter(other::goAway)).containsExactly(noteOff(0, 64, 64), controller(0, 64, 0));
        assertThat(studio.soundingCount()).isEqualTo(1);
        assertThat(sentAfter(() -> keys.play(noteOff(0, 60, 33)))).containsExactly(noteOff(0, 60, 33));
    }

    @Test
    void aPortThatGoesIsForgottenAndOneThatIsBackIsQuietedAndSoundsAgain() {
        open(session());
        sentAfter(() -> keys.play(noteOn(0, 60, 80), controller(0, 64, 127)));
        devices.outs.remove("yarrow");
        studio.portsChanged();
        keys.play(noteOn(0, 62, 80), noteOff(0, 60, 64), controller(0, 64, 0));
        assertThat(studio.soundingCount()).isZero();
        FakeDevices.Out again = devices.out("yarrow");
        studio.portsChanged();
        keys.play(noteOn(0, 64, 80));
        await().untilAsserted(() -> assertThat(again.sent).contains(noteOn(0, 64, 80)));
        // Channel 2 got its sound, channel 1 its sound and notes: both were in use.
        assertThat(again.sent)
                .startsWith(
                        controller(0, 123, 0),
                        controller(0, 120, 0),
                        controller(1, 123, 0),
                        controller(1, 120, 0),
                        programChange(0, 46))
                .doesNotContain(noteOff(0, 60, 64));
    }

    @Test
    void aSourceWhosePortGoesLetsGoAndPlaysAgainWhenItIsBack() {
        open(session());
        assertThat(sentAfter(() -> {
                    keys.play(noteOn(0, 60, 80), controller(0, 64, 127));
                    devices.ins.remove("keys");
                    studio.portsChanged();
                }))
                .containsExactly(noteOn(0, 60, 80), controller(0, 64, 127), noteOff(0, 60, 64), controller(0, 64, 0));
        assertThat(sentAfter(() -> keys.play(noteOn(0, 61, 80)))).isEmpty();
        devices.ins.put("keys", keys);
        studio.portsChanged();
        assertThat(sentAfter(() -> keys.play(noteOn(0, 62, 80)))).containsExactly(noteOn(0, 62, 80));
    }

    @Test
    void twoSourcesShareAPortByTheirChannelsAndAnyTakesTheRest() {
        Session shared = session();
        List<Source> sources = List.of(
                Source.keyboard("larkspur", "Larkspur", "keys", Range.ALL).withListen(ChannelSet.of(1)),
                Source.keyboard("upper", "Upper", "keys", Range.ALL).withListen(ChannelSet.of(2)),
                Source.keyboard("rest", "Rest", "any", Range.ALL));
        FakeDevices.In other = devices.in("other");
        open(shared.withSources(sources)
                .withZones(List.of(
                        Zone.of("u", "", "upper", Range.ALL, WINDS),
                        Zone.of("r", "", "rest", Range.ALL, HARP).withTranspose(12))));
        assertThat(sentAfter(() -> keys.play(noteOn(0, 60, 80), noteOn(1, 60, 81))))
                .containsExactly(noteOn(0, 60, 80), noteOn(1, 60, 81));
        assertThat(sentAfter(() -> other.play(noteOn(5, 60, 82)))).containsExactly(noteOn(0, 72, 82));
    }

    @Test
    void aSceneThatIsCalledByPlayingIsKnownToThePerformanceAndToTheTake() {
        open(session());
        studio.record();
        keys.play(noteOn(0, 60, 80), programChange(0, 1), noteOn(0, 62, 80), noteOff(0, 60, 64), noteOff(0, 62, 64));
        await().until(() -> {
            studio.pulse();
            return "snow".equals(document.performance().activeScene());
        });
        document.perform(performance -> performance.withScene("dusk"));
        keys.play(noteOn(0, 64, 80), noteOff(0, 64, 64));
        studio.stop();
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == 1;
        });
        // A port's own thread sends.
        await().untilAsserted(() -> assertThat(yarrow.sent)
                .contains(noteOn(0, 60, 80), noteOn(1, 62, 80), noteOff(0, 60, 64), noteOff(1, 62, 64))
                .contains(noteOn(0, 64, 80)));
        assertThat(document.session().trackOf(HARP).orElseThrow().sounding().size())
                .isEqualTo(4);
        assertThat(document.session().trackOf(WINDS).orElseThrow().sounding().size())
                .isEqualTo(2);
    }

    @Test
    void anEditStaysInTheSceneThatPlayingHasCalled() {
        open(session());
        List<Integer> sent = sentAfter(() -> {
            keys.play(programChange(0, 1));
            document.edit("other", session -> ZoneEdits.changeZone(session, "two", zone -> zone.withTranspose(1)));
            keys.play(noteOn(0, 60, 80));
        });
        assertThat(sent).containsExactly(noteOn(1, 61, 80));
    }

    @Test
    void aSceneGivesItsSoundsWhereThePartDoesNotHaveThem() {
        Session session = session();
        Scene snow = session.scenes()
                .get(1)
                .withSounds(List.of(
                        new SceneSound(HARP, new Sound(null, 47, 100, null), UnknownFields.NONE),
                        new SceneSound(WINDS, new Sound(List.of(1, 2), 71, null, 30), UnknownFields.NONE)));
        open(session.withScenes(List.of(session.scenes().get(0), snow)));
        List<Integer> first = sentAfter(() -> document.perform(performance -> performance.withScene("snow")));
        // The harp has volume 100 already; a bank needs its program behind it.
        assertThat(first)
                .containsExactly(
                        programChange(0, 47),
                        controller(1, 0, 1),
                        controller(1, 32, 2),
                        programChange(1, 71),
                        controller(1, 10, 30));
        assertThat(sentAfter(() -> keys.play(programChange(0, 0), programChange(0, 1))))
                .isEmpty();
    }

    @Test
    void aSceneIsCalledByAKeyOfSomebodyWhoIsNotHeard() {
        ControlMap next = ControlMap.of(
                "next",
                "larkspur",
                new ControlMap.Trigger(ControlKind.NOTE, 24, 0, 127),
                new ControlMap.Send(
                        ControlKind.SCENE, 0, 0, 127, null, new SendTarget.ToScene(SendTarget.ToScene.NEXT)));
        open(session().withControls(List.of(next)));
        document.perform(performance -> performance.withHeard("larkspur", false));
        assertThat(sentAfter(() -> keys.play(noteOn(0, 24, 80), noteOff(0, 24, 64), noteOn(0, 60, 80))))
                .isEmpty();
        studio.pulse();
        assertThat(document.performance().activeScene()).isEqualTo("snow");
    }

    @Test
    void systemExclusiveGoesUnchangedWhereItsSourceSendsIt() {
        Session session = session();
        open(session.withSources(List.of(session.sources().get(0).withSysexTo(List.of("yarrow", "gone")))));
        keys.playExclusive((byte) 0xF0, (byte) 0x7D, (byte) 1, (byte) 0xF7);
        await().until(() -> yarrow.exclusive.size() == 1);
        assertThat(yarrow.exclusive.get(0)).containsExactly(0xF0, 0x7D, 1, 0xF7);
    }

    @Test
    void whatComesBackIsCutOffAndBothPortsAreNamed() {
        FakeDevices.In clover = devices.in("clover");
        FakeDevices.Out looper = devices.out("clover");
        Instrument echoing =
                Instrument.of("clover", "Clover", false, "clover", List.of(Part.of("a", "A", 1, 0, Range.ALL, 3)));
        Session session = session();
        List<Zone> zones = List.of(
                Zone.of("in", "", "larkspur", Range.ALL, new PartRef("clover", "a")),
                Zone.of("back", "", "clover", Range.ALL, new PartRef("clover", "a")));
        open(session.withSources(
                        List.of(session.sources().get(0), Source.keyboard("clover", "Clover", "clover", Range.ALL)))
                .withInstruments(List.of(session.instruments().get(0), echoing))
                .withZones(zones));
        studio.record();
        looper.echo = clover::play;
        keys.play(noteOn(0, 60, 80));
        await().until(() -> !studio.loops().isEmpty());
        assertThat(studio.loops()).containsExactly(new Loop("clover", "clover"));
        keys.play(noteOff(0, 60, 64), noteOn(0, 62, 80));
        studio.soundingCount();
        await().until(() -> studio.lane("clover").orElseThrow().backlog() == 0);
        // Every on that the looper got has its off, and nothing came after the cut.
        await().untilAsserted(() -> assertThat(looper.sent.stream()
                        .filter(message -> message == noteOff(0, 60, 64))
                        .count())
                .isEqualTo(looper.sent.stream()
                        .filter(message -> message == noteOn(0, 60, 80))
                        .count()));
        assertThat(looper.sent).doesNotContain(noteOn(0, 62, 80));
        looper.echo = message -> {};
        studio.allowLoop("clover");
        keys.play(noteOn(0, 64, 80));
        await().until(() -> looper.sent.contains(noteOn(0, 64, 80)));
        studio.stop();
        await().until(() -> {
            studio.pulse();
            return !document.session().takes().isEmpty();
        });
        Take take = document.session().takes().get(0);
        long echoes = 0;
        for (int i = 0; i < take.log().size(); i++) {
            echoes += take.log().isEcho(i) ? 1 : 0;
        }
        assertThat(echoes).isPositive().isLessThan(take.log().size());
    }

    /** The key of a note whose off came back after the loop was found is up: live, printed, and for the next recording. */
    @Test
    void noKeyIsHeldByALoopThatWasCut() {
        FakeDevices.In clover = devices.in("clover");
        FakeDevices.Out looper = devices.out("clover");
        Instrument echoing =
                Instrument.of("clover", "Clover", false, "clover", List.of(Part.of("a", "A", 1, 0, Range.ALL, 3)));
        Session session = session();
        open(session.withSources(
                        List.of(session.sources().get(0), Source.keyboard("clover", "Clover", "clover", Range.ALL)))
                .withInstruments(List.of(session.instruments().get(0), echoing))
                .withZones(List.of(
                        Zone.of("in", "", "larkspur", Range.ALL, new PartRef("clover", "a")),
                        Zone.of("back", "", "clover", Range.ALL, new PartRef("clover", "a")),
                        Zone.of("on", "", "clover", Range.ALL, HARP))));
        studio.record();
        looper.echo = clover::play;
        keys.play(noteOn(0, 60, 80));
        await().until(() -> !studio.loops().isEmpty());
        keys.play(noteOff(0, 60, 64));
        await().until(() -> studio.soundingCount() == 0);
        stopped(1);
        clock.advance(1_000_000_000L);
        studio.record();
        keys.play(noteOn(0, 62, 80), noteOff(0, 62, 64));
        Take next = stopped(2);
        for (int i = 0; i < next.log().size(); i++) {
            assertThat(next.sources().get(next.log().source(i))).isEqualTo("larkspur");
        }
    }

    private Take stopped(int takes) {
        studio.stop();
        await().until(() -> {
            studio.pulse();
            return document.session().takes().size() == takes;
        });
        return document.session().takes().get(takes - 1);
    }

    /** Local control off: what it plays goes back to it, and its pressure trembles between two values. */
    @Test
    void aKeyboardThatSoundsThroughDibbleIsNeverCutOff() {
        FakeDevices.In both = devices.in("yarrow");
        Session session = session();
        open(session.withSources(
                        List.of(session.sources().get(0), Source.keyboard("yarrow", "Yarrow", "yarrow", Range.ALL)))
                .withZones(List.of(Zone.of(
                        "own",
                        "",
                        "yarrow",
                        Range.ALL,
                        session.instruments()
                                .get(0)
                                .ref(session.instruments().get(0).parts().get(0))))));
        both.play(noteOn(0, 60, 80));
        Random random = new Random(1);
        for (int i = 0; i < 200; i++) {
            clock.advance(1 + random.nextInt(8_000_000));
            both.play(ShortMessage.of(ShortMessage.CHANNEL_PRESSURE, 0, 60 + i % 2, 0));
            both.play(controller(0, 2, 30 + i % 2), controller(0, 4, i % 2 * 127));
        }
        studio.soundingCount();
        assertThat(studio.loops()).isEmpty();
    }

    @Test
    void whatIsPluggedInAgainUnderItsNameIsSentEverythingThatTheOldOneWas() {
        open(session());
        sentAfter(() -> keys.play(noteOn(0, 60, 80)));
        devices.outs.remove("yarrow");
        FakeDevices.Out again = devices.out("yarrow");
        studio.portsChanged();
        assertThat(studio.soundingCount()).isZero();
        keys.play(noteOn(0, 64, 80));
        await().untilAsserted(() -> assertThat(again.sent).contains(programChange(0, 46), noteOn(0, 64, 80)));
    }

    @Test
    void theClockGoesOnForOthersWhenAPortFailsAndForItWhenItIsBack() {
        FakeDevices.Out drums = devices.out("drums");
        open(session().withClock(new ClockPlan(Set.of("drums", "yarrow"), null)).withTempo(TempoMap.of(300)));
        MidiTrack clip = new MidiTrack.Builder().build(960 * 600);
        document.edit(
                "a track",
                session -> session.withTracks(
                        List.of(Track.of("harp", "Harp", HARP).withRegions(new Regions(List.of(Region.own(clip)))))));
        studio.play(0);
        clock.passUntil(() -> drums.realTimes.size() > 10);
        drums.fails = true;
        int before = yarrow.realTimes.size();
        clock.passUntil(() -> yarrow.realTimes.size() > before + 20);
        devices.outs.remove("drums");
        studio.portsChanged();
        FakeDevices.Out back = devices.out("drums");
        studio.portsChanged();
        clock.passUntil(() -> back.realTimes.size() > 20);
        assertThat(back.realTimes.get(0)).isEqualTo(RealTime.CONTINUE);
        studio.stop();
        assertThat(back.realTimes).endsWith(RealTime.STOP);
        assertThat(yarrow.realTimes).endsWith(RealTime.STOP);
    }

    @Test
    void coincidencesCutNothing() {
        FakeDevices.In both = devices.in("yarrow");
        Session session = session();
        open(session.withSources(
                List.of(session.sources().get(0), Source.keyboard("yarrow", "Yarrow", "yarrow", Range.ALL))));
        for (int i = 0; i < 20; i++) {
            keys.play(noteOn(0, 60, 80));
            both.play(noteOn(0, 60, 80), noteOn(0, 61, 80));
            keys.play(noteOff(0, 60, 64));
        }
        studio.soundingCount();
        assertThat(studio.loops()).isEmpty();
    }

    @Test
    void aSerialPortGetsOneSoundAPulseAndNotesBetweenThem() {
        devices.serial.add("yarrow");
        open(session());
        assertThat(studio.soundsWaiting()).isEqualTo(2);
        List<Integer> first = sentAfter(() -> studio.pulse());
        assertThat(first).contains(programChange(0, 46)).doesNotContain(programChange(1, 71));
        List<Integer> second = sentAfter(() -> {
            keys.play(noteOn(0, 60, 80));
            studio.pulse();
        });
        assertThat(second).startsWith(noteOn(0, 60, 80)).contains(programChange(1, 71));
        assertThat(studio.soundsWaiting()).isZero();
        studio.sendAllSounds();
        assertThat(studio.soundsWaiting()).isEqualTo(2);
        devices.outs.remove("yarrow");
        studio.portsChanged();
        assertThat(studio.soundsWaiting()).isZero();
    }
}
