package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.NoteEdits;
import dibble.gear.PartRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.notes.Velocities;
import dibble.paper.PaperSize;
import dibble.presentation.keys.KeysPresenter;
import dibble.presentation.notes.NotesPresenter;
import dibble.presentation.sheet.SheetActions;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.session.Edit;
import dibble.session.Gesture;
import dibble.session.Performance;
import dibble.session.Session;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Work in progress while another session is opened, saved or imported into: it reaches its own session or none. */
class SessionReplacementTest {
    @TempDir
    private Path folder;

    @TempDir
    private Path userFolder;

    private HeadlessApp app;

    @BeforeEach
    void begin() {
        app = new HeadlessApp(LamplightersRound.session(), userFolder);
    }

    @AfterEach
    void end() {
        app.close();
    }

    private Path saved(String name) throws IOException {
        Path file = folder.resolve(name + ".dibble");
        SessionFile.write(file, LamplightersRound.session().withName(name), Performance.NEW);
        return file;
    }

    private void open(Path file) {
        app.files.openAsked(file);
        app.settle();
    }

    private Edit rename(String name) {
        return new Edit("name", session -> session.withName(name));
    }

    private static int await(CountDownLatch latch) {
        try {
            latch.await();
            return 0;
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    @Nested
    class LongEdit {
        @Test
        void isFinishedBeforeItsSessionIsLeft() throws IOException {
            Path other = saved("other");
            CountDownLatch lasts = new CountDownLatch(1);
            app.context()
                    .jobs()
                    .edit(
                            app.context().document(),
                            "Renaming",
                            "name",
                            (session, progress) -> session.withName("long" + await(lasts)),
                            () -> {});
            app.files.begin(() -> {});
            assertThat(app.lastTold()).isEqualTo("Renaming has to finish first.");
            lasts.countDown();
            app.settle();
            assertThat(app.session().name()).isEqualTo("long0");
            assertThat(app.question).contains("long0");
            app.leave();
            app.files.openAsked(other);
            app.settle();
            app.answer("Don’t save");
            assertThat(app.session().name()).isEqualTo("other");
            assertThat(app.context().document().isChanged()).isFalse();
        }
    }

    @Nested
    class Entry {
        @Test
        void isSavedWithTheSession() throws IOException {
            Path file = saved("typing");
            open(file);
            app.entry = () -> app.context().document().edit(rename("typed"));
            app.files.save();
            app.settle();
            assertThat(SessionFile.read(file).session().name()).isEqualTo("typed");
        }

        @Test
        void isAskedAboutWithTheSessionThatItWasTypedIn() throws IOException {
            Path other = saved("other");
            app.entry = () -> app.context().document().edit(rename("typed"));
            open(other);
            assertThat(app.question).contains("typed");
            app.answer("Don’t save");
            assertThat(app.session().name()).isEqualTo("other");
        }

        @Test
        void isDroppedWhereItsSessionIsGone() {
            app.entry = () -> app.context().document().edit(rename("typed"));
            app.services.open(LamplightersRound.session().withName("recovered"), Performance.NEW);
            app.commit();
            assertThat(app.session().name()).isEqualTo("recovered");
        }
    }

    @Test
    void dragIsCancelledBeforeItsSessionIsLeft() throws IOException {
        Path other = saved("other");
        Gesture drag = app.context().document().begin(end -> {});
        drag.preview(rename("dragged").change());
        open(other);
        assertThat(app.session().name()).isEqualTo("other");
        drag.finish(rename("dragged"));
        assertThat(app.session().name()).isEqualTo("other");
    }

    @Test
    void midiFileThatWasReadForAnotherSessionIsNotImported() throws IOException {
        Path file = midiFile();
        app.midi.bringIn(file, () -> {});
        app.services.open(LamplightersRound.session().withName("other"), Performance.NEW);
        app.settle();
        assertThat(app.session().takes()).isEmpty();
        assertThat(app.session().sources())
                .hasSameSizeAs(LamplightersRound.session().sources());
        assertThat(app.lastTold()).isEqualTo("bells.mid was not added: another session was opened in the meantime.");
    }

    private Path midiFile() throws IOException {
        MidiTrack notes = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(1920, ShortMessage.noteOff(0, 60, 64))
                .build();
        Path file = folder.resolve("bells.mid");
        Files.write(file, MidiFileWriter.write(new MidiFile(1, 480, List.of(notes))));
        return file;
    }

    @Test
    void midiFileKeepsNoPreviewOfNotes() throws IOException {
        MidiTrack.Builder clip = new MidiTrack.Builder();
        clip.add(0, ShortMessage.noteOn(0, 60, 50)).add(480, ShortMessage.noteOff(0, 60, 64));
        Session session = app.session()
                .withTracks(List.of(Track.of("bells", "Bells", new PartRef("sorrel", "celesta"))
                        .withRegions(Regions.own(clip.build(1920)))));
        app.services.open(session, Performance.NEW);
        NotesPresenter notes =
                new NotesPresenter(app.context().document(), app.context().runs());
        notes.show("bells", false);
        notes.follow();
        notes.select().all();
        Session kept = app.context().document().kept().session();
        notes.preview(kept, NoteEdits.change(kept, notes.chosen(), Velocities.set(5)), () -> {});
        assertThat(notes.isPreviewing()).isTrue();
        app.midi.bringIn(midiFile(), () -> {});
        app.settle();
        assertThat(app.session().takes()).hasSize(1);
        assertThat(app.context().document().kept().session().track("bells"))
                .contains(session.track("bells").orElseThrow());
    }

    @Test
    void sheetThatWasOfferedForAnotherStateIsReadAgain() throws IOException {
        Path csv = folder.resolve("rows.csv");
        SheetFiles sheets = new SheetFiles(
                app.context(),
                app.files,
                new PathQuestions(app.context()),
                new Exports(app.context(), app.files, new PathQuestions(app.context())));
        sheets.export(SheetActions.Form.CSV, PaperSize.A4);
        app.type(csv);
        List<SheetActions.Offer> offers = new ArrayList<>();
        sheets.bringIn(offers::add);
        app.type(csv);
        Session base = app.context().document().kept().session();
        assertThat(offers).hasSize(1);
        assertThat(offers.get(0).base()).isSameAs(base);
        app.context().document().edit(rename("edited since"));
        assertThat(app.context().document().kept().session())
                .isNotSameAs(offers.get(0).base());
        offers.get(0).again().run();
        app.settle();
        assertThat(offers.get(1).base())
                .isSameAs(app.context().document().kept().session());
        assertThat(offers.get(1).changed().session().name()).isEqualTo("edited since");
    }

    @Test
    void copiedZoneIsPastedAfterItWasDeleted() {
        KeysPresenter keys =
                new KeysPresenter(app.context().document(), app.context().jobs());
        Zone marimba = app.session().zone("marimba").orElseThrow();
        KeysPresenter.Copied copied = keys.copied(marimba);
        keys.delete("marimba");
        assertThat(keys.canPaste(copied)).isTrue();
        String pasted = keys.paste(copied, "tansy");
        assertThat(app.session().zone(pasted).orElseThrow().to()).isEqualTo(marimba.to());
        app.services.open(Session.empty("bare"), Performance.NEW);
        assertThat(keys.canPaste(copied)).isFalse();
    }
}
