package dibble.studio;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.MidiTrack;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.routing.Routing;
import dibble.routing.Scene;
import dibble.routing.SceneSwitch;
import dibble.routing.Zone;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import dibble.transport.PlaybackTimebase;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** What is kept of what is played around the start and the end of a recording; and what was not recorded. */
class RecordingTest {
    private static final PartRef HARP = new PartRef("yarrow", "harp");
    private static final PartRef WINDS = new PartRef("yarrow", "winds");
    private static final long MS = 1_000_000;
    private static final long START = 10_000 * MS;

    /** Half a beat, say. */
    private static final long EARLY = 300 * MS;

    private static Session session() {
        return Session.empty("Recording")
                .withSources(List.of(
                        Source.keyboard("larkspur", "Larkspur", "keys", new Range(28, 100)),
                        Source.keyboard("tansy", "Tansy", "more", new Range(28, 100))))
                .withInstruments(List.of(Instrument.of(
                        "yarrow",
                        "Yarrow",
                        false,
                        "yarrow",
                        List.of(
                                Part.of("harp", "Harp", 1, 46, Range.ALL, 1),
                                Part.of("winds", "Low winds", 2, 71, Range.ALL, 2)))))
                .withZones(List.of(
                        Zone.of("low", "Low", "larkspur", new Range(28, 59), WINDS),
                        Zone.of("high", "High", "larkspur", new Range(60, 100), HARP),
                        Zone.of("other", "Other", "tansy", Range.ALL, HARP)));
    }

    private static Routing routing(Session session) {
        return session.routing(Performance.NEW);
    }

    private static final List<Track> TRACKS = List.of(
            Track.of("harp", "Harp", HARP),
            Track.of("winds", "Winds", WINDS),
            Track.of("rest", "Everything else", new Track.Rest()));

    private static Recording recording(RecordPlan plan, Session session, List<Track> tracks, Set<String> armed) {
        return new Recording(
                plan, List.of("larkspur", "tansy"), new Printer(tracks, armed), routing(session), new HeldState());
    }

    private static Recording recording(long to) {
        return recording(
                RecordPlan.along(
                        PlaybackTimebase.of(TempoMap.of(120), 0, START),
                        0,
                        0,
                        to == RecordPlan.OPEN ? to : TempoMap.of(120).ticks(to - START),
                        false,
                        EARLY),
                session(),
                TRACKS,
                Set.of("harp", "winds"));
    }

    /** Round and round the first bar. */
    private static RecordPlan looping() {
        PlaybackTimebase course = new PlaybackTimebase(TempoMap.of(120), 0, START, new PlaybackTimebase.Loop(0, 3840));
        return RecordPlan.along(course, 0, 0, 3840, true, EARLY);
    }

    private static List<String> events(EventStore log) {
        List<String> events = new ArrayList<>();
        for (int i = 0; i < log.size(); i++) {
            int message = log.message(i);
            String what = ShortMessage.startsNote(message)
                    ? "on " + ShortMessage.data1(message)
                    : ShortMessage.endsNote(message)
                            ? "off " + ShortMessage.data1(message)
                            : "cc " + ShortMessage.data1(message) + " " + ShortMessage.data2(message);
            events.add(log.stamp(i) / MS + " " + what);
        }
        return events;
    }

    private static int on(int key) {
        return ShortMessage.noteOn(0, key, 80);
    }

    private static int off(int key) {
        return ShortMessage.noteOff(0, key, 64);
    }

    @Test
    void aNoteALittleEarlyIsOnTheStartAndKeepsItsLength() {
        Recording recording = recording(RecordPlan.OPEN);
        recording.event(START - 290 * MS, 0, on(64), false);
        recording.event(START - 10 * MS, 0, on(65), false);
        recording.event(START - 40 * MS, 0, off(64), false);
        recording.event(START + 100 * MS, 0, off(65), false);
        recording.event(START + 200 * MS, 0, on(67), false);
        Take take = recording.finish(START + 500 * MS);
        assertThat(events(take.log()))
                .containsExactly("0 on 64", "0 on 65", "100 off 65", "200 on 67", "250 off 64", "500 off 67");
    }

    @Test
    void whatEndedInTheCountInIsDroppedAndWhatIsHeldCounts() {
        Recording recording = recording(RecordPlan.OPEN);
        recording.event(START - 2_000 * MS, 0, on(64), false);
        recording.event(START - 900 * MS, 0, off(64), false);
        recording.event(START - 301 * MS, 0, on(65), false);
        recording.event(START + 20 * MS, 0, off(65), false);
        recording.event(START + 30 * MS, 0, off(90), false);
        assertThat(events(recording.finish(START + 40 * MS).log())).containsExactly("0 on 65", "20 off 65");
    }

    @Test
    void whatStandsWhenItBeginsIsAtItsStart() {
        HeldState standing = new HeldState();
        standing.add(START - 9_000 * MS, 0, ShortMessage.controller(0, 64, 127));
        standing.add(START - 8_000 * MS, 0, ShortMessage.controller(0, 7, 90));
        standing.add(START - 7_000 * MS, 1, ShortMessage.controller(0, 1, 30));
        standing.add(START - 6_000 * MS, 0, on(64));
        standing.add(START - 5_000 * MS, 0, on(65));
        standing.add(START - 4_000 * MS, 0, off(65));
        Recording recording = new Recording(
                RecordPlan.open(START, 0, 0, TempoMap.of(120)),
                List.of("larkspur", "tansy"),
                new Printer(TRACKS, Set.of("harp", "winds")),
                routing(session()),
                standing.before(START));
        recording.event(START + 10 * MS, 0, off(64), false);
        assertThat(events(recording.finish(START + 40 * MS).log()))
                .containsExactly("0 cc 64 127", "0 cc 1 30", "0 on 64", "10 off 64");
    }

    @Test
    void anEventThatIsDecidedLateIsNotLost() {
        Recording recording = recording(RecordPlan.OPEN);
        recording.event(START + MS, 1, on(70), false);
        recording.event(START - MS / 2, 0, on(64), false);
        recording.event(START + 10 * MS, 0, off(64), false);
        assertThat(events(recording.finish(START + 20 * MS).log()))
                .containsExactly("1 on 70", "1 on 64", "10 off 64", "20 off 70");
    }

    @Test
    void aDownbeatThatIsALittleEarlyIsOfTheNextPassWhole() {
        Recording first = recording(looping(), session(), TRACKS, Set.of("harp"));
        first.event(START + 1_900 * MS, 0, on(62), false);
        first.event(START + 1_980 * MS, 0, on(64), false);
        first.event(START + 1_990 * MS, 0, ShortMessage.controller(0, 64, 127), false);
        List<Recording.Note> forNext = first.forNext();
        assertThat(forNext).hasSize(1);
        assertThat(events(first.finish(START + 2_000 * MS).log()))
                .containsExactly("1900 on 62", "1990 cc 64 127", "2000 off 62");
        RecordPlan next = first.plan().next();
        assertThat(next.startsAt()).isEqualTo(START + 2_000 * MS);
        Recording second = recording(next, session(), TRACKS, Set.of("harp"));
        forNext.forEach(note -> second.event(note.at(), note.source(), note.message(), false));
        second.event(START + 2_100 * MS, 0, off(64), false);
        second.event(START + 2_200 * MS, 0, off(62), false);
        assertThat(events(second.finish(START + 2_300 * MS).log())).containsExactly("0 on 64", "100 off 64");
    }

    @Test
    void anEarlyDownbeatThatIsStoppedBeforeTheNextPassIsOfThisOne() {
        Recording only = recording(looping(), session(), TRACKS, Set.of("harp"));
        only.event(START + 1_980 * MS, 0, on(64), false);
        assertThat(events(only.finish(START + 1_995 * MS).log())).containsExactly("1980 on 64", "1995 off 64");
    }

    @Test
    void notesRightBeforeTheEndKeepTheirTimesAmongOtherEvents() {
        Recording only = recording(looping(), session(), TRACKS, Set.of("harp"));
        only.event(START + 1_960 * MS, 0, on(64), false);
        only.event(START + 1_970 * MS, 0, ShortMessage.controller(0, 64, 127), false);
        only.event(START + 1_980 * MS, 0, on(66), false);
        only.event(START + 1_985 * MS, 0, off(64), false);
        assertThat(events(only.finish(START + 1_995 * MS).log()))
                .containsExactly("1960 on 64", "1970 cc 64 127", "1980 on 66", "1985 off 64", "1995 off 66");
    }

    @Test
    void aTakeHasTheTempoThatWasChangedWhileItWasRecorded() {
        Recording recording = recording(RecordPlan.OPEN);
        recording.event(START, 0, on(64), false);
        recording.along(PlaybackTimebase.of(TempoMap.of(60), 4_000 * MS, START + 2_000 * MS), START + 2_000 * MS);
        recording.event(START + 4_000 * MS, 0, off(64), false);
        Take take = recording.finish(START + 5_000 * MS);
        assertThat(take.tick(2_000 * MS)).isEqualTo(3840);
        assertThat(take.tick(4_000 * MS)).isEqualTo(3840 + 1920);
    }

    @Test
    void systemExclusiveIsKeptAndPrintedWhereItGoes() {
        Session session = session();
        Session leading = session.withSources(session.sources().stream()
                .map(source -> source.with().sysexTo(List.of("yarrow")).build())
                .toList());
        byte[] dump = {(byte) 0xF0, 0x7D, 1, 2, (byte) 0xF7};
        Recording recording =
                recording(RecordPlan.open(START, 0, EARLY, TempoMap.of(120)), leading, TRACKS, Set.of("harp", "winds"));
        recording.event(START + 5 * MS, 0, on(70), false);
        recording.exclusive(START + 10 * MS, 0, dump);
        Take take = recording.finish(START + 20 * MS);
        assertThat(take.log().exclusive(1)).isEqualTo(dump);
        MidiTrack harp = recording.printer().clip(0, take);
        assertThat(harp.status(1)).isEqualTo(0xF0);
        assertThat(harp.data(1)).containsExactly(0x7D, 1, 2, 0xF7);
        assertThat(recording.printer().clip(1, take).size()).isZero();
    }

    @Test
    void aPedalThatIsDownAtTheStartIsDownInTheTake() {
        Recording recording = recording(RecordPlan.OPEN);
        recording.event(START - 3_000 * MS, 0, ShortMessage.controller(0, 64, 127), false);
        recording.event(START - 2_500 * MS, 0, ShortMessage.controller(0, 1, 40), false);
        recording.event(START - 2_000 * MS, 0, ShortMessage.controller(0, 1, 0), false);
        recording.event(START + 5 * MS, 0, on(64), false);
        recording.event(START + 9 * MS, 0, off(64), false);
        assertThat(events(recording.finish(START + 40 * MS).log()))
                .containsExactly("0 cc 64 127", "5 on 64", "9 off 64");
    }

    @Test
    void whatIsHeldAtTheEndGetsItsOffThereOnEveryTrack() {
        Recording recording = recording(RecordPlan.OPEN);
        recording.event(START + 5 * MS, 0, on(64), false);
        recording.event(START + 6 * MS, 0, on(40), false);
        recording.event(START + 7 * MS, 1, on(64), false);
        Take take = recording.finish(START + 40 * MS);
        assertThat(events(take.log())).endsWith("40 off 40", "40 off 64", "40 off 64");
        for (int track = 0; track < 2; track++) {
            EventStore log = recording.printer().log(track);
            assertThat(ShortMessage.endsNote(log.message(log.size() - 1))).isTrue();
            assertThat(log.stamp(log.size() - 1)).isEqualTo(40 * MS);
        }
    }

    /** A zone's edge that is dragged over two hundred keys' worth of positions while a key is held. */
    @Test
    void whatIsDraggedIsOneRoutingAndWhatIsPrintedAgainIsWhatWasPrinted() {
        Session session = session();
        Recording recording = recording(RecordPlan.OPEN);
        recording.event(START + 10 * MS, 0, on(64), false);
        for (int i = 0; i < 200; i++) {
            int split = 60 + i % 20;
            Session dragged = session.withZones(List.of(
                    Zone.of("low", "Low", "larkspur", new Range(28, split - 1), WINDS),
                    Zone.of("high", "High", "larkspur", new Range(split, 100), HARP)));
            recording.routing(START + (20 + i) * MS, List.of("larkspur", "tansy"), routing(dragged));
        }
        recording.event(START + 300 * MS, 0, off(64), false);
        recording.event(START + 310 * MS, 0, on(64), false);
        Take take = recording.finish(START + 400 * MS);
        assertThat(take.marks()).extracting(Take.Mark::position).containsExactly(0, 1);
        assertThat(take.marks().get(1).routing().zones().get(1).keys().low()).isEqualTo(79);
        Printer again = Printer.print(take, TRACKS, Set.of("harp", "winds"));
        for (int track = 0; track < TRACKS.size(); track++) {
            assertThat(events(again.log(track)))
                    .isEqualTo(events(recording.printer().log(track)));
        }
    }

    @Test
    void aTakeBeginsInTheSceneThatWasCalledInTheCountIn() {
        Session session = session()
                .withScenes(List.of(Scene.of("one", "One", 0, List.of()), Scene.of("two", "Two", 1, List.of())))
                .withSceneSwitch(new SceneSwitch("larkspur", 1));
        Recording recording = recording(RecordPlan.open(START, 0, EARLY, TempoMap.of(120)), session, TRACKS, Set.of());
        recording.event(START - 900 * MS, 0, ShortMessage.programChange(0, 1), false);
        recording.routing(
                START - 800 * MS, List.of("larkspur", "tansy"), routing(session).withScene("two"));
        Take take = recording.finish(START + 40 * MS);
        assertThat(take.log().size()).isZero();
        assertThat(take.marks()).hasSize(1);
        assertThat(take.marks().get(0).routing().activeScene()).isEqualTo("two");
    }

    @Test
    void tracksOfSourcesChannelsAndZonesTakeWhatIsTheirs() {
        List<Track> tracks = List.of(
                Track.of("harp", "Harp", HARP),
                Track.of("tansy", "Tansy", new Track.OfSource("tansy")),
                Track.of("ch1", "Larkspur 1", new Track.OfChannel("larkspur", 1)),
                Track.of("ch2", "Larkspur 2", new Track.OfChannel("larkspur", 2)),
                Track.of("low", "Low", new Track.OfZone("low")),
                Track.of("rest", "Everything else", new Track.Rest()));
        Recording recording = recording(
                RecordPlan.open(START, 0, 0, TempoMap.of(120)), session(), tracks, Set.of("tansy", "ch2", "low"));
        recording.event(START + 1 * MS, 0, on(40), false);
        recording.event(START + 2 * MS, 0, on(70), false);
        recording.event(START + 3 * MS, 1, on(71), false);
        recording.event(START + 4 * MS, 0, ShortMessage.onChannel(on(72), 1), false);
        recording.event(START + 5 * MS, 0, ShortMessage.controller(0, 64, 127), false);
        recording.event(START + 6 * MS, 0, ShortMessage.onChannel(on(41), 1), false);
        recording.finish(START + 9 * MS);
        Printer printer = recording.printer();
        assertThat(events(printer.log(0))).isEmpty();
        assertThat(events(printer.log(1))).containsExactly("3 on 71", "9 off 71");
        assertThat(events(printer.log(2))).isEmpty();
        assertThat(events(printer.log(3))).containsExactly("4 on 72", "6 on 41", "9 off 41", "9 off 72");
        // The pedal reaches the winds through the low zone.
        assertThat(events(printer.log(4)))
                .containsExactly("1 on 40", "5 cc 64 127", "6 on 41", "9 off 40", "9 off 41", "9 cc 64 0");
        // The harp's share of the pedal, and the key that nobody takes.
        assertThat(events(printer.log(5))).containsExactly("2 on 70", "5 cc 64 127", "9 off 70", "9 cc 64 0");
        MidiTrack clip = printer.clip(5, recording.finish(START + 9 * MS));
        assertThat(clip.destination(0)).isEqualTo("yarrow/harp");
    }

    @Nested
    class NotRecorded {
        private final UnrecordedBuffer backlog = new UnrecordedBuffer();

        private Recording keep(long now) {
            return backlog.keep(
                    now,
                    TempoMap.of(120),
                    stamp -> 0,
                    (plan, sources, routing) -> new Recording(
                            plan, sources, new Printer(TRACKS, Set.of("harp")), routing, new HeldState()));
        }

        @Test
        void whatWasPlayedIsATakeThatBeginsWithItsFirstNote() {
            backlog.routing(0, List.of("larkspur", "tansy"), routing(session()));
            backlog.add(START - 500 * MS, 0, off(50));
            backlog.add(START - 400 * MS, 0, ShortMessage.controller(0, 64, 127));
            backlog.add(START, 0, on(64));
            backlog.add(START + 10 * MS, 0, off(64));
            assertThat(backlog.noteCount()).isEqualTo(1);
            Take take = keep(START + 900 * MS).finish(START + 20 * MS);
            assertThat(events(take.log())).containsExactly("0 cc 64 127", "0 on 64", "10 off 64");
            assertThat(backlog.noteCount()).isZero();
            assertThat(keep(START + 901 * MS)).isNull();
        }

        @Test
        void tenMinutesAreThereAndWhatIsOlderIsNot() {
            backlog.routing(0, List.of("larkspur", "tansy"), routing(session()));
            long minute = 60_000 * MS;
            for (int i = 0; i < 12 * 6000; i++) {
                long at = i * minute / 6000;
                backlog.add(at, 0, on(64));
                backlog.add(at + MS, 0, off(64));
            }
            Take take = keep(12 * minute).finish(12 * minute);
            assertThat(take.noteCount()).isEqualTo(10 * 6000);
        }

        @Test
        void eachPartHasTheRoutingThatWasInForce() {
            Session other = session().withZones(List.of(Zone.of("all", "", "larkspur", Range.ALL, WINDS)));
            backlog.routing(0, List.of("larkspur", "tansy"), routing(session()));
            backlog.add(START, 0, on(64));
            backlog.add(START + 10 * MS, 0, off(64));
            backlog.routing(START + 15 * MS, List.of("larkspur", "tansy"), routing(other));
            backlog.add(START + 20 * MS, 0, on(64));
            Recording kept = keep(START + 30 * MS);
            Take take = kept.finish(START + 30 * MS);
            assertThat(take.marks()).extracting(Take.Mark::position).containsExactly(0, 2);
            assertThat(events(kept.printer().log(0))).containsExactly("0 on 64", "10 off 64");
            assertThat(events(kept.printer().log(2))).containsExactly("20 on 64", "30 off 64");
        }
    }
}
