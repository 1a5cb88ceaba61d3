package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.files.SessionContent;
import dibble.midi.ShortMessage;
import dibble.paper.Pages;
import dibble.session.Session;
import dibble.session.SessionSet;
import dibble.standins.StandIn;
import dibble.user.SetFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A set of three sessions is walked through with a chord held across each change. Their names are words of the demo, so
 * that they are not taken for texts.
 */
class SetJourneyTest extends WindowTest {
    private static final int[] CHORD = {60, 64, 67};

    @TempDir
    private Path folder;

    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private void keep(String name, int transpose) throws Exception {
        Session session = ZoneEdits.changeZone(
                LamplightersRound.session().withName(name), "celesta", zone -> zone.withTranspose(transpose));
        Files.write(folder.resolve(name + ".json"), SessionContent.json(session, LamplightersRound.performance()));
    }

    private Path set() throws Exception {
        keep("celesta", 0);
        keep("marimba", 12);
        keep("harp", 0);
        SessionSet set = SessionSet.empty("Kalimba")
                .with(new SessionSet.Entry("celesta.json"))
                .with(new SessionSet.Entry("marimba.json")
                        .withNotes("Lamps lit")
                        .withTempo(72.5))
                .with(new SessionSet.Entry("harp.json"));
        Path file = folder.resolve("evening" + SetFile.ENDING);
        SetFile.write(set, file);
        return file;
    }

    private StandIn larkspur() {
        return desk().standIns().standIn("stand-in:larkspur").orElseThrow();
    }

    private int sounds() {
        return workbench.studio().soundingCount();
    }

    private void press(String id) {
        until(() -> lookup(id).tryQuery().isPresent() && !lookup(id).query().isDisabled());
        onFx(() -> lookup(id).queryAs(ButtonBase.class).fire());
    }

    @Test
    void aChordIsHeldAcrossEachChange() throws Exception {
        Path file = set();
        onFx(() -> window.drop(List.of(file)));
        press("#set-go-0");
        until(() -> desk().session().name().equals("celesta"));
        for (int key : CHORD) {
            larkspur().press(0, key, 90);
        }
        until(() -> sounds() >= CHORD.length);
        int held = sounds();
        press("#set-next");
        until(() -> desk().session().name().equals("marimba"));
        assertThat(sounds()).as("rings on").isEqualTo(held);
        assertThat(text("#set-notes")).isEqualTo("Lamps lit");
        assertThat(desk().session().tempo().tempos().get(0).bpm()).isEqualTo(72.5);
        // What was held in the one before ends when it is let go; what is pressed now plays as this one says.
        larkspur().release(0, CHORD[0]);
        until(() -> sounds() < held);
        larkspur().press(0, CHORD[0], 90);
        until(() -> sounds() == held);
        push(KeyCode.CONTROL, KeyCode.PAGE_DOWN);
        until(() -> desk().session().name().equals("harp"));
        assertThat(sounds()).as("rings on").isEqualTo(held);
        for (int key : CHORD) {
            larkspur().release(0, key);
        }
        until(() -> sounds() == 0);
        assertThat(text("#set-place")).isEqualTo("3 of 3");
        assertThat(desk().document().isChanged()).isFalse();
    }

    @Test
    void aPedalGoesOnOnceEachTimeItIsPressed() throws Exception {
        Path file = set();
        onFx(() -> window.drop(List.of(file)));
        press("#set-go-0");
        until(() -> desk().session().name().equals("celesta"));
        press("#set-learn-next");
        larkspur().play(ShortMessage.controller(0, 82, 127));
        until(() -> SetFile.read(file).next() != null);
        assertThat(SetFile.read(file).next()).isEqualTo(82);
        assertThat(desk().session().name()).as("to be learned is not to go on").isEqualTo("celesta");
        larkspur().play(ShortMessage.controller(0, 82, 0));
        larkspur().play(ShortMessage.controller(0, 82, 127));
        larkspur().play(ShortMessage.controller(0, 82, 126));
        until(() -> desk().session().name().equals("marimba"));
        larkspur().play(ShortMessage.controller(0, 82, 0));
        larkspur().play(ShortMessage.controller(0, 82, 100));
        until(() -> desk().session().name().equals("harp"));
    }

    @Test
    void allSheetsAreOneDocument() throws Exception {
        Path file = set();
        onFx(() -> window.drop(List.of(file)));
        press("#set-export");
        Path pdf = folder.resolve("evening.pdf");
        until(() -> desk().ask().isAsking() && lookup("#ask-field").tryQuery().isPresent());
        onFx(() -> {
            TextField field = lookup("#ask-field").queryAs(TextField.class);
            field.setText(pdf.toString());
            field.getOnAction().handle(null);
        });
        until(() -> Files.exists(pdf));
        try (Pages pages = new Pages(Files.readAllBytes(pdf))) {
            // Five pages each; longer texts need more.
            assertThat(pages.count()).isGreaterThanOrEqualTo(15);
        }
    }
}
