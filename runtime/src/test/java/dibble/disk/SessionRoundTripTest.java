package dibble.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.files.SessionContent;
import dibble.files.SessionFormatException;
import dibble.files.SessionReader;
import dibble.files.TakeLines;
import dibble.files.TakeReader;
import dibble.gear.PartRef;
import dibble.gear.SequencerLane;
import dibble.gear.UnknownFields;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.routing.ControlMap;
import dibble.routing.RandomRouting;
import dibble.routing.Routing;
import dibble.routing.SendTarget;
import dibble.session.AcceptedFinding;
import dibble.session.Colours;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import dibble.work.Progress;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What is written is what is read, whatever a session has. */
class SessionRoundTripTest {
    private static Session session(Routing routing) {
        return Session.empty("Random")
                .withSources(routing.sources())
                .withInstruments(Colours.give(routing.instruments()))
                .withZones(routing.always())
                .withControls(routing.controls())
                .withScenes(routing.scenes())
                .withSceneSwitch(routing.sceneSwitch())
                .withSettled(List.of(new AcceptedFinding("gap", List.of("a", "3-9"))));
    }

    private static Take read(byte[] lines) throws SessionFormatException {
        return TakeReader.read(
                new SessionReader.SaidOfTake("take-1", "One", "takes/take-1.jsonl", UnknownFields.NONE),
                lines,
                TempoMap.of(20),
                Progress.NONE);
    }

    @Property(tries = 150)
    void sessionsComeBackAsTheyWere(@ForAll long seed) throws Exception {
        Routing routing = new RandomRouting(new Random(seed)).routing(15);
        Performance performance =
                Performance.NEW.withScene(routing.activeScene()).withHeard("a", false);
        Session session = session(routing);
        SessionContent read = SessionContent.readJson(SessionContent.json(session, performance));
        assertThat(read.session()).isEqualTo(session);
        assertThat(read.session().routing(read.performance())).isEqualTo(session.routing(performance));
    }

    @Property(tries = 30)
    void takesKeepTheirRoutingsAndWhatCameBack(@ForAll long seed) throws Exception {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        EventStore log = new EventStore();
        Routing first = session(randomly.routing(6)).routing(Performance.NEW);
        for (int i = 0; i < 40; i++) {
            log.add(i * 1000L, 0, randomly.message(), random.nextInt(4) == 0);
        }
        Take take = new Take(
                "take-1",
                "One",
                List.of("a"),
                log,
                List.of(new Take.Mark(0, 0, first), new Take.Mark(20, 5, first)),
                new TempoMap(
                        List.of(new TempoMap.Tempo(0, 96), new TempoMap.Tempo(1000, 61.7)),
                        List.of(new TempoMap.Meter(0, 3, 8), new TempoMap.Meter(7680, 4, 4))),
                50_000,
                0);
        byte[] lines = TakeLines.write(take);
        Take read = read(lines);
        assertThat(read.tempo()).isEqualTo(take.tempo());
        assertThat(read.length()).isEqualTo(take.length());
        assertThat(read.marks()).extracting(Take.Mark::routing).containsExactly(first, first);
        assertThat(read.log().size()).isEqualTo(40);
        for (int i = 0; i < 40; i++) {
            assertThat(read.log().message(i)).isEqualTo(log.message(i));
            assertThat(read.log().isEcho(i)).isEqualTo(log.isEcho(i));
            assertThat(ShortMessage.isChannelStatus(
                            ShortMessage.status(read.log().message(i))))
                    .isTrue();
        }
    }

    /** Lines of a take with fields that nobody here knows, and lines of which nobody here knows one. */
    @Property(tries = 60)
    void whatNobodyHereKnowsInATakeComesBack(@ForAll long seed) throws Exception {
        Random random = new Random(seed);
        RandomRouting randomly = new RandomRouting(random);
        SchemaInstances anything = new SchemaInstances(null, random, java.util.Set.of());
        EventStore log = new EventStore();
        for (int i = 0; i < 30; i++) {
            log.add(i * 1000L, 0, randomly.message(), random.nextInt(4) == 0);
        }
        log.addExclusive(40_000L, 0, new byte[] {(byte) 0xF0, 0x7D, 1, (byte) 0xF7});
        Routing first = session(randomly.routing(6)).routing(Performance.NEW);
        Routing second = session(randomly.routing(6)).routing(Performance.NEW);
        Take take = new Take(
                "take-1",
                "One",
                List.of("a"),
                log,
                List.of(new Take.Mark(0, 0, first), new Take.Mark(7, 6_500, second)),
                new TempoMap(
                        List.of(new TempoMap.Tempo(0, 96), new TempoMap.Tempo(1000, 61.7)),
                        List.of(new TempoMap.Meter(0, 3, 8))),
                50_000,
                7);
        StringBuilder text = new StringBuilder();
        for (String line : new String(TakeLines.write(take), StandardCharsets.UTF_8).split("\n")) {
            boolean event = line.contains("\"m\":");
            if (event && random.nextInt(6) == 0) {
                text.append("{\"t\":5,\"x-lyric\":")
                        .append(anything.anything(2))
                        .append("}\n");
            }
            boolean more = random.nextInt(3) == 0;
            text.append(more ? line.substring(0, line.length() - 1) : line);
            if (more) {
                text.append(",\"x-more\":").append(anything.anything(3)).append('}');
            }
            text.append('\n');
        }
        byte[] written = TakeLines.write(read(text.toString().getBytes(StandardCharsets.UTF_8)));
        assertThat(new String(written, StandardCharsets.UTF_8)).isEqualTo(text.toString());
    }

    /** A routing that is dragged is written as what is different. */
    @Test
    void whatChangesInARoutingIsWrittenAloneAndReadAsAWhole() throws Exception {
        Session demo = dibble.demo.LamplightersRound.session();
        List<Take.Mark> marks = new java.util.ArrayList<>();
        EventStore log = new EventStore();
        for (int i = 0; i < 50; i++) {
            int high = 40 + i;
            Session dragged = demo.withScenes(demo.scenes().stream()
                    .map(scene -> scene.withZones(scene.zones().stream()
                            .map(zone -> zone.withKeys(new dibble.midi.Range(30, high)))
                            .toList()))
                    .toList());
            marks.add(new Take.Mark(i, i * 1000L, dragged.routing(Performance.NEW)));
            log.add(i * 1000L, 0, ShortMessage.noteOn(0, 60, 1 + i));
        }
        Take take = new Take("take-1", "One", List.of("a"), log, marks, TempoMap.of(96), 60_000, 0);
        byte[] lines = TakeLines.write(take);
        int whole = TakeLines.write(take.withMarks(marks.subList(0, 1))).length;
        assertThat(lines.length).isLessThan(whole * 6);
        assertThat(read(lines).marks()).isEqualTo(marks);
    }

    /** Thousands of changes are a long evening, not an attack. */
    @Tag("slow")
    @Test
    void aTakeOfThousandsOfChangesIsReadAndWhatTheyHaveInCommonIsThereOnce() throws Exception {
        Session demo = dibble.demo.LamplightersRound.session();
        List<Take.Mark> marks = new java.util.ArrayList<>();
        EventStore log = new EventStore();
        for (int i = 0; i < 3_000; i++) {
            int high = 40 + i % 60;
            Session dragged = demo.withZones(demo.zones().stream()
                    .map(zone -> zone.withKeys(new dibble.midi.Range(30, high)))
                    .toList());
            marks.add(new Take.Mark(i, i * 1000L, dragged.routing(Performance.NEW)));
            log.add(i * 1000L, 0, ShortMessage.noteOn(0, 60, 1 + i % 127));
        }
        Take take = new Take("take-1", "One", List.of("a"), log, marks, TempoMap.of(96), 4_000_000, 0);
        List<Take.Mark> back = read(TakeLines.write(take)).marks();
        assertThat(back).isEqualTo(marks);
        assertThat(back.get(2_999).routing().instruments().get(0))
                .isSameAs(back.get(0).routing().instruments().get(0));
        assertThat(back.get(2_999).routing().scenes().get(0))
                .isSameAs(back.get(0).routing().scenes().get(0));
    }

    @Test
    void aChangeThatFitsNoRoutingIsRefusedWithItsLine() {
        for (String change : List.of(
                "[{\"op\":\"replace\",\"path\":\"/name\",\"value\":1}]",
                "7",
                "[{\"op\":\"copy\",\"from\":\"\",\"path\":\"/x\"}]")) {
            byte[] lines = ("{\"t\":1,\"n\":0,\"change\":" + change + "}\n").getBytes();
            assertThatThrownBy(() -> read(lines))
                    .isInstanceOf(SessionFormatException.class)
                    .hasMessageStartingWith("takes/take-1.jsonl, line 1: $.change");
        }
    }

    /** Found by damaging journals: a path that leads into a list as if it were an object. */
    @Test
    void aChangeThatLeadsNowhereIsRefusedWithItsLine() {
        for (String path : List.of("/zones/x", "/zones/99/id", "/zones/-", "zones", "/nothing/here", "/zones/0/~9")) {
            byte[] lines = ("{\"t\":0,\"n\":0,\"routing\":{\"format\":\"dibble-session\",\"version\":1,\"name\":\"r\","
                            + "\"zones\":[{\"id\":\"z\",\"source\":\"a\",\"to\":{\"part\":\"i/p\"}}]}}\n"
                            + "{\"t\":1,\"n\":0,\"change\":[{\"op\":\"replace\",\"path\":\"" + path
                            + "\",\"value\":{}}]}\n")
                    .getBytes();
            assertThatThrownBy(() -> read(lines))
                    .as(path)
                    .isInstanceOf(SessionFormatException.class)
                    .hasMessageStartingWith("takes/take-1.jsonl, line 2: ");
        }
    }

    @Test
    void everyFieldOfTheFormatIsRead() throws Exception {
        String json = """
                {"format": "dibble-session", "version": 1, "name": "n", "middleC": "C3",
                 "sources": [{"id": "teasel", "kind": "sequencer", "port": "any", "listen": [2, 5], "sends": [2],
                   "accept": ["notes"], "transpose": -3, "localControl": "on", "ownInstrument": "sorrel", "echoes": true,
                   "sysexTo": ["sorrel"], "lanes": [{"name": "Kalimba line", "channel": 2}]}],
                 "instruments": [{"id": "sorrel", "kind": "built-in", "receives": "one-channel", "hearsDirectly": ["teasel"],
                   "parts": [{"id": "hands", "channel": "auto", "channelNow": 10, "drums": true, "output": 3,
                     "noteNames": {"41": "Frame drum, low"}, "keyswitches": {"24": "Mallets"}, "bank": [1, 2]}]}],
                 "controls": [{"id": "next", "source": "*", "keep": true, "outside": "ignore",
                   "when": {"kind": "pitchBend"},
                   "sends": [{"kind": "scene", "to": "next"}, {"kind": "controller", "number": 11, "window": [127, 34],
                     "rest": 127, "to": {"parts": "all"}}]}],
                 "sceneSwitch": {"source": "teasel", "channel": 2},
                 "scenes": [{"id": "dusk", "program": 0, "sounds": [{"part": "sorrel/hands", "volume": 90}]}],
                 "activeScene": "dusk", "settledChecks": [{"code": "gap", "ids": ["teasel"]}]}""";
        SessionContent opened = SessionContent.readJson(json.getBytes(StandardCharsets.UTF_8));
        Session session = opened.session();
        var source = session.sources().get(0);
        assertThat(source.lanes()).containsExactly(new SequencerLane("Kalimba line", 2));
        assertThat(source.sysexTo()).containsExactly("sorrel");
        assertThat(source.echoes() && source.localControl()).isTrue();
        var part = session.part(new PartRef("sorrel", "hands")).orElseThrow();
        assertThat(part.noteNames()).isEqualTo(Map.of(41, "Frame drum, low"));
        assertThat(part.keyswitches()).isEqualTo(Map.of(24, "Mallets"));
        assertThat(part.output()).isEqualTo(3);
        ControlMap map = session.controls().get(0);
        assertThat(map.keep() && map.ignoreOutside()).isTrue();
        assertThat(map.when().high()).isEqualTo(16383);
        assertThat(map.sends().get(0).to()).isEqualTo(new SendTarget.ToScene("next"));
        assertThat(map.sends().get(1).rest()).isEqualTo(127);
        assertThat(session.scenes().get(0).sounds().get(0).sound().volume()).isEqualTo(90);
        assertThat(session.activeScene(opened.performance())).isEqualTo("dusk");
        assertThat(opened.performance().channels()).containsEntry(new PartRef("sorrel", "hands"), 10);
    }

    @Test
    void aTempoThatChangesOnTheWayTakesThePlaceOfWhatWasSaid() throws Exception {
        TempoMap first = new TempoMap(
                List.of(new TempoMap.Tempo(0, 96), new TempoMap.Tempo(9_600, 50)),
                List.of(new TempoMap.Meter(0, 4, 4)));
        TempoMap spliced = first.spliced(
                1_920, new TempoMap(List.of(new TempoMap.Tempo(0, 140)), List.of(new TempoMap.Meter(0, 3, 4))));
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        TakeLines lines = new TakeLines(out);
        lines.begin(first, 5);
        EventStore log = new EventStore();
        log.add(10, 0, ShortMessage.noteOn(0, 60, 80));
        lines.follow(log, List.of("a"), List.of());
        lines.tempo(first, spliced);
        lines.end(1_000);
        Take read = read(out.toByteArray());
        assertThat(read.tempo()).isEqualTo(spliced);
        assertThat(read.length()).isEqualTo(1_000);
        assertThat(read.start()).isEqualTo(5);
    }

    @Test
    void systemExclusiveThatIsNotWholeIsRefusedWithItsLine() {
        for (String bytes : List.of("240", "240,5", "240,200,247", "240,247,247", "240,-1,247")) {
            byte[] lines = ("{\"t\":1,\"n\":0,\"from\":\"a\",\"m\":[" + bytes + "]}\n").getBytes();
            assertThatThrownBy(() -> read(lines))
                    .isInstanceOf(SessionFormatException.class)
                    .hasMessageStartingWith("takes/take-1.jsonl, line 1: ");
        }
    }

    /** Somebody else's names may have anything in them. */
    @Test
    void whatIsWrittenCanBeReadWhateverASourceIsCalled() throws Exception {
        List<String> names =
                List.of("plain", "a \"quoted\\ one", "F\u266F \uD834\uDD1E", "line\nfeed\u0001", "x".repeat(70_000));
        EventStore log = new EventStore();
        for (int i = 0; i < 500; i++) {
            log.add(i, i % names.size(), ShortMessage.noteOn(0, 60, 1 + i % 127));
        }
        Take take = new Take("take-1", "One", names, log, List.of(), TempoMap.of(96), 1_000, 0);
        Take read = read(TakeLines.write(take));
        assertThat(read.sources()).isEqualTo(names);
        for (int i = 0; i < 500; i++) {
            assertThat(read.log().source(i)).isEqualTo(log.source(i));
            assertThat(read.log().message(i)).isEqualTo(log.message(i));
        }
    }
}
