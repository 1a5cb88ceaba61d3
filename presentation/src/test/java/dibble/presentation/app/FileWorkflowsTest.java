package dibble.presentation.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.files.SessionContent;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.EventStore;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.time.TempoMap;
import dibble.user.SetFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Opening, saving, importing and recovering: nothing is lost, and what goes wrong is one line. */
class FileWorkflowsTest {
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

    private void open(Path file) {
        app.files.open();
        app.type(file);
    }

    private void rename(String name) {
        app.context().document().edit("name", session -> session.withName(name));
    }

    private boolean isChanged() {
        return app.context().document().isChanged();
    }

    @Test
    void aDamagedSessionIsOpenedAsACopyAndItsFileStaysAsItIs() throws Exception {
        Path whole = folder.resolve("whole.dibble");
        Session before = app.session();
        SessionFile.write(whole, before, Performance.NEW);
        byte[] bytes = Files.readAllBytes(whole);
        byte[] cut = Arrays.copyOf(bytes, bytes.length - 30);
        Path damaged = folder.resolve("damaged.dibble");
        Files.write(damaged, cut);
        open(damaged);
        assertThat(app.session()).isSameAs(before);
        app.answer("Open as a copy");
        assertThat(app.session().name()).endsWith("(copy)");
        assertThat(app.lastTold()).startsWith("Opened as a copy. 1 item could not be read: the file was cut off");
        assertThat(app.session().zones()).isEqualTo(before.zones());
        assertThat(isChanged()).isTrue();
        // Saved, it asks where.
        app.files.save();
        assertThat(app.question).isNotNull();
        assertThat(Files.readAllBytes(damaged)).isEqualTo(cut);
    }

    /** Refused while it is opened: the application keeps the session, and the file that it saves to. */
    @Test
    void aSessionThatCannotBePlayedLeavesWhatWasOpen() throws Exception {
        Path file = folder.resolve("round.dibble");
        SessionFile.write(file, app.session(), Performance.NEW);
        open(file);
        assertThat(app.files.file()).isEqualTo(file);
        Session before = app.session();
        StringBuilder json =
                new StringBuilder("{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"instruments\":[");
        for (int i = 0; i < 300; i++) {
            json.append(i == 0 ? "" : ",").append("{\"id\":\"i").append(i).append("\"}");
        }
        Path many = folder.resolve("many.json");
        Files.writeString(many, json.append("]}"));
        open(many);
        assertThat(app.lastTold()).contains("more instrument ports than Dibble can handle");
        assertThat(app.session()).isSameAs(before);
        assertThat(app.files.file()).isEqualTo(file);
        app.files.save();
        app.settle();
        assertThat(SessionFile.read(file).session().zones()).isEqualTo(before.zones());
    }

    @Test
    void aBareSessionStaysOneUntilThereIsMoreThanItHasRoomFor() throws Exception {
        Path file = folder.resolve("session.json");
        Files.write(file, SessionContent.json(app.session(), Performance.NEW));
        open(file);
        rename("Bare");
        app.files.save();
        app.settle();
        assertThat(isChanged()).isFalse();
        assertThat(SessionFile.isBare(file)).isTrue();
        assertThat(SessionFile.read(file).session().name()).isEqualTo("Bare");

        app.context().document().edit("take", FileWorkflowsTest::withTake);
        app.files.save();
        app.settle();
        assertThat(app.question).contains("cannot hold takes");
        Path container = folder.resolve("bare.dibble");
        app.type(container);
        assertThat(isChanged()).isFalse();
        assertThat(SessionFile.read(container).session().takes()).hasSize(1);
        assertThat(SessionFile.isBare(file)).isTrue();
    }

    private static Session withTake(Session session) {
        EventStore log = new EventStore();
        log.add(0, 0, ShortMessage.noteOn(0, 60, 80));
        Take take = new Take(
                "take-1",
                "One",
                List.of("larkspur"),
                log,
                List.of(new Take.Mark(0, 0, session.routing(Performance.NEW))),
                session.tempo(),
                1_000_000_000L,
                0);
        return TakeEdits.keep(session, Performance.NEW, TakeEdits.closed(take));
    }

    @Test
    void aMidiFileIsAskedForItsTempoOrItsBarsOnlyWhereItHasOne() throws Exception {
        MidiTrack notes = new MidiTrack.Builder()
                .text(0, MidiTrack.META_TRACK_NAME, "Bells")
                .add(0, ShortMessage.noteOn(0, 60, 80))
                .add(1920, ShortMessage.noteOn(0, 62, 80))
                .add(3840, ShortMessage.noteOff(0, 60, 64))
                .build();
        TempoMap before = app.session().tempo();
        bringIn("plain.mid", new MidiFile(1, 480, List.of(notes)));
        assertThat(app.lastTold()).contains("is now a source with 1 lane");
        assertThat(app.session().tempo()).isEqualTo(before);

        MidiTrack conductor = new MidiTrack.Builder()
                .meta(0, MidiTrack.META_TEMPO, new byte[] {0x0F, 0x42, 0x40})
                .build();
        MidiFile slow = new MidiFile(1, 480, List.of(conductor, notes));
        bringIn("slow.mid", slow);
        assertThat(app.question).contains("60 in 4/4", "96 in 4/4");
        app.answer("Keep the session’s tempo");
        assertThat(app.lastTold()).contains("slow is now a source");
        assertThat(app.session().tempo()).isEqualTo(before);
        bringIn("slow.mid", slow);
        app.answer("Use its tempo");
        assertThat(app.session().tempo().bpm(0)).isEqualTo(60);
        assertThat(app.session().takes()).hasSize(3);
        for (Take take : app.session().takes()) {
            assertThat(take.tick(take.log().stamp(1))).isEqualTo(3840);
        }
    }

    private void bringIn(String name, MidiFile content) throws Exception {
        Path file = folder.resolve(name);
        Files.write(file, MidiFileWriter.write(content));
        app.midi.bringIn();
        app.type(file);
    }

    @Test
    void whatCannotBeBroughtBackIsSaidAndStays() throws Exception {
        Path left = Files.createDirectories(userFolder.resolve("unfinished/session-1"));
        Files.writeString(
                left.resolve("recording-1.jsonl"),
                "{\"t\":5,\"n\":0,\"from\":\"larkspur\",\"m\":[144,60,80]}\n{\"t\":oops}\n");
        app.recovery.offer();
        app.settle();
        app.answer("Recover");
        assertThat(app.lastTold()).contains("recording-1.jsonl, line 2", "not-brought-back");
        assertThat(app.session().takes()).hasSize(1);
        assertThat(userFolder.resolve("not-brought-back/session-1/recording-1.jsonl"))
                .exists();
        app.recovery.offer();
        app.settle();
        assertThat(app.question).isNull();
    }

    @Test
    void aFileThatAnotherProgramHasChangedIsNotSavedOver() throws Exception {
        Path file = folder.resolve("shared.dibble");
        SessionFile.write(file, Session.empty("shared"), Performance.NEW);
        app.files.openAsked(file);
        app.settle();
        SessionFile.write(file, Session.empty("theirs"), Performance.NEW);
        rename("mine");
        app.files.save();
        app.settle();
        assertThat(app.question).contains("was changed by another program");
        assertThat(SessionFile.read(file).session().name()).isEqualTo("theirs");
        app.answer("Replace");
        assertThat(isChanged()).isFalse();
        assertThat(SessionFile.read(file).session().name()).isEqualTo("mine");
        // Its own writing is nobody else's.
        rename("mine again");
        app.files.save();
        app.settle();
        assertThat(SessionFile.read(file).session().name()).isEqualTo("mine again");
    }

    @Test
    void closingAsksWhereSomethingWouldBeLost() {
        rename("changed");
        app.files.close();
        app.settle();
        assertThat(app.quit).isFalse();
        assertThat(app.question).contains("changed");
        app.answer("Don’t save");
        assertThat(app.quit).isTrue();
    }

    private static long waited(CountDownLatch latch) {
        try {
            latch.await();
            return latch.getCount();
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    private Path saved(String name) throws Exception {
        Path file = folder.resolve(name + ".dibble");
        SessionFile.write(file, Session.empty(name), Performance.NEW);
        return file;
    }

    private String onDisk(Path file) throws Exception {
        return SessionFile.read(file).session().name();
    }

    @Test
    void whatIsEditedWhileAPathIsAskedForIsAskedAboutWhenItWouldBeReplaced() throws Exception {
        Path file = saved("other");
        app.files.open();
        rename("edited meanwhile");
        app.type(file);
        assertThat(app.session().name()).isEqualTo("edited meanwhile");
        assertThat(app.question).contains("edited meanwhile");
        app.answer("Don’t save");
        assertThat(app.session().name()).isEqualTo("other");
    }

    @Test
    void editsWhileTheSessionIsSavedAreStillToBeSaved() throws Exception {
        Path file = saved("whole");
        open(file);
        rename("saved");
        app.files.save();
        rename("edited while it was saved");
        app.settle();
        assertThat(isChanged()).isTrue();
        assertThat(SessionFile.read(file).session().name()).isEqualTo("saved");
    }

    @Test
    void whatIsEditedAfterTheQuestionIsAskedAboutAgain() throws Exception {
        rename("first");
        app.files.openAsked(saved("other"));
        app.settle();
        assertThat(app.question).contains("first");
        rename("second");
        app.answer("Don’t save");
        assertThat(app.session().name()).isEqualTo("second");
        assertThat(app.question).contains("second");
        app.answer("Don’t save");
        assertThat(app.session().name()).isEqualTo("other");
    }

    @Test
    void whatIsEditedWhileAJobHoldsTheEndUpIsAskedAboutBeforeQuitting() {
        rename("first");
        CountDownLatch lasts = new CountDownLatch(1);
        app.context().jobs().start("Lasting", progress -> waited(lasts), done -> {});
        app.files.close();
        app.answerAtOnce("Don’t save");
        rename("second");
        lasts.countDown();
        app.settle();
        assertThat(app.quit).isFalse();
        assertThat(app.question).contains("second");
        app.answer("Don’t save");
        assertThat(app.quit).isTrue();
    }

    @Test
    void whatIsRecoveredIsNotSavedOverWhatWasSavedSince() throws Exception {
        Path file = saved("before");
        app.files.openAsked(file);
        app.settle();
        rename("edited");
        // It ends in the middle: what it kept is another's to find.
        Path kept = Files.createDirectories(userFolder.resolve("unfinished"));
        await().until(() -> {
            try (Stream<Path> all = Files.walk(kept)) {
                return all.anyMatch(it -> it.endsWith("session.json"));
            }
        });
        Path other = Files.createDirectories(folder.resolve("user-2/unfinished/session-1"));
        try (Stream<Path> all = Files.walk(kept)) {
            Files.copy(
                    all.filter(it -> it.endsWith("session.json")).findFirst().orElseThrow(),
                    other.resolve("session.json"));
        }
        SessionFile.write(file, Session.empty("saved since, by another"), Performance.NEW);
        try (HeadlessApp again = new HeadlessApp(Session.empty("new"), folder.resolve("user-2"))) {
            again.recovery.offer();
            again.settle();
            again.answer("Recover");
            assertThat(again.session().name()).isEqualTo("edited");
            again.files.save();
            again.settle();
            assertThat(onDisk(file)).isEqualTo("saved since, by another");
            assertThat(again.question).contains("was changed by another program");
            again.answer("Replace");
            assertThat(onDisk(file)).isEqualTo("edited");
        }
    }

    /** Replaced by another program and without room for takes: the one question follows the other. */
    @Test
    void aChangedBareFileThatIsReplacedStillAsksWhereTakesCanGo() throws Exception {
        Path file = folder.resolve("session.json");
        Files.write(file, SessionContent.json(app.session(), Performance.NEW));
        open(file);
        app.context().document().edit("take", FileWorkflowsTest::withTake);
        Files.write(file, SessionContent.json(Session.empty("theirs"), Performance.NEW));
        app.files.save();
        app.settle();
        app.answer("Replace");
        assertThat(app.question).contains("cannot hold takes");
        assertThat(isChanged()).isTrue();
    }

    private Path set() throws Exception {
        saved("one");
        saved("two");
        SessionSet set = SessionSet.empty("Evening")
                .with(new SessionSet.Entry("one.dibble"))
                .with(new SessionSet.Entry("two.dibble"));
        Path file = folder.resolve("evening" + SetFile.ENDING);
        SetFile.write(set, file);
        app.sets.open(file, () -> {});
        app.settle();
        app.sets.go(0);
        app.settle();
        assertThat(app.session().name()).isEqualTo("one");
        return file;
    }

    @Test
    void sessionsOutsideASetsFolderAreOpenedOnceThatIsAllowed() throws Exception {
        Path elsewhere = Files.createDirectories(folder.resolve("elsewhere")).toAbsolutePath();
        Path other = elsewhere.resolve("other.dibble");
        SessionFile.write(other, Session.empty("other"), Performance.NEW);
        Path own = Files.createDirectories(folder.resolve("own"));
        Path file = own.resolve("stranger" + SetFile.ENDING);
        SetFile.write(SessionSet.empty("Stranger").with(new SessionSet.Entry("../elsewhere/other.dibble")), file);
        String before = app.session().name();
        app.sets.open(file, () -> {});
        app.settle();
        assertThat(app.question).contains(elsewhere.toString());
        app.leave();
        app.sets.go(0);
        app.settle();
        assertThat(app.question).contains(elsewhere.toString());
        assertThat(app.session().name()).isEqualTo(before);
        app.answer("Open, and remember");
        assertThat(app.session().name()).isEqualTo("other");
        app.sets.open(file, () -> {});
        app.settle();
        assertThat(app.question).isNull();
        app.context().preferences().change(settings -> settings.withoutSoundFolder(elsewhere.toString()));
        app.sets.open(file, () -> {});
        app.settle();
        assertThat(app.question).contains(elsewhere.toString());
    }

    @Test
    void theNextOfASetIsNeverAnOldCopy() throws Exception {
        set();
        Path two = folder.resolve("two.dibble");
        SessionFile.write(two, Session.empty("two, changed since it was read"), Performance.NEW);
        app.sets.go(1);
        app.settle();
        assertThat(app.session().name()).isEqualTo("two, changed since it was read");
        SessionFile.write(two, Session.empty("two, changed again"), Performance.NEW);
        rename("mine");
        app.files.save();
        app.settle();
        assertThat(onDisk(two)).isEqualTo("two, changed again");
        assertThat(app.question).contains("was changed by another program");
    }

    @Test
    void whatIsEditedWhileASessionOfASetIsReadIsAskedAbout() throws Exception {
        set();
        // What was read ahead is outdated, so that it is read once more.
        saved("two");
        app.sets.go(1);
        rename("edited meanwhile");
        app.settle();
        assertThat(app.session().name()).isEqualTo("edited meanwhile");
        app.answer("Don’t save");
        assertThat(app.session().name()).isEqualTo("two");
    }

    @Test
    void twoQuickStepsThroughASetAreTwo() throws Exception {
        Path file = set();
        saved("three");
        app.sets.change(set -> set.with(new SessionSet.Entry("three.dibble")));
        app.settle();
        app.sets.step(1);
        app.sets.step(1);
        app.settle();
        assertThat(app.session().name()).isEqualTo("three");
        assertThat(SetFile.read(file).entries()).hasSize(3);
    }
}
