package dibble.presentation.notes;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.NoteEdits;
import dibble.gear.PartRef;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.notes.NoteFunction;
import dibble.notes.Velocities;
import dibble.presentation.EditRuns;
import dibble.recording.ClipIndex;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Document;
import dibble.session.Edit;
import dibble.session.Gesture;
import dibble.session.Performance;
import dibble.session.Session;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What of the notes is selected, and what becomes of it, without a window. */
class NotesPresenterTest {
    private static final long BAR = 3840;

    private Document document;
    private static final long PAUSE = TimeUnit.SECONDS.toNanos(1);

    private NotesPresenter notes;
    private long nanos;
    private final List<Integer> cancelled = new ArrayList<>();

    /** Eight notes, two a bar: C4 and E4, softer and louder. */
    @BeforeEach
    void open() {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        for (int i = 0; i < 8; i++) {
            int key = i % 2 == 0 ? 60 : 64;
            clip.add(i * BAR / 2, ShortMessage.noteOn(0, key, 50 + i % 2 * 20));
            clip.add(i * BAR / 2 + 480, ShortMessage.noteOff(0, key, 64));
        }
        Session session = LamplightersRound.session()
                .withTracks(List.of(
                        Track.of("celesta", "Celesta", new PartRef("sorrel", "celesta"))
                                .withRegions(Regions.own(clip.build(4 * BAR))),
                        Track.of("bowls", "Bowls", new PartRef("sorrel", "bowls"))));
        document = new Document(session, Performance.NEW);
        notes = new NotesPresenter(document, new EditRuns(() -> nanos));
        notes.show("celesta", false);
        notes.follow();
    }

    private ClipIndex index() {
        return ClipIndex.of(document.session().tracks().get(0).sounding());
    }

    private String selected() {
        return notes.selected().of("celesta").toString();
    }

    @Test
    void notesAreSelectedByWhatTheyHaveInCommon() {
        notes.select().step(1, false);
        assertThat(selected()).isEqualTo("{0}");
        notes.select().like(SelectionCommands.Like.KEY);
        assertThat(selected()).isEqualTo("{0, 2, 4, 6}");
        notes.select().invert();
        assertThat(selected()).isEqualTo("{1, 3, 5, 7}");
        notes.select().within(0, BAR, 0, 127, false);
        assertThat(selected()).isEqualTo("{0, 1}");
        notes.select().like(SelectionCommands.Like.VELOCITY);
        assertThat(notes.selected().count()).isEqualTo(8);
        notes.selected().clear();
        notes.select().step(-1, false);
        assertThat(selected()).isEqualTo("{7}");
        notes.select().step(-1, true);
        assertThat(selected()).isEqualTo("{6, 7}");
        notes.select().like(SelectionCommands.Like.POSITION);
        assertThat(notes.selected().count()).isEqualTo(8);
    }

    @Test
    void theSelectionGoesOnWithItsNotesWhateverIsDone() {
        notes.select().within(0, BAR, 64, 64, false);
        assertThat(selected()).isEqualTo("{1}");
        notes.drag(3 * BAR, 1);
        assertThat(index().key(7)).isEqualTo(65);
        assertThat(selected()).isEqualTo("{7}");
        document.undo();
        notes.follow();
        assertThat(selected()).as("its note is elsewhere again").isEqualTo("{}");
        document.redo();
        notes.follow();
        notes.select().within(0, BAR, 60, 60, false);
        document.edit(
                "others",
                session -> NoteEdits.change(session, Map.of("celesta", NoteFunction.all(index())), Velocities.set(9))
                        .session());
        notes.follow();
        assertThat(selected()).as("it is where it was").isEqualTo("{0}");
    }

    @Test
    void copiesArePastedWhereTheyAreWantedAndSelected() {
        notes.select().within(0, BAR, 0, 127, false);
        notes.copy();
        notes.paste(10 * BAR);
        assertThat(index().noteCount()).isEqualTo(10);
        assertThat(selected()).isEqualTo("{8, 9}");
        assertThat(index().start(9) - index().start(8)).isEqualTo(BAR / 2);
        notes.select().within(0, BAR, 0, 127, false);
        notes.copyBy(5 * BAR, 12);
        assertThat(index().noteCount()).isEqualTo(12);
        assertThat(notes.selected().count()).isEqualTo(2);
        // A copy knows what it was: as it was played, at its new place.
        notes.change("softer", Velocities.set(3));
        notes.asPlayed();
        int first = notes.selected().of("celesta").nextSetBit(0);
        assertThat(index().velocity(first)).isEqualTo(50);
        assertThat(index().key(first)).isEqualTo(60);
        assertThat(index().start(first)).isEqualTo(5 * BAR);
    }

    @Test
    void aPreviewIsNoStepUntilItIsKept() {
        notes.select().all();
        Session before = document.kept().session();
        preview(5);
        assertThat(notes.isPreviewing()).isTrue();
        assertThat(index().velocity(0)).isEqualTo(5);
        assertThat(document.kept().session()).isSameAs(before);
        assertThat(document.isChanged()).isFalse();
        notes.cancel();
        assertThat(document.session()).isSameAs(before);
        preview(6);
        notes.keep("softer");
        assertThat(document.undoName()).contains("softer");
        assertThat(notes.isPreviewing()).isFalse();
        assertThat(notes.selected().count()).isEqualTo(8);
    }

    private void preview(int velocity) {
        Session before = document.kept().session();
        notes.preview(
                before,
                NoteEdits.change(before, notes.chosen(), Velocities.set(velocity)),
                () -> cancelled.add(velocity));
    }

    @Test
    void aPreviewIsCancelledByUndoAndWaitsForADrag() {
        document.edit("name", session -> session.withName("before"));
        notes.select().all();
        preview(5);
        document.undo();
        assertThat(index().velocity(0)).isEqualTo(50);
        assertThat(cancelled).containsExactly(5);
        assertThat(document.undoName()).contains("name");
        preview(6);
        Gesture drag = document.begin(end -> {});
        assertThat(index().velocity(0)).isEqualTo(50);
        assertThat(notes.hasToWait()).isTrue();
        preview(7);
        assertThat(index().velocity(0)).isEqualTo(50);
        drag.finish(new Edit("name", session -> session.withName("dragged")));
        assertThat(notes.hasToWait()).isFalse();
        preview(8);
        assertThat(index().velocity(0)).isEqualTo(8);
        assertThat(document.session().name()).isEqualTo("dragged");
        notes.keep("softer");
        assertThat(cancelled).containsExactly(5);
    }

    @Test
    void aRunOfNudgesIsOneStepAndEndsWithItsNotesOrAPause() {
        notes.selected().set("celesta", 0, true);
        notes.step(0, 1);
        notes.step(0, 1);
        notes.step(0, 1);
        assertThat(index().key(0)).isEqualTo(63);
        document.undo();
        assertThat(index().key(0)).isEqualTo(60);
        document.redo();
        notes.follow();
        notes.selected().clear();
        notes.selected().set("celesta", 2, true);
        notes.step(0, 1);
        notes.step(0, 1);
        nanos += PAUSE;
        notes.step(0, 1);
        assertThat(index().key(2)).isEqualTo(63);
        document.undo();
        assertThat(index().key(2)).isEqualTo(62);
        document.undo();
        assertThat(index().key(2)).isEqualTo(60);
        assertThat(index().key(0)).isEqualTo(63);
    }

    @Test
    void aNoteIsDrawnOnATrackThatHasNoneOnItsPartsChannel() {
        notes.show("bowls", false);
        notes.follow();
        notes.draw(70, 960, 1200);
        ClipIndex drawn = ClipIndex.of(document.session().tracks().get(1).sounding());
        int channel = document.routing()
                .channels()
                .channel(new PartRef("sorrel", "bowls"))
                .orElseThrow();
        assertThat(drawn.noteCount()).isEqualTo(1);
        assertThat(drawn.channel(0)).isEqualTo(channel - 1);
        notes.mute();
        assertThat(document.session().tracks().get(1).noteCount()).isZero();
        assertThat(notes.isMuted()).isTrue();
    }

    @Test
    void severalTracksAreShownAndEditedTogether() {
        notes.show("bowls", true);
        notes.follow();
        assertThat(notes.tracks()).extracting(Track::id).containsExactly("celesta", "bowls");
        notes.select().all();
        notes.setVelocities(Map.of("celesta", new int[] {7, 0, 0, 0, 0, 0, 0, 9}));
        assertThat(index().velocity(0)).isEqualTo(7);
        assertThat(index().velocity(1)).isEqualTo(70);
        assertThat(notes.selected().count()).as("what was selected stays so").isEqualTo(8);
        notes.show("celesta", true);
        assertThat(notes.tracks()).extracting(Track::id).containsExactly("bowls");
    }

    @Test
    void rowsAreKeysOrOnlyThoseThatAreUsed() {
        BitSet used = new BitSet();
        used.set(60);
        used.set(64);
        KeyRows all = KeyRows.of(used, false);
        assertThat(all.count()).isGreaterThanOrEqualTo(18);
        assertThat(all.rowOf()[64]).isLessThan(all.rowOf()[60]);
        KeyRows only = KeyRows.of(used, true);
        assertThat(only.keys()).containsExactly(64, 60);
        assertThat(only.near(62)).isEqualTo(1);
    }
}
