package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.disk.SessionFile;
import dibble.edits.TakeEdits;
import dibble.files.SessionContent;
import dibble.midi.MidiFile;
import dibble.midi.MidiFileWriter;
import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.EventLog;
import dibble.recording.Take;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.time.TempoMap;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Saving, opening and closing as a user does it; nothing is lost. */
class FilesJourneyTest extends WindowTest {
    @TempDir
    private Path folder;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private void shortcut(KeyCode... keys) {
        press(KeyCode.CONTROL);
        press(keys).release(keys);
        release(KeyCode.CONTROL);
    }

    private void answer(Path path) {
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        onFx(() -> {
            TextField field = lookup("#ask-field").query();
            field.setText(path.toString());
            field.requestFocus();
        });
        type(KeyCode.ENTER);
    }

    @Test
    void closingAsksInPlaceAndWhatIsSavedIsOpenedAgain() throws Exception {
        onFx(window::close);
        assertThat(quit).isTrue();
        quit.set(false);

        clickOn("#zone-marimba");
        type(KeyCode.RIGHT);
        until(() -> desk().document().isChanged());
        onFx(window::close);
        until(() -> desk().ask().isAsking());
        assertThat(quit).isFalse();
        clickOn(labelled("Cancel"));
        until(() -> !desk().ask().isAsking());

        Path file = folder.resolve("round.dibble");
        shortcut(KeyCode.S);
        answer(file);
        until(() -> Files.exists(file));
        until(() -> !desk().document().isChanged());
        assertThat(SessionFile.read(file).session().zone("marimba"))
                .isEqualTo(desk().session().zone("marimba"));

        // Another file is replaced only when that is said.
        Path other = folder.resolve("other.dibble");
        Files.writeString(other, "precious");
        press(KeyCode.CONTROL, KeyCode.SHIFT).type(KeyCode.S).release(KeyCode.SHIFT, KeyCode.CONTROL);
        answer(other);
        until(() -> lookup(labelled("Replace")).tryQuery().isPresent());
        clickOn(labelled("Cancel"));
        assertThat(Files.readString(other)).isEqualTo("precious");

        // A broken file, and one that is not there: one line, and the session stays.
        Path broken = folder.resolve("broken.dibble");
        Files.writeString(broken, "{\"format\":\"dibble-session\",\"version\":1,\"name\":5}");
        Session before = desk().session();
        shortcut(KeyCode.O);
        answer(broken);
        until(() -> told().contains("broken.dibble: $.name"));
        shortcut(KeyCode.O);
        answer(folder.resolve("none.dibble"));
        until(() -> told().contains("no such file"));
        assertThat(desk().session()).isSameAs(before);

        shortcut(KeyCode.N);
        until(() -> plain(desk().session().name()).equals("New session"));
        // What is bare begins with its gear.
        until(() -> lookup("#bare-split").tryQuery().isPresent());
        shortcut(KeyCode.O);
        answer(file);
        until(() -> desk().session().name().equals(before.name()));
        assertThat(desk().session().zones()).isEqualTo(before.zones());

        // Changed again, and closed without saving.
        clickOn("#view-keys");
        until(() -> lookup("#zone-marimba").tryQuery().isPresent());
        clickOn("#zone-marimba");
        type(KeyCode.RIGHT);
        until(() -> desk().document().isChanged());
        onFx(window::close);
        until(() -> desk().ask().isAsking());
        clickOn(labelled("Don’t save"));
        until(quit::get);
    }

    @Test
    void aDamagedSessionIsOpenedAsACopyAndItsFileStaysAsItIs() throws Exception {
        Path whole = folder.resolve("whole.dibble");
        SessionFile.write(whole, desk().session(), desk().performance());
        byte[] bytes = Files.readAllBytes(whole);
        byte[] cut = Arrays.copyOf(bytes, bytes.length - 30);
        Path damaged = folder.resolve("damaged.dibble");
        Files.write(damaged, cut);
        Session before = desk().session();
        shortcut(KeyCode.O);
        answer(damaged);
        until(() -> lookup(labelled("Open as a copy")).tryQuery().isPresent());
        assertThat(desk().session()).isSameAs(before);
        clickOn(labelled("Open as a copy"));
        until(() -> plain(desk().session().name()).endsWith("(copy)"));
        until(() -> told().startsWith("Opened as a copy. 1 item could not be read: the file was cut off"));
        assertThat(desk().session().zones()).isEqualTo(before.zones());
        assertThat(desk().document().isChanged()).isTrue();
        // Saved, it asks where.
        shortcut(KeyCode.S);
        until(() -> desk().ask().isAsking());
        assertThat(Files.readAllBytes(damaged)).isEqualTo(cut);
    }

    /** Refused while it is opened: the window keeps the session, and the file that it saves to. */
    @Test
    void aSessionThatCannotBePlayedLeavesWhatWasOpen() throws Exception {
        Path file = folder.resolve("round.dibble");
        SessionFile.write(file, desk().session(), desk().performance());
        shortcut(KeyCode.O);
        answer(file);
        until(() -> file.equals(window.files().file()));
        Session before = desk().session();
        StringBuilder json =
                new StringBuilder("{\"format\":\"dibble-session\",\"version\":1,\"name\":\"n\",\"instruments\":[");
        for (int i = 0; i < 300; i++) {
            json.append(i == 0 ? "" : ",").append("{\"id\":\"i").append(i).append("\"}");
        }
        Path many = folder.resolve("many.json");
        Files.writeString(many, json.append("]}"));
        shortcut(KeyCode.O);
        answer(many);
        until(() -> told().contains("more instrument ports than Dibble can handle"));
        assertThat(desk().session()).isSameAs(before);
        assertThat(window.files().file()).isEqualTo(file);
        onFx(window.files()::save);
        assertThat(SessionFile.read(file).session().zones()).isEqualTo(before.zones());
    }

    @Test
    void aBareSessionStaysOneUntilThereIsMoreThanItHasRoomFor() throws Exception {
        Path file = folder.resolve("session.json");
        Files.write(file, SessionContent.json(desk().session(), desk().performance()));
        shortcut(KeyCode.O);
        answer(file);
        until(() -> file.equals(window.files().file()));
        onFx(() -> desk().document().edit("name", session -> session.withName("Bare")));
        shortcut(KeyCode.S);
        until(() -> !desk().document().isChanged());
        assertThat(SessionFile.isBare(file)).isTrue();
        assertThat(SessionFile.read(file).session().name()).isEqualTo("Bare");

        onFx(() -> desk().document().edit("take", FilesJourneyTest::withTake));
        shortcut(KeyCode.S);
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        assertThat(text("#ask-text")).contains("cannot hold takes");
        Path container = folder.resolve("bare.dibble");
        answer(container);
        until(() -> !desk().document().isChanged());
        assertThat(SessionFile.read(container).session().takes()).hasSize(1);
        assertThat(SessionFile.isBare(file)).isTrue();
    }

    private static Session withTake(Session session) {
        EventLog log = new EventLog();
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
        Path plain = folder.resolve("plain.mid");
        Files.write(plain, MidiFileWriter.write(new MidiFile(1, 480, List.of(notes))));
        TempoMap before = desk().session().tempo();
        bringIn(plain);
        until(() -> told().contains("is now a source with 1 lane"));
        assertThat(desk().session().tempo()).isEqualTo(before);

        MidiTrack conductor = new MidiTrack.Builder()
                .meta(0, MidiTrack.META_TEMPO, new byte[] {0x0F, 0x42, 0x40})
                .build();
        Path slow = folder.resolve("slow.mid");
        Files.write(slow, MidiFileWriter.write(new MidiFile(1, 480, List.of(conductor, notes))));
        bringIn(slow);
        until(() -> lookup(labelled("Keep the session’s tempo")).tryQuery().isPresent());
        assertThat(text("#ask-text")).contains("60 in 4/4", "96 in 4/4");
        clickOn(labelled("Keep the session’s tempo"));
        until(() -> told().contains("slow is now a source"));
        assertThat(desk().session().tempo()).isEqualTo(before);
        bringIn(slow);
        until(() -> lookup(labelled("Use its tempo")).tryQuery().isPresent());
        clickOn(labelled("Use its tempo"));
        until(() -> desk().session().tempo().bpm(0) == 60);
        assertThat(desk().session().takes()).hasSize(3);
        for (Take take : desk().session().takes()) {
            assertThat(take.tick(take.log().stamp(1))).isEqualTo(3840);
        }
    }

    private void bringIn(Path file) {
        onFx(() -> desk().commands().get("bring-in-a-midi-file").action().run());
        answer(file);
    }

    @Test
    void whatCannotBeBroughtBackIsSaidAndStays() throws Exception {
        Path left = Files.createDirectories(userFolder.resolve("unfinished/session-1"));
        Files.writeString(
                left.resolve("recording-1.jsonl"),
                "{\"t\":5,\"n\":0,\"from\":\"larkspur\",\"m\":[144,60,80]}\n{\"t\":oops}\n");
        onFx(window.recovery()::offer);
        until(() -> lookup(labelled("Recover")).tryQuery().isPresent());
        clickOn(labelled("Recover"));
        until(() -> told().contains("recording-1.jsonl, line 2"));
        assertThat(desk().session().takes()).hasSize(1);
        assertThat(userFolder.resolve("not-brought-back/session-1/recording-1.jsonl"))
                .exists();
        assertThat(told()).contains("not-brought-back");
        onFx(window.recovery()::offer);
        assertThat(lookup(labelled("Recover")).tryQuery()).isEmpty();
    }

    @Test
    void whatIsToldTakesNoQuestionAwayAndCanBeReadAgain() throws Exception {
        shortcut(KeyCode.O);
        until(() -> lookup("#ask-field").tryQuery().isPresent());
        onFx(() -> lookup("#ask-field").<TextField>queryAs(TextField.class).setText("half a na"));
        onFx(() -> {
            desk().ask().tell("The first thing.");
            desk().ask().tell("The second thing.");
        });
        assertThat(lookup("#ask-field").queryAs(TextField.class).getText()).isEqualTo("half a na");
        assertThat(told()).isEqualTo("The second thing.");
        clickOn(labelled("1 earlier"));
        until(() -> told().equals("The first thing."));
        clickOn(labelled("Close"));
        until(() -> told().isEmpty());
        // What cannot be opened leaves the question, to be mended.
        type(KeyCode.TAB);
        answer(folder.resolve("none.dibble"));
        until(() -> told().contains("no such file"));
        assertThat(lookup("#ask-field").tryQuery()).isPresent();
        clickOn(labelled("Cancel"));
        clickOn(labelled("Close"));
        until(() -> !desk().ask().isAsking());
        shortcut(KeyCode.M);
        until(() -> told().contains("no such file"));
        clickOn(labelled("2 earlier"));
        until(() -> told().equals("The second thing."));
        clickOn(labelled("Later"));
        until(() -> told().contains("no such file"));
    }
}
