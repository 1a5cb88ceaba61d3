package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.notes.BeatFinder;
import dibble.notes.Grid;
import dibble.notes.NoteFunction;
import dibble.notes.Quantize;
import dibble.recording.ClipIndex;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Marker;
import dibble.time.TempoMap;
import dibble.work.Progress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Another tempo map under the same music: nothing sounds at another time. */
class TempoRemappingTest {
    /** A tick at the slowest of the tempos here takes less than this, in nanoseconds. */
    private static final long TICK = 1_200_000;

    private static Session recorded(TempoMap own) {
        Document document = new Document(LamplightersRound.session(), Performance.NEW);
        EventStore log = new EventStore();
        Random random = new Random(1);
        long at = 500_000_000;
        for (int i = 0; i < 60; i++) {
            int key = 70 + i % 9;
            log.add(at, 0, ShortMessage.noteOn(0, key, 80));
            log.add(at + 300_000_000, 0, ShortMessage.noteOff(0, key, 64));
            at += 580_000_000 + random.nextInt(60_000_000);
        }
        Take take = new Take(
                "take-1",
                "Take 1",
                List.of(document.session().sources().get(0).id()),
                log,
                List.of(new Take.Mark(0, 0, document.routing())),
                own,
                at,
                0);
        return TakeEdits.keep(document.session(), Performance.NEW, take);
    }

    private static long[] times(Session session, Track track) {
        MidiTrack clip = track.sounding();
        long[] times = new long[clip.size()];
        for (int i = 0; i < times.length; i++) {
            times[i] = session.tempo().nanos(clip.tick(i));
        }
        return times;
    }

    private static void assertSameTimes(Session before, Session after) {
        int compared = 0;
        for (int t = 0; t < before.tracks().size(); t++) {
            long[] was = times(before, before.tracks().get(t));
            long[] is = times(after, after.tracks().get(t));
            assertThat(is).hasSameSizeAs(was);
            for (int i = 0; i < was.length; i++) {
                assertThat(Math.abs(is[i] - was[i])).isLessThan(TICK);
                compared++;
            }
        }
        assertThat(compared).isGreaterThan(100);
    }

    private static TempoMap found(Session session) {
        List<ClipIndex> clips = session.tracks().stream()
                .filter(track -> track.sounding().size() > 0)
                .map(track -> ClipIndex.of(track.sounding()))
                .toList();
        return BeatFinder.map(BeatFinder.find(clips, session.tempo(), 0), 4, 0);
    }

    @Test
    void everythingSoundsWhenItDidAndTheBeatsLieOnBars() {
        Session session = recorded(LamplightersRound.session().tempo());
        long mark = session.tempo().nanos(7000);
        Session marked = session.withMarkers(List.of(new Marker(7000, "Bridge")));
        Session next = TempoRemapping.of(marked, found(marked), Progress.NONE);
        assertThat(next.tempo()).isNotEqualTo(session.tempo());
        assertSameTimes(marked, next);
        assertThat(Math.abs(next.tempo().nanos(next.markers().get(0).at()) - mark))
                .isLessThan(TICK);
        Track track = next.tracks().stream()
                .filter(it -> it.noteCount() > 20)
                .findFirst()
                .orElseThrow();
        ClipIndex index = ClipIndex.of(track.sounding());
        int on = 0;
        for (int note = 0; note < index.noteCount(); note++) {
            on += index.start(note) % TempoMap.PPQ == 0 ? 1 : 0;
        }
        assertThat(on).isGreaterThan(index.noteCount() * 9 / 10);
    }

    @Test
    void aTakeIsPrintedAgainWhereItsTracksAreThen() {
        // Recorded at another tempo than the session has now.
        for (TempoMap own : List.of(LamplightersRound.session().tempo(), TempoMap.of(133))) {
            Session session = recorded(own);
            Session next = TempoRemapping.of(session, found(session), Progress.NONE);
            Session again = TakeEdits.choose(next, "take-1");
            assertThat(again).isEqualTo(next);
        }
    }

    @Test
    void aTakeIsPrintedAgainWhereItWasHoweverOftenTheTempoIsRemapped() throws Exception {
        Random random = new Random(3);
        Session session = recorded(TempoMap.of(133));
        Path file = Files.createTempFile("remapped", ".dibble");
        try {
            for (int i = 0; i < 6; i++) {
                session = TempoRemapping.of(session, anyTempo(random), Progress.NONE);
                assertThat(TakeEdits.choose(session, "take-1")).isEqualTo(session);
                SessionFile.write(file, session, Performance.NEW);
                Session read = SessionFile.read(file).session();
                assertThat(read.tracks()).isEqualTo(session.tracks());
                assertThat(TakeEdits.choose(read, "take-1").tracks()).isEqualTo(session.tracks());
            }
        } finally {
            Files.delete(file);
        }
    }

    @Test
    void thereAndBackNothingChanges() {
        Random random = new Random(4);
        Session session = recorded(TempoMap.of(133));
        for (int i = 0; i < 20; i++) {
            Session there = TempoRemapping.of(session, anyTempo(random), Progress.NONE);
            assertThat(there).isNotEqualTo(session);
            Session back = TempoRemapping.of(there, session.tempo(), Progress.NONE);
            assertThat(back.tracks()).isEqualTo(session.tracks());
            assertThat(TakeEdits.choose(back, "take-1").tracks()).isEqualTo(session.tracks());
        }
    }

    @Test
    void aTakeIsPrintedAgainWhereItsTracksAreAlsoWhenTheyWereEditedBetweenThereAndBack() {
        Random random = new Random(5);
        Session session = recorded(TempoMap.of(133));
        String id = session.tracks().stream()
                .filter(it -> it.noteCount() > 20)
                .findFirst()
                .orElseThrow()
                .id();
        BitSet one = new BitSet();
        one.set(3);
        for (int i = 0; i < 20; i++) {
            Session there = TempoRemapping.of(session, anyTempo(random), Progress.NONE);
            Session edited = NoteEdits.mute(there, Map.of(id, one), true);
            Session back = TempoRemapping.of(edited, session.tempo(), Progress.NONE);
            Session heard = NoteEdits.mute(back, Map.of(id, one), false);
            assertThat(TakeEdits.choose(heard, "take-1").tracks()).isEqualTo(heard.tracks());
        }
    }

    private static TempoMap anyTempo(Random random) {
        List<TempoMap.Tempo> tempos = new ArrayList<>();
        for (int i = 0; i < 1 + random.nextInt(5); i++) {
            tempos.add(new TempoMap.Tempo(i * 3000L, 40 + random.nextInt(2000) / 10.0));
        }
        return new TempoMap(tempos, List.of(new TempoMap.Meter(0, 4, 4)));
    }

    @Test
    void handEditsGoWithIt() {
        Session session = recorded(LamplightersRound.session().tempo());
        String id = session.tracks().stream()
                .filter(it -> it.noteCount() > 20)
                .findFirst()
                .orElseThrow()
                .id();
        Grid grid = Grid.of(Grid.Step.parse("1/8"), session.tempo(), 0);
        Session edited = NoteEdits.change(
                        session,
                        Map.of(
                                id,
                                NoteFunction.all(ClipIndex.of(track(session, id).sounding()))),
                        Quantize.starts(grid))
                .session();
        Session next = TempoRemapping.of(edited, found(session), Progress.NONE);
        assertSameTimes(edited, next);
        assertSameTimes(session, NoteEdits.allAsPlayed(next, List.of(id)));
    }

    private static Track track(Session session, String id) {
        return session.tracks().stream()
                .filter(it -> it.id().equals(id))
                .findFirst()
                .orElseThrow();
    }
}
