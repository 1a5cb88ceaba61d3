package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.GearEdits;
import dibble.edits.TrackEdits;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.MiddleC;
import dibble.midi.Range;
import dibble.recording.Track;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import dibble.studio.Transport;
import dibble.user.Settings;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Keys go to what has the focus first, and what is held with them counts. */
class WindowKeysTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private String scene() {
        return desk().session().activeScene(desk().performance());
    }

    @Test
    void functionKeysCallScenesWhereNothingElseWantsThem() {
        String first = scene();
        clickOn("#zone-celesta");
        type(KeyCode.F2);
        until(() -> lookup("#zone-name").tryQuery().isPresent());
        assertThat(scene()).isEqualTo(first);
        type(KeyCode.ESCAPE);
        until(() -> lookup("#zone-name").tryQuery().isEmpty());

        for (KeyCode held : new KeyCode[] {KeyCode.ALT, KeyCode.CONTROL, KeyCode.SHIFT}) {
            press(held).type(KeyCode.F3).release(held);
            assertThat(scene()).as(held.getName()).isEqualTo(first);
        }
        type(KeyCode.F3);
        until(() -> scene().equals(desk().session().scenes().get(2).id()));
    }

    @Test
    void spaceSelectsTheCardThatHasTheFocusAndPlaysNothing() {
        clickOn("#view-gear");
        until(() -> lookup("#source-tansy").tryQuery().isPresent());
        onFx(() -> lookup("#source-tansy").query().requestFocus());
        type(KeyCode.SPACE);
        until(() -> "tansy".equals(desk().selection().source().get()));
        assertThat(workbench.studio().transport()).isEqualTo(Transport.STOPPED);
    }

    @Test
    void recordPressedAgainEndsTheRecording() {
        clickOn("#view-takes");
        press(KeyCode.CONTROL).type(KeyCode.R).release(KeyCode.CONTROL);
        until(() -> workbench.studio().transport() == Transport.RECORDING);
        press(KeyCode.CONTROL).type(KeyCode.R).release(KeyCode.CONTROL);
        until(() -> workbench.studio().transport() == Transport.STOPPED);
        clickOn("#record");
        until(() -> workbench.studio().transport() == Transport.RECORDING);
        clickOn("#record");
        until(() -> workbench.studio().transport() == Transport.STOPPED);
    }

    @Test
    void aMistakeOfDibblesOwnIsSaidWithItsLog() {
        AtomicBoolean shown = new AtomicBoolean();
        window.noteMistake(Path.of("/logs/errors.log"), () -> shown.set(true));
        window.noteMistake(Path.of("/logs/errors.log"), () -> {});
        until(() -> lookup("#ask-told").tryQuery().isPresent());
        assertThat(text("#ask-told")).contains("/logs/errors.log", "save it");
        clickOn(labelled("Show it"));
        until(shown::get);
    }

    @Test
    void whatIsRebuiltKeepsTheFocus() {
        press(KeyCode.CONTROL).type(KeyCode.COMMA).release(KeyCode.CONTROL);
        until(() -> lookup("#theme-night").tryQuery().isPresent());
        onFx(() -> lookup("#theme-night").query().requestFocus());
        type(KeyCode.SPACE);
        until(() -> desk().preferences().get().theme() == Settings.Theme.NIGHT);
        assertThat(window.getScene().getFocusOwner().getId()).isEqualTo("theme-night");
        onFx(() -> lookup("#theme-day").query().requestFocus());
        type(KeyCode.SPACE);
        until(() -> desk().preferences().get().theme() == Settings.Theme.DAY);
        assertThat(window.getScene().getFocusOwner().getId()).isEqualTo("theme-day");

        clickOn("#view-gear");
        until(() -> lookup("#source-tansy").tryQuery().isPresent());
        onFx(() -> lookup("#source-tansy").query().requestFocus());
        onFx(() -> desk().document()
                .edit(
                        "name",
                        session -> GearEdits.changeSource(
                                session,
                                "tansy",
                                source -> source.with().name("Tansy, upper").build())));
        until(() -> "source-tansy".equals(window.getScene().getFocusOwner().getId()));
    }

    /** A drum is told by its name, of the part's own or of the standard's. */
    @Test
    void drumsAreToldByTheirNames() {
        Part hands = desk().session().part(new PartRef("sorrel", "hands")).orElseThrow();
        assertThat(SessionFormatter.note(41, hands, MiddleC.C4)).isEqualTo("F2 41 Frame drum, low");
        Part kit = Part.of("kit", "Kit", 10, 0, Range.ALL, 1).asDrums();
        assertThat(plain(SessionFormatter.note(38, kit, MiddleC.C4))).isEqualTo("D2 38 Acoustic snare");
        assertThat(SessionFormatter.note(38, Part.of("p", "P", 1, 0, Range.ALL, 1), MiddleC.C4))
                .isEqualTo("D2 38");
    }

    @Test
    void aTrackSaysTheChannelWhereOnePartsItsPlayers() {
        Session session = desk().session();
        Track kalimba = TrackEdits.readyToRecord(session)
                .trackOf(new PartRef("sorrel", "kalimba"))
                .orElseThrow();
        assertThat(plain(SessionFormatter.playedBy(
                        kalimba, session, session.routing(desk().performance()).zones())))
                .isEqualTo("Teasel, channel 2");
    }
}
