package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.desktop.ui.KeyboardPane;
import dibble.gear.PartRef;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.recording.Track;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;

/** Zones as hands make them: split, layered, mapped note by note, with keyswitches, while notes sound. */
class ZonesJourneyTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private Zone zone(String id) {
        return desk().session().zone(id).orElseThrow();
    }

    private void press(String source, int key) {
        onFx(() -> desk().press(desk().session().source(source).orElseThrow(), key, 90));
        until(() -> desk().live().isDown(source, key));
    }

    private void letGo(String source, int key) {
        onFx(() -> desk().release(desk().session().source(source).orElseThrow(), key));
        until(() -> !desk().live().isDown(source, key));
    }

    private void type(String field, String text) {
        interact(() -> {
            TextField there = lookup(field).query();
            there.setText(text);
            there.fireEvent(new javafx.event.ActionEvent());
        });
    }

    private void fire(String button) {
        until(() -> lookup(button).tryQuery().filter(Node::isVisible).isPresent());
        interact(() -> {
            Node node = lookup(button).query();
            if (node instanceof ToggleButton toggle) {
                toggle.fire();
            } else {
                ((Button) node).fire();
            }
        });
    }

    @Test
    void aKeyboardIsSplitByPressingAKeyAndTheUpperHalfGetsAnotherSound() {
        clickOn("#zone-marimba");
        type(KeyCode.S);
        until(() -> lookup("#waiting").query().isVisible());
        playKey("tansy", 70);
        until(() -> desk().session().zone("marimba-2").isPresent());
        assertThat(zone("marimba").keys()).isEqualTo(new Range(53, 69));
        assertThat(zone("marimba-2").keys()).isEqualTo(new Range(70, 84));
        until(() -> "marimba-2".equals(desk().selection().zone().get()));
        choose("#zone-sound", "Yarrow / Harp");
        until(() -> zone("marimba-2").to().equals(new ZoneTarget.ToPart(new PartRef("yarrow", "harp"))));
        interact(() -> {
            desk().document().undo();
            desk().document().undo();
        });
        assertThat(desk().session()).isEqualTo(session());
        assertThat(lookup("#waiting").query().isVisible()).isFalse();
    }

    @Test
    void aLayerSoundsAboveAVelocityOnly() {
        clickOn("#zone-marimba");
        type(KeyCode.L);
        until(() -> desk().session().zone("marimba-2").isPresent());
        until(() -> "marimba-2".equals(desk().selection().zone().get()));
        until(() -> lookup("#velocity-low").queryAs(TextField.class).getText().equals("1"));
        choose("#zone-sound", "Sorrel / Kalimba");
        type("#velocity-low", "80");
        until(() -> zone("marimba-2").velocity().equals(new Range(80, 127)));
        type("#velocity-out-low", "20");
        until(() -> zone("marimba-2").velocityTo() != null);
        assertThat(zone("marimba-2").velocityTo()).isEqualTo(new Zone.VelocityMap(20, 127));
        port.messages.clear();
        onFx(() -> desk().press(desk().session().source("tansy").orElseThrow(), 60, 50));
        until(() -> port.messages.contains(ShortMessage.noteOn(3, 72, 50)));
        onFx(() -> desk().press(desk().session().source("tansy").orElseThrow(), 62, 80));
        until(() -> port.messages.contains(ShortMessage.noteOn(3, 74, 80)));
        assertThat(port.messages)
                .contains(ShortMessage.noteOn(2, 74, 20))
                .doesNotContain(ShortMessage.noteOn(2, 72, 50));
        letGo("tansy", 60);
        letGo("tansy", 62);
        fire("#zone-alone");
        port.messages.clear();
        onFx(() -> desk().press(desk().session().source("tansy").orElseThrow(), 62, 80));
        until(() -> port.messages.contains(ShortMessage.noteOn(2, 74, 20)));
        assertThat(port.messages).doesNotContain(ShortMessage.noteOn(3, 74, 80));
        letGo("tansy", 62);
        fire("#zone-alone");
        until(() -> workbench.studio().heardAlone() == null);
    }

    @Test
    void padsArePlantedOnAKitAndEachDrumIsRecordedOnItsOwnTrack() {
        clickOn("#zone-drums");
        fire("#zone-note-map");
        until(() -> lookup("#note-map-notes-53").tryQuery().isPresent());
        type("#note-map-start", "60");
        interact(() -> lookup("#note-map-start").queryAs(TextField.class).setText("60"));
        fire("#note-map-plant");
        until(() -> zone("drums").noteMap().get(53).equals(List.of(60)));
        assertThat(zone("drums").noteMap().get(68)).isEqualTo(List.of(75));
        fire("#note-map-tracks");
        until(() -> desk().session().tracks().stream()
                        .filter(track -> track.input() instanceof Track.OfKey)
                        .count()
                == 16);
        fire("#record");
        until(() -> workbench.studio().recording() != null);
        press("sedge", 54);
        letGo("sedge", 54);
        press("sedge", 55);
        letGo("sedge", 55);
        fire("#play");
        until(() -> !desk().session().takes().isEmpty());
        for (int note : new int[] {61, 62}) {
            Track track = desk().session()
                    .trackOf(new PartRef("sorrel", "hands"), note)
                    .orElseThrow();
            assertThat(track.noteCount()).isEqualTo(1);
        }
        assertThat(desk().session().tracks().stream().mapToInt(Track::noteCount).sum())
                .isEqualTo(2);
    }

    @Test
    void aPadPlaysAChord() {
        clickOn("#zone-drums");
        fire("#zone-note-map");
        press("sedge", 60);
        letGo("sedge", 60);
        until(() -> lookup("#note-map-key-60").queryAs(ToggleButton.class).isSelected());
        type("#note-map-notes-60", "C3 E3 999");
        until(() ->
                lookup("#note-map-notes-60").queryAs(TextField.class).getText().equals("C3"));
        type("#note-map-notes-60", "C3 E3 67");
        until(() -> zone("drums").noteMap().get(60).equals(List.of(48, 52, 67)));
        port.messages.clear();
        press("sedge", 60);
        until(() -> Stream.of(48, 52, 67).allMatch(note -> port.messages.contains(ShortMessage.noteOn(9, note, 90))));
        letGo("sedge", 60);
        until(() -> workbench.studio().soundingCount() == 0);
    }

    @Test
    void keyswitchesArePlayedFromASmallKeyboard() {
        interact(() -> desk().selection().zoneAlone("reed-chords"));
        fire("#zone-keyswitches");
        until(() -> lookup("#waiting").query().isVisible());
        press("tansy", 53);
        letGo("tansy", 53);
        until(() -> desk().session().zone("switches").isPresent());
        assertThat(zone("switches").source()).isEqualTo("tansy");
        assertThat(zone("switches").keys()).isEqualTo(new Range(53, 55));
        port.messages.clear();
        press("tansy", 54);
        until(() -> port.messages.contains(ShortMessage.noteOn(0, 25, 90)));
        letGo("tansy", 54);
        until(() -> accessible("#zone-switches").contains("F♯3 ▸Full"));
        assertThat(accessible("#zone-switches")).contains("F3 Soft stops");
    }

    @Test
    void anEdgeMovesByArrowKeysWhileAChordIsHeld() {
        clickOn("#zone-marimba");
        press("tansy", 53);
        press("tansy", 60);
        until(() -> port.messages.contains(ShortMessage.noteOn(3, 72, 90)));
        for (int i = 0; i < 3; i++) {
            press(KeyCode.CONTROL).type(KeyCode.RIGHT).release(KeyCode.CONTROL);
        }
        until(() -> zone("marimba").keys().equals(new Range(56, 84)));
        // What is held stays where it is, also the key that its zone no longer takes; new keys go by the new edge.
        assertThat(workbench.studio().soundingCount()).isEqualTo(2);
        press("tansy", 55);
        assertThat(port.messages).doesNotContain(ShortMessage.noteOn(3, 67, 90));
        letGo("tansy", 55);
        letGo("tansy", 60);
        until(() -> port.messages.contains(ShortMessage.noteOff(3, 72, 64)));
        letGo("tansy", 53);
        until(() -> port.messages.contains(ShortMessage.noteOff(3, 65, 64)));
        until(() -> workbench.studio().soundingCount() == 0);
    }

    @Test
    void zonesAreSelectedTogetherCopiedAndMeet() {
        clickOn("#zone-bass-hand");
        press(KeyCode.CONTROL).clickOn("#zone-celesta", MouseButton.PRIMARY).release(KeyCode.CONTROL);
        until(() -> desk().selection().zones().size() == 2);
        type(KeyCode.RIGHT);
        until(() -> zone("bass-hand").keys().equals(new Range(29, 54)));
        assertThat(zone("celesta").keys()).isEqualTo(new Range(55, 101));
        interact(() -> desk().document().undo());
        assertThat(desk().session()).isEqualTo(session());
        press(KeyCode.CONTROL).type(KeyCode.A).type(KeyCode.ENTER).release(KeyCode.CONTROL);
        until(() -> desk().selection().zones().get().equals(Set.of("bass-hand", "bowls-soft")));
        interact(() -> desk().selection().zoneAlone("celesta"));
        press(KeyCode.CONTROL).type(KeyCode.C).release(KeyCode.CONTROL);
        interact(() -> desk().selection().source().set("fern"));
        press(KeyCode.CONTROL).type(KeyCode.V).release(KeyCode.CONTROL);
        until(() -> desk().session().zone("celesta-2").isPresent());
        assertThat(zone("celesta-2").source()).isEqualTo("fern");
        interact(() -> desk().document()
                .edit(
                        "keys",
                        before -> dibble.edits.ZoneEdits.changeZone(
                                before, "bass-hand", it -> it.withKeys(new Range(28, 40)))));
        fire("#close-gaps-larkspur");
        until(() -> zone("bass-hand").keys().equals(new Range(28, 53)));
    }

    /** What a key changes is drawn in the pulse that reads it: the first after the key. */
    @Test
    void aKeyIsSeenInTheFirstPulseAfterIt() {
        KeyboardPane keyboard = lookup("#keys-tansy").queryAs(KeyboardPane.class);
        int[] pulses = {0};
        int[] seen = {-1};
        interact(() -> {
            desk().pulse().each(() -> {
                pulses[0]++;
                if (seen[0] < 0 && keyboard.isDown(60)) {
                    seen[0] = pulses[0];
                }
            });
            desk().press(desk().session().source("tansy").orElseThrow(), 60, 90);
        });
        until(() -> seen[0] >= 0);
        assertThat(seen[0]).isEqualTo(1);
        letGo("tansy", 60);
    }

    @Test
    void noteFieldTakesTheNextKeyOnlyOnceItWasAskedTo() {
        clickOn("#zone-marimba");
        until(() -> lookup("#inspector-low").tryQuery().isPresent());
        interact(() -> lookup("#inspector-low").query().requestFocus());
        press("tansy", 58);
        letGo("tansy", 58);
        assertThat(zone("marimba").keys().low()).isEqualTo(53);
        push(KeyCode.CONTROL, KeyCode.K);
        press("tansy", 58);
        until(() -> zone("marimba").keys().equals(new Range(58, 84)));
        letGo("tansy", 58);
        press("tansy", 60);
        letGo("tansy", 60);
        assertThat(zone("marimba").keys().low()).as("one key only").isEqualTo(58);
    }

    @Test
    void theRulerShowsFewerNotesAndAllOfThem() {
        double wide = lookup("#zone-marimba").query().getBoundsInParent().getWidth();
        fire("#zoom-in");
        until(() -> lookup("#zone-marimba").query().getBoundsInParent().getWidth() > wide * 1.2);
        fire("#zoom-fit");
        until(() -> Math.abs(lookup("#zone-marimba").query().getBoundsInParent().getWidth() - wide) < 1);
    }
}
