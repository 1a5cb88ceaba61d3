package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.presentation.Choice;
import dibble.routing.SceneSwitch;
import dibble.routing.Zone;
import dibble.session.Session;
import dibble.standins.StandIn;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** What playing does to the window: a scene that is called, and a loop that is cut off. */
class ScenesAndLoopsTest extends WindowTest {
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");

    @Override
    Session session() {
        Session demo = LamplightersRound.session().withSceneSwitch(new SceneSwitch("larkspur", 1));
        List<Source> sources = new ArrayList<>(demo.sources());
        sources.add(Source.keyboard("clover", "Clover", "stand-in:sorrel", Range.ALL));
        return ZoneEdits.addZone(
                demo.withSources(sources), Zone.of("back", "Back", "clover", Range.ALL, CELESTA), null);
    }

    private StandIn larkspur() {
        return desk().standIns().standIn("stand-in:larkspur").orElseThrow();
    }

    @Test
    void aProgramChangeOfTheKeyboardThatMayCallsTheScene() {
        ComboBox<Choice<String>> scenes = lookup("#scene").query();
        larkspur().play(ShortMessage.programChange(0, 2));
        until(() -> scenes.getValue().value().equals("procession"));
        assertThat(desk().document().isChanged()).isFalse();
        push(KeyCode.F1);
        until(() -> desk().performance().activeScene().equals("dusk"));
        larkspur().press(0, 60, 80);
        until(() -> port.messages.contains(ShortMessage.noteOn(0, 60, 80)));
        assertThat(port.messages)
                .noneMatch(message -> ShortMessage.isNote(message) && ShortMessage.channel(message) == 4);
        larkspur().release(0, 60);
    }

    @Test
    void aLoopIsToldAndCanBeAllowedAgain() {
        StandIn clover = desk().standIns().standIn("stand-in:sorrel").orElseThrow();
        port.echo = clover::play;
        larkspur().press(0, 60, 80);
        until(() -> desk().ask().isAsking());
        larkspur().release(0, 60);
        assertThat(text("#ask-told"))
                .isEqualTo("Loop: what is sent to Clover comes back from Clover." + " Nothing more is sent there.");
        port.echo = message -> {};
        clickOn(labelled("Send there again"));
        until(() -> workbench.studio().loops().isEmpty());
        larkspur().press(0, 62, 80);
        until(() -> port.messages.contains(ShortMessage.noteOn(0, 62, 80)));
        larkspur().release(0, 62);
    }
}
