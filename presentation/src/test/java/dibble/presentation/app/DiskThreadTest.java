package dibble.presentation.app;

import static dibble.presentation.disk.DiskGuard.onInterfaceThread;
import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.gear.PartRef;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.paper.PaperSize;
import dibble.presentation.disk.DiskGuard;
import dibble.presentation.sheet.SheetActions;
import dibble.recording.Regions;
import dibble.recording.Track;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.user.SetFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The interface thread never waits for a disk, whatever is done with files. */
class DiskThreadTest {
    @TempDir
    private Path folder;

    @TempDir
    private Path userFolder;

    private HeadlessApp app;

    @BeforeEach
    void begin() {
        assumeTrue(DiskGuard.isActive(), "run by Maven, which starts the process with the guarded file system");
        app = new HeadlessApp(LamplightersRound.session(), userFolder);
        app.context().preferences().get();
        DiskGuard.takeCalls();
    }

    @AfterEach
    void end() {
        if (app != null) {
            app.close();
        }
    }

    /** Does something on the interface thread, and takes in what its jobs come to there. */
    private void perform(String what, Runnable action) {
        onInterfaceThread(() -> {
            action.run();
            app.settle();
        });
        assertThat(DiskGuard.takeCalls()).as(what).isEmpty();
    }

    private Path saved(String name) throws IOException {
        Path file = folder.resolve(name + ".dibble");
        SessionFile.write(file, LamplightersRound.session().withName(name), Performance.NEW);
        return file;
    }

    @Test
    void guardSeesADisk() {
        onInterfaceThread(() -> Files.exists(folder));
        assertThat(DiskGuard.takeCalls()).hasSize(1).first().asString().contains("DiskThreadTest");
    }

    @Test
    void sessionsAreOpenedSavedAndLeft() throws IOException {
        Path one = saved("one");
        Path two = saved("two");
        perform("open", () -> app.files.openAsked(one));
        assertThat(app.session().name()).isEqualTo("one");
        perform("open, asked", () -> app.files.open());
        perform("type", () -> app.type(two));
        perform("edit", () -> app.context().document().edit("name", session -> session.withName("edited")));
        perform("save", () -> app.files.save());
        perform("save as", () -> app.files.saveAs());
        perform("type", () -> app.type(one));
        assertThat(app.question).contains("already exists");
        perform("replace", () -> app.answer("Replace"));
        assertThat(app.files.file()).isEqualTo(one);
        perform("edit", () -> app.context().document().edit("name", session -> session.withName("edited again")));
        perform("new", () -> app.files.begin(() -> {}));
        perform("save", () -> app.answer("Save"));
        assertThat(app.session().name()).isNotEqualTo("edited again");
        Files.writeString(two, "damaged");
        DiskGuard.takeCalls();
        perform("open damaged", () -> app.files.openAsked(two));
        perform("quit", () -> app.files.close());
        assertThat(app.quit).isTrue();
    }

    @Test
    void filesAreImportedAndExported() throws IOException {
        MidiTrack notes = new MidiTrack.Builder()
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(1920, ShortMessage.noteOff(0, 60, 64))
                .build();
        Path midi = folder.resolve("bells.mid");
        Files.write(midi, MidiFileWriter.write(new MidiFile(1, 480, List.of(notes))));
        Session session = app.session()
                .withTracks(List.of(Track.of("bells", "Bells", new PartRef("sorrel", "celesta"))
                        .withRegions(Regions.own(notes))));
        app.services.open(session, Performance.NEW);
        DiskGuard.takeCalls();
        perform("import", () -> app.midi.bringIn());
        perform("type", () -> app.type(midi));
        assertThat(app.lastTold()).contains("is now a source");
        perform("export", () -> app.midi.export());
        perform("type", () -> app.type(folder.resolve("out.mid")));
        assertThat(folder.resolve("out.mid")).exists();
        perform("export again", () -> app.midi.export());
        perform("type", () -> app.type(folder.resolve("out.mid")));
        perform("replace", () -> app.answer("Replace"));
        perform("export files", () -> app.midi.exportFiles());
        perform("type", () -> app.type(folder.resolve("tracks")));
        PathQuestions questions = new PathQuestions(app.context());
        SheetFiles sheets =
                new SheetFiles(app.context(), app.files, questions, new Exports(app.context(), app.files, questions));
        perform("export sheet", () -> sheets.export(SheetActions.Form.CSV, PaperSize.A4));
        perform("type", () -> app.type(folder.resolve("rows.csv")));
        perform("import sheet", () -> sheets.bringIn(offer -> {}));
        perform("type", () -> app.type(folder.resolve("rows.csv")));
    }

    @Test
    void setsAndRecovery() throws IOException {
        saved("one");
        saved("two");
        Path set = folder.resolve("evening.dibbleset");
        SetFile.write(
                SessionSet.empty("evening")
                        .with(new SessionSet.Entry("one.dibble"))
                        .with(new SessionSet.Entry("two.dibble")),
                set);
        DiskGuard.takeCalls();
        perform("open set", () -> app.sets.open(set, () -> {}));
        perform("go", () -> app.sets.go(0));
        perform("next", () -> app.sets.step(1));
        assertThat(app.session().name()).isEqualTo("two");
        perform("change", () -> app.sets.change(it -> it.swapped(0, 1)));
        perform("recover", () -> app.recovery.offer());
    }
}
