package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.notes.CleanUp;
import dibble.notes.Grid;
import dibble.notes.ManualChanges;
import dibble.notes.Note;
import dibble.notes.NoteChange;
import dibble.notes.NoteFunction;
import dibble.notes.Quantize;
import dibble.notes.TimeChanges;
import dibble.recording.ClipIndex;
import dibble.recording.PrintMode;
import dibble.recording.Region;
import dibble.recording.Regions;
import dibble.recording.Sorting;
import dibble.recording.Track;
import dibble.recording.TrackExport;
import dibble.session.Document;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.Marker;
import dibble.time.TempoMap;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Hands on the notes of tracks: whatever they do, what was played is there, and the way back is open. */
class NoteEditsTest {
    private static final long BAR = 3840;
    private static final String ID = "celesta";

    @TempDir
    private Path folder;

    /** Sixteen bars of a keyboard that is played freely, with its pedal. */
    private static MidiTrack played(int seed) {
        Random random = new Random(seed);
        MidiTrack.Builder clip = new MidiTrack.Builder();
        long at = 0;
        for (int beat = 0; beat < 64; beat++) {
            at = beat * 960L + random.nextInt(90);
            int key = 60 + beat % 12;
            clip.add(at, ShortMessage.noteOn(0, key, 40 + random.nextInt(80)));
            if (beat % 4 == 0) {
                clip.add(at + 20, ShortMessage.controller(0, 64, 127));
            }
            clip.add(at + 300 + random.nextInt(300), ShortMessage.noteOff(0, key, 50));
            if (beat % 4 == 3) {
                clip.add(at + 700, ShortMessage.controller(0, 64, 0));
            }
        }
        return clip.build(16 * BAR);
    }

    private static Session session(MidiTrack print) {
        Session demo = LamplightersRound.session();
        Regions regions = new Regions(List.of(new Region("take-1", 0, 16 * BAR, PrintMode.REPLACE_ALL, false, print)));
        PartRef celesta =
                demo.instruments().get(0).ref(demo.instruments().get(0).parts().get(0));
        return demo.withTracks(List.of(Track.of(ID, "Celesta", celesta).withRegions(regions)));
    }

    private static Track track(Session session) {
        return session.tracks().get(0);
    }

    private static Map<String, BitSet> all(Session session) {
        return Map.of(
                ID,
                NoteFunction.all(
                        ClipIndex.of(track(session).regions().editable().whole())));
    }

    private static Grid grid(Session session) {
        return Grid.of(Grid.Step.parse("1/8"), session.tempo(), 0);
    }

    private static Map<String, BitSet> some(Session session, Random random) {
        BitSet some = new BitSet();
        int notes = ClipIndex.of(track(session).regions().editable().whole()).noteCount();
        for (int note = 0; note < notes; note++) {
            some.set(note, random.nextBoolean());
        }
        return Map.of(ID, some);
    }

    @Test
    void quantizedAndAsItWasPlayedIsTheClip() {
        for (int seed = 0; seed < 30; seed++) {
            Session session = session(played(seed));
            Session quantized = NoteEdits.change(session, all(session), Quantize.starts(grid(session)))
                    .session();
            assertThat(track(quantized).sounding()).isNotEqualTo(track(session).sounding());
            assertThat(track(quantized).regions().isEdited("take-1")).isTrue();
            Session back = NoteEdits.asPlayed(quantized, all(quantized)).session();
            assertThat(back).isEqualTo(session);
        }
    }

    @Test
    void anyNoteGoesBackByItselfWhateverWasDoneToIt() {
        for (int seed = 0; seed < 60; seed++) {
            Random random = new Random(seed);
            Session session = session(played(seed));
            Session edited = session;
            for (int i = 0; i < 6; i++) {
                edited = randomEdit(edited, random);
            }
            ClipIndex printed = ClipIndex.of(track(session).regions().printed());
            Map<String, BitSet> one = some(edited, random);
            NoteEdits.Edited restored = NoteEdits.asPlayed(edited, one);
            Track now = track(restored.session());
            ClipIndex index = ClipIndex.of(now.regions().editable().whole());
            BitSet selected = restored.selected().get(ID);
            for (int note = selected.nextSetBit(0); note >= 0; note = selected.nextSetBit(note + 1)) {
                int itself = note;
                int was = now.regions().editable().origins().played(note);
                long shift = now.regions().editable().origins().shift(note);
                if (was >= 0) {
                    boolean isBack = index.key(note) == printed.key(was)
                            && index.start(note) == Math.max(0, printed.start(was) + shift);
                    boolean isOneOfCopies = IntStream.range(0, index.noteCount())
                            .anyMatch(other -> other != itself
                                    && now.regions().editable().origins().played(other) == was);
                    assertThat(isBack || isOneOfCopies || isTaken(index, note, printed, was, shift))
                            .as("note %d, seed %d", note, seed)
                            .isTrue();
                }
            }
            assertThat(NoteEdits.allAsPlayed(edited, List.of(ID))).isEqualTo(session);
        }
    }

    /** Returns true if another note sounds where one was played. */
    private static boolean isTaken(ClipIndex index, int note, ClipIndex printed, int was, long shift) {
        return IntStream.range(0, index.noteCount())
                .anyMatch(other -> other != note
                        && index.key(other) == printed.key(was)
                        && index.start(other) < printed.end(was) + shift
                        && index.end(other) >= printed.start(was) + shift);
    }

    private static Session randomEdit(Session session, Random random) {
        Map<String, BitSet> some = some(session, random);
        NoteChange change = NoteChange.values()[random.nextInt(NoteChange.values().length)];
        return switch (random.nextInt(8)) {
            case 0 -> NoteEdits.mute(session, some, random.nextBoolean());
            case 1 -> NoteEdits.asPlayed(session, some).session();
            case 2 ->
                NoteEdits.change(session, some, ManualChanges.copy(random.nextInt(4) * BAR, 2))
                        .session();
            case 3 ->
                NoteEdits.change(session, some, ManualChanges.cut(random.nextInt(60_000)))
                        .session();
            case 4 ->
                NoteEdits.change(
                                session,
                                some,
                                ManualChanges.draw(List.of(Note.of(0, 50, random.nextInt(9000), 9600, 70))))
                        .session();
            case 5 -> Arrangement.repeat(2 * BAR, 4 * BAR, 2).of(session, Set.of(ID));
            case 6 -> Arrangement.cutOut(5 * BAR, 6 * BAR).of(session, Set.of(ID));
            default ->
                NoteEdits.change(session, some, change.with(change.usual(), 960, BAR))
                        .session();
        };
    }

    @Test
    void undoOfAnySequenceIsTheBeginning() {
        for (int seed = 0; seed < 20; seed++) {
            Random random = new Random(seed);
            Session session = session(played(seed));
            Document document = new Document(session, Performance.NEW);
            Session begin = document.session();
            List<Session> steps = new ArrayList<>();
            for (int i = 0; i < 12; i++) {
                document.edit("Edit", now -> randomEdit(now, random));
                steps.add(document.session());
            }
            while (document.undoName().isPresent()) {
                document.undo();
            }
            assertThat(document.session()).isEqualTo(begin);
            while (document.redoName().isPresent()) {
                document.redo();
            }
            assertThat(document.session()).isEqualTo(steps.get(steps.size() - 1));
        }
    }

    @Test
    void aFileKeepsWhatWasPlayedBesideWhatHandsMadeOfIt() throws Exception {
        for (int seed = 0; seed < 30; seed++) {
            Random random = new Random(seed);
            Session edited = session(played(seed));
            for (int i = 0; i < 5; i++) {
                edited = randomEdit(edited, random);
            }
            Path file = folder.resolve("edited.dibble");
            SessionFile.write(file, edited, Performance.NEW);
            Track read = track(SessionFile.read(file).session());
            Track wrote = track(edited);
            assertThat(read.sounding()).isEqualTo(wrote.sounding());
            assertThat(read.regions().asPrinted()).isEqualTo(wrote.regions().asPrinted());
            assertThat(read.regions().editable().originsOf(false))
                    .isEqualTo(wrote.regions().editable().originsOf(false));
            assertThat(notes(read.regions().editable().silent()))
                    .isEqualTo(notes(wrote.regions().editable().silent()));
            assertThat(read.regions().editable().originsOf(true))
                    .isEqualTo(wrote.regions().editable().originsOf(true));
        }
    }

    private static List<Note> notes(MidiTrack clip) {
        ClipIndex index = ClipIndex.of(clip);
        return IntStream.range(0, index.noteCount())
                .mapToObj(note -> ManualChanges.note(index, note))
                .toList();
    }

    /** A note that takes the place of a muted one is another note. */
    @Test
    void notesThatAreRecordedInThePlaceOfMutedOnesSound() {
        Session muted = NoteEdits.mute(session(played(1)), all(session(played(1))), true);
        MidiTrack again = played(1);
        Track track = muted.tracks().get(0);
        Regions replaced =
                track.regions().with(new Region("take-2", 0, 16 * BAR, PrintMode.REPLACE_RANGE, false, again));
        assertThat(ClipIndex.of(replaced.sounding()).noteCount()).isEqualTo(64);
        assertThat(replaced.editable().muted().isEmpty()).isTrue();
    }

    @Test
    void mutedNotesAreSeenAndNotHeard() {
        Session session = session(played(1));
        BitSet third = new BitSet();
        third.set(2);
        Session muted = NoteEdits.mute(session, Map.of(ID, third), true);
        assertThat(track(muted).noteCount()).isEqualTo(63);
        assertThat(ClipIndex.of(track(muted).regions().editable().whole()).noteCount())
                .isEqualTo(64);
        assertThat(NoteEdits.mute(muted, Map.of(ID, third), false)).isEqualTo(session);
    }

    @Test
    void aTakeThatIsRecordedOverEditedNotesLeavesTheOthersAsTheyAre() {
        Session session = session(played(2));
        Session quantized = NoteEdits.change(session, all(session), Quantize.starts(grid(session)))
                .session();
        MidiTrack punched = new MidiTrack.Builder()
                .add(4 * BAR, ShortMessage.noteOn(0, 40, 90))
                .add(5 * BAR, ShortMessage.noteOff(0, 40, 64))
                .build(6 * BAR);
        Regions regions = track(quantized)
                .regions()
                .with(new Region("take-2", 4 * BAR, 6 * BAR, PrintMode.REPLACE_RANGE, false, punched));
        ClipIndex index = ClipIndex.of(regions.sounding());
        assertThat(IntStream.range(0, index.noteCount()).filter(note -> index.key(note) == 40))
                .hasSize(1);
        assertThat(IntStream.range(0, index.noteCount())
                        .filter(note -> index.key(note) != 40)
                        .mapToLong(index::start)
                        .filter(start -> start % 480 != 0))
                .isEmpty();
        assertThat(regions.isEdited("take-2")).isFalse();
        assertThat(regions.isEdited("take-1")).isTrue();
        Map<String, BitSet> every =
                Map.of(ID, NoteFunction.all(ClipIndex.of(regions.editable().whole())));
        Session back = NoteEdits.asPlayed(
                        session.withTracks(List.of(track(session).withRegions(regions))), every)
                .session();
        assertThat(track(back).sounding())
                .isEqualTo(track(session)
                        .regions()
                        .with(new Region("take-2", 4 * BAR, 6 * BAR, PrintMode.REPLACE_RANGE, false, punched))
                        .sounding());
    }

    @Test
    void aPhraseGoesToAnotherSoundWithItsPedal() {
        Session session = session(played(3));
        Document document = new Document(session, Performance.NEW);
        PartRef other = session.instruments().stream()
                .flatMap(it -> it.parts().stream().map(it::ref))
                .filter(ref -> !ref.equals(track(session).part().orElseThrow()))
                .findFirst()
                .orElseThrow();
        BitSet phrase = new BitSet();
        phrase.set(8, 12);
        Session moved = NoteMoves.toPart(document.session(), document.routing(), Map.of(ID, phrase), other)
                .session();
        Track to = moved.trackOf(other).orElseThrow();
        int channel = document.routing().channels().channel(other).orElseThrow() - 1;
        assertThat(to.noteCount()).isEqualTo(4);
        assertThat(track(moved).noteCount()).isEqualTo(60);
        List<Integer> messages = IntStream.range(0, to.sounding().size())
                .map(i -> to.sounding().message(i))
                .boxed()
                .toList();
        assertThat(messages)
                .contains(ShortMessage.controller(channel, 64, 127), ShortMessage.controller(channel, 64, 0))
                .allMatch(message -> ShortMessage.channel(message) == channel);
        assertThat(messages.get(messages.size() - 1)).isEqualTo(ShortMessage.controller(channel, 64, 0));
    }

    @Test
    void eachKeyOfTheSelectedNotesGetsATrack() {
        Session session = session(played(4));
        BitSet first = new BitSet();
        first.set(0, 24);
        Session apart = NoteMoves.apart(session, ID, first, Sorting.How.by(Sorting.By.KEY));
        assertThat(apart.tracks()).hasSize(13);
        assertThat(track(apart).noteCount()).isEqualTo(40);
        assertThat(apart.tracks().subList(1, 13)).allMatch(track -> track.noteCount() == 2);
    }

    @Test
    void twoBarsAreCutOutAndSoundFourTimes() {
        Session session = session(played(5));
        Session loop = Arrangement.repeat(0, 2 * BAR, 4)
                .of(Arrangement.keepOnly(2 * BAR, 4 * BAR).of(session, Set.of(ID)), Set.of(ID));
        ClipIndex index = ClipIndex.of(track(loop).sounding());
        assertThat(track(loop).sounding().endTick()).isEqualTo(8 * BAR);
        assertThat(index.noteCount()).isEqualTo(32);
        for (int note = 0; note < 32; note++) {
            assertThat(index.start(note) % (2 * BAR)).isEqualTo(index.start(note % 8));
            assertThat(index.key(note)).isEqualTo(index.key(note % 8));
        }
    }

    @Test
    void aPauseIsInsertedBeforeTheFirstBar() {
        Session session = session(played(1));
        Session later = Arrangement.insert(0, BAR).of(session, Set.of(ID));
        assertThat(track(later).sounding().tick(0))
                .isEqualTo(track(session).sounding().tick(0) + BAR);
        assertThat(later.tempo().bpm(0)).isEqualTo(session.tempo().bpm(0));
    }

    @Test
    void mutedNotesGoWithTheirBars() {
        Session session = session(played(1));
        Session muted = NoteEdits.mute(session, all(session), true);
        Session later = Arrangement.insert(0, BAR).of(muted, Set.of(ID));
        assertThat(track(later).sounding().size())
                .isEqualTo(track(muted).sounding().size());
        assertThat(track(later).content().tick(0))
                .isEqualTo(track(muted).content().tick(0) + BAR);
    }

    @Test
    void anOffWithoutItsNoteStaysWhereItIs() {
        MidiTrack clip = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(100, ShortMessage.noteOff(0, 62, 64))
                .add(200, ShortMessage.noteOff(0, 60, 64))
                .build();
        BitSet first = new BitSet();
        first.set(0);
        MidiTrack half =
                TimeChanges.stretch(2, 1).of(clip, ClipIndex.of(clip), first).clip();
        assertThat(ClipIndex.of(half).end(0)).isEqualTo(400);
        assertThat(half.size()).isEqualTo(3);
    }

    @Test
    void tempoAndMarkersGoWithTheMusicWhereAllTracksDo() {
        TempoMap tempo = new TempoMap(
                List.of(new TempoMap.Tempo(0, 100), new TempoMap.Tempo(4 * BAR, 120)),
                List.of(new TempoMap.Meter(0, 4, 4), new TempoMap.Meter(8 * BAR, 3, 4)));
        Session session = session(played(6))
                .withTempo(tempo)
                .withMarkers(List.of(new Marker(2 * BAR, "Verse"), new Marker(8 * BAR, "Refrain")));
        Session cut = Arrangement.cutOut(3 * BAR, 5 * BAR).of(session, Set.of(ID));
        assertThat(cut.tempo())
                .isEqualTo(new TempoMap(
                        List.of(new TempoMap.Tempo(0, 100), new TempoMap.Tempo(3 * BAR, 120)),
                        List.of(new TempoMap.Meter(0, 4, 4), new TempoMap.Meter(6 * BAR, 3, 4))));
        assertThat(cut.markers()).extracting(Marker::at).containsExactly(2 * BAR, 6 * BAR);
        assertThat(Arrangement.cutOut(3 * BAR, 5 * BAR).of(session, Set.of()).tempo())
                .isEqualTo(tempo);
    }

    @Test
    void markersStandInExportedFilesAndInSessions() throws Exception {
        Session session = session(played(8)).withMarkers(List.of(new Marker(4 * BAR, "Refrain")));
        MidiTrack conductor = TrackExport.conductor("n", session.tempo(), session.markers());
        int marker = IntStream.range(0, conductor.size())
                .filter(i -> conductor.isMeta(i, MidiTrack.META_MARKER))
                .findFirst()
                .orElseThrow();
        assertThat(conductor.text(marker)).isEqualTo("Refrain");
        assertThat(conductor.tick(marker)).isEqualTo(4 * BAR);
        Path file = folder.resolve("marked.dibble");
        SessionFile.write(file, session, Performance.NEW);
        assertThat(SessionFile.read(file).session().markers()).isEqualTo(session.markers());
    }

    @Test
    void deletedNotesComeBackWithTheWholeTrack() {
        Session session = session(played(7));
        Session edited = NoteEdits.change(session, some(session, new Random(7)), CleanUp.delete())
                .session();
        assertThat(track(edited).noteCount()).isLessThan(64);
        assertThat(NoteEdits.allAsPlayed(edited, List.of(ID))).isEqualTo(session);
    }
}
