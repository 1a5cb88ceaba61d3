package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.desktop.ui.Palette;
import dibble.edits.GearEdits;
import dibble.edits.StartingPoint;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Receives;
import dibble.gear.SequencerLane;
import dibble.gear.Source;
import dibble.midi.MiddleC;
import dibble.midi.ShortMessage;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Performance;
import dibble.session.Session;
import dibble.standins.StandIn;
import dibble.user.Settings;
import java.util.List;
import java.util.Set;
import javafx.event.ActionEvent;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** From nothing to sources, an instrument and planted channels, as by a hand. */
class GearJourneyTest extends WindowTest {
    @Override
    Session session() {
        return Session.empty("Bare");
    }

    private void addSource(String item) {
        clickOn("#add-source").clickOn(item);
    }

    private void type(String field, String text) {
        TextField there = lookup(field).query();
        clickOn(field);
        interact(there::selectAll);
        write(text).push(KeyCode.ENTER);
    }

    private void addInstrument(String item) {
        clickOn("#add-instrument").clickOn(item);
    }

    private void noteOnFrom(String source, int key, int channel) {
        port.messages.clear();
        playKey(source, key);
        until(() -> port.messages.stream()
                .anyMatch(message -> ShortMessage.startsNote(message) && ShortMessage.channel(message) + 1 == channel));
    }

    /** What a musician does before the first note, by hand, with nothing that blocks. */
    @Test
    void twoKeyboardsPadsAndSixteenPartsFromAnEmptySessionEachHeard() {
        until(() -> lookup("#bare-split").tryQuery().isPresent());
        addSource("#add-full");
        addSource("#add-small");
        addSource("#add-pads");
        until(() -> desk().session().sources().size() == 3);
        assertThat(desk().session().sources()).extracting(Source::id).containsExactly("keyboard", "keyboard-2", "pads");
        addInstrument("#add-module-16");
        until(() -> desk().session().instruments().size() == 1);
        until(() -> lookup("#plant-instrument").tryQuery().isPresent());
        clickOn("#plant-instrument");
        until(() -> lookup("#plant-start").tryQuery().isPresent());
        assertThat(text("#plant-preview")).startsWith("Part 1 1, Part 2 2, ").endsWith("Part 16 16 · 16 of 16");
        clickOn("#plant-do");
        until(() -> desk().session().instrument("module").orElseThrow().parts().stream()
                .allMatch(part -> part.channel() != null));
        clickOn("#view-keys");
        until(() -> lookup("#part-module-part-3").tryQuery().isPresent());
        dragPart("module-part", "keyboard", 60);
        until(() -> desk().session().zones().size() == 1);
        dragPart("module-part-2", "keyboard-2", 60);
        until(() -> desk().session().zones().size() == 2);
        dragPart("module-part-3", "pads", 40);
        until(() -> desk().session().zones().size() == 3);
        noteOnFrom("keyboard", 60, 1);
        noteOnFrom("keyboard-2", 60, 2);
        noteOnFrom("pads", 40, 3);
        clickOn("#view-gear");
        until(() -> lookup((Label label) -> plain(label.getText()).startsWith("last event: channel 1"))
                .tryQuery()
                .isPresent());
        interact(() -> {
            while (desk().document().undoName().isPresent()) {
                desk().document().undo();
            }
        });
        assertThat(desk().session()).isEqualTo(Session.empty("Bare"));
        until(() -> lookup("#bare-split").tryQuery().isPresent());
    }

    @Test
    void partsThatAreSelectedTogetherArePlantedAndNothingElse() {
        addInstrument("#add-module-16");
        until(() -> lookup("#gear-part-module-part-2").tryQuery().isPresent());
        clickOn("#gear-part-module-part-2");
        press(KeyCode.SHIFT).clickOn("#gear-part-module-part-5").release(KeyCode.SHIFT);
        until(() -> desk().selection().parts().size() == 4);
        press(KeyCode.CONTROL).clickOn("#gear-part-module-part-4").release(KeyCode.CONTROL);
        until(() -> lookup(labelled("Part 2, Part 3, Part 5")).tryQuery().isPresent());
        clickOn("#plant-outputs");
        until(() -> lookup("#plant-start").tryQuery().isPresent());
        interact(() -> lookup("#plant-start").queryAs(TextField.class).setText("5"));
        interact(() -> lookup("#plant-step").queryAs(TextField.class).setText("2"));
        assertThat(text("#plant-preview")).isEqualTo("Part 2 5, Part 3 7, Part 5 9 · 3 of 3");
        clickOn("#plant-do");
        until(() -> desk().session().instrument("module").orElseThrow().parts().stream()
                .map(Part::output)
                .toList()
                .subList(0, 6)
                .equals(List.of(1, 5, 7, 1, 9, 1)));
    }

    /** A cable pulled with a chord held: the chord ends, the routing stays, and plugged in again it plays. */
    @Test
    void aPulledCableEndsTheChordAndComesBack() {
        interact(() -> workbench.open(StartingPoint.TWO_KEYBOARDS.session(), Performance.NEW));
        clickOn("#view-gear");
        until(() -> lookup("#plug-stand-in-lower").tryQuery().isPresent());
        StandIn lower = desk().standIns().standIn("stand-in:lower").orElseThrow();
        lower.press(0, 60, 80);
        lower.press(0, 64, 80);
        until(() -> port.messages.contains(ShortMessage.noteOn(0, 64, 80)));
        Session before = desk().session();
        clickOn("#plug-stand-in-lower");
        until(() ->
                port.messages.containsAll(List.of(ShortMessage.noteOff(0, 60, 64), ShortMessage.noteOff(0, 64, 64))));
        until(() -> lookup(labelled("The port of Lower keyboard is missing."))
                .tryQuery()
                .isPresent());
        assertThat(workbench.studio().soundingCount()).isZero();
        assertThat(desk().session()).isEqualTo(before);
        clickOn("#plug-stand-in-lower");
        until(() -> lookup(labelled("The port of Lower keyboard is missing."))
                .tryQuery()
                .isEmpty());
        lower.press(0, 67, 80);
        until(() -> port.messages.contains(ShortMessage.noteOn(0, 67, 80)));
        lower.release(0, 67);
    }

    @Test
    void whichOneIsThisSelectsASourceAndOffersAPortThatHasNone() {
        interact(() -> workbench.open(StartingPoint.TWO_KEYBOARDS.session(), Performance.NEW));
        clickOn("#view-gear");
        clickOn("#which-one");
        desk().standIns().standIn("stand-in:upper").orElseThrow().press(0, 60, 80);
        until(() -> desk().selection().source().get().equals("upper"));
        until(() -> lookup("#source-name").tryQuery().isPresent());
        desk().standIns().standIn("stand-in:upper").orElseThrow().release(0, 60);
        StandIn stranger = desk().standIns().standIn("stand-in:sedge").orElseThrow();
        clickOn("#which-one");
        stranger.press(0, 40, 80);
        until(() -> lookup(labelled("sedge (stand-in) was played, but no source uses it."))
                .tryQuery()
                .isPresent());
        clickOn(labelled("Add source"));
        until(() -> desk().session().source("sedge").isPresent());
        stranger.press(0, 41, 80);
        until(() -> desk().live().isDown("sedge", 41));
        stranger.release(0, 41);
    }

    @Test
    void theSilenceTestAsksAndKeepsWhatItLearns() {
        interact(() -> workbench.open(StartingPoint.TWO_KEYBOARDS.session(), Performance.NEW));
        interact(() -> desk().document()
                .edit(
                        "module",
                        session -> GearEdits.changeInstrument(session, "built-in", it -> it.withBuiltIn(false))));
        clickOn("#view-gear");
        clickOn("#silence-test");
        until(() -> port.messages.contains(ShortMessage.noteOn(15, 60, 90)));
        clickOn("#silence-yes");
        until(() -> port.messages.contains(ShortMessage.noteOff(15, 60, 64)));
        // Now a source is not heard, and is heard again when its question is answered.
        assertThat(desk().performance().unheard()).containsExactly("lower");
        clickOn("#silence-no");
        until(() -> desk().performance().unheard().equals(Set.of("upper")));
        clickOn("#silence-no");
        until(() -> desk().performance().unheard().isEmpty());
        clickOn(labelled("It is in omni mode"));
        until(() -> desk().session().instrument("built-in").orElseThrow().receives() == Receives.ALL);
        clickOn("#silence-done");
        until(() -> !lookup("#silence-test-pane").query().isVisible());
    }

    @Test
    void theGearShelfKeepsZonesForAnotherSession() {
        interact(() -> workbench.open(StartingPoint.SPLIT.session(), Performance.NEW));
        clickOn("#view-gear");
        interact(() -> lookup("#keep-zones").queryAs(Button.class).fire());
        until(() -> lookup(labelled("Zones of One keyboard, split in two"))
                .tryQuery()
                .isPresent());
        interact(() -> workbench.open(StartingPoint.TWO_KEYBOARDS.session(), Performance.NEW));
        // Where the ports take more lines the shelf is below them, out of sight.
        interact(() -> lookup("#shelf-add-0").queryAs(Button.class).fire());
        until(() -> lookup("#place-keyboard").tryQuery().isPresent());
        choose("#place-keyboard", "Upper keyboard");
        choose("#place-built-in-bass", "Built-in sounds / Strings");
        until(() -> text("#shelf-outcome").equals("2 of 2 zones"));
        interact(() -> lookup("#shelf-do").queryAs(Button.class).fire());
        until(() -> desk().session().zones().size() == 4);
        Zone low = desk().session().zone("low").orElseThrow();
        assertThat(low.source()).isEqualTo("upper");
        assertThat(low.to()).isEqualTo(new ZoneTarget.ToPart(new PartRef("built-in", "strings")));
    }

    @Test
    void whatASourceAndAPartAreIsChangedInPlace() {
        interact(() -> workbench.open(StartingPoint.SEQUENCER.session(), Performance.NEW));
        clickOn("#view-gear");
        clickOn("#source-sequencer");
        clickOn("#gear-details");
        until(() -> lookup("#lane-name-2").tryQuery().isPresent());
        type("#lane-channel-2", "12");
        until(() -> lane(1).channel() == 12);
        type("#lane-channel-2", "17");
        until(() -> lookup("#lane-channel-2").queryAs(TextField.class).getText().equals("12"));
        interact(() -> lookup("#plant-lanes").queryAs(Button.class).fire());
        until(() -> lookup("#plant-do").tryQuery().isPresent());
        interact(() -> lookup("#plant-do").queryAs(Button.class).fire());
        until(() -> lane(1).channel() == 2);
        clickOn("#gear-part-built-in-line-1");
        until(() -> lookup("#part-name").tryQuery().isPresent());
        type("#part-name", "A line");
        until(() -> part().name().equals("A line"));
        type("#part-volume", "400");
        type("#part-volume", "77");
        until(() -> part().volume() == 77);
        choose("#part-program", "3 Electric grand piano");
        until(() -> part().program() == 2);
        clickOn("#gear-more");
        until(() -> lookup("#keyswitches-add").tryQuery().isPresent());
        interact(() -> lookup("#keyswitches-add").queryAs(Button.class).fire());
        until(() -> part().keyswitches().containsKey(36));
        interact(() -> lookup("#keyswitches-name-36").queryAs(TextField.class).setText("Muted"));
        interact(() -> lookup("#keyswitches-name-36").queryAs(TextField.class).fireEvent(new ActionEvent()));
        until(() -> part().keyswitches().get(36).equals("Muted"));
        interact(() -> desk().document().undo());
        until(() -> lookup("#keyswitches-name-36")
                .queryAs(TextField.class)
                .getText()
                .contains("Name"));
    }

    private SequencerLane lane(int place) {
        return desk().session().source("sequencer").orElseThrow().lanes().get(place);
    }

    private Part part() {
        return desk().session().part(new PartRef("built-in", "line-1")).orElseThrow();
    }

    @Test
    void theSequencersStandInRunsAndItsFaceFollows() {
        interact(() -> workbench.open(StartingPoint.SEQUENCER.session(), Performance.NEW));
        interact(() -> desk().document()
                .edit(
                        "module",
                        session -> GearEdits.changeInstrument(session, "built-in", it -> it.withBuiltIn(false))));
        clickOn("#view-gear");
        clickOn("#face-of-built-in");
        until(() -> lookup("#face-built-in-1").tryQuery().isPresent());
        clickOn("#run-sequencer");
        until(() -> desk().live().last("sequencer") != null);
        StandIn device = desk().standIns().standIn("stand-in:built-in").orElseThrow();
        until(() -> device.face().channel(3).note() >= 0);
        clickOn("#run-sequencer");
        until(() -> workbench.studio().soundingCount() == 0);
        until(() -> device.face().channel(3).held() == 0);
    }

    @Test
    void settingsHoldAtOnceAndAreKept() {
        clickOn("#menu-edit").clickOn("#menu-settings");
        until(() -> lookup("#theme-night").tryQuery().isPresent());
        clickOn("#theme-night");
        until(() -> desk().theme().palette() == Palette.NIGHT);
        clickOn("#middle-c-c3");
        until(() -> desk().session().middleC() == MiddleC.C3);
        double plain = lookup("#silence").query().localToScene(0, 0).getY();
        clickOn("#size-large");
        until(() -> lookup("#silence").query().localToScene(0, 0).getY() > plain);
        until(() -> Settings.read(userFolder).theme() == Settings.Theme.NIGHT
                && Settings.read(userFolder).large());
        clickOn("#size-plain");
        until(() -> !Settings.read(userFolder).large());
        clickOn("#theme-day");
        until(() -> desk().theme().palette() == Palette.DAY);
        clickOn("#view-gear");
        until(() -> lookup("#gear").tryQuery().isPresent());
    }

    @Test
    void aChannelClashIsSaidWithBothNamesAndMendedInPlace() {
        clickOn("#view-gear");
        addInstrument("#add-module");
        until(() -> lookup("#add-part-module").tryQuery().isPresent());
        clickOn("#add-part-module");
        until(() -> lookup("#gear-part-module-part-2").tryQuery().isPresent());
        for (String part : new String[] {"part", "part-2"}) {
            clickOn("#gear-part-module-" + part);
            until(() -> desk().selection().part().get().equals("module/" + part));
            until(() -> lookup("#part-channel").tryQuery().isPresent());
            choose("#part-channel", "3");
            until(() -> Integer.valueOf(3)
                    .equals(desk().session()
                            .part(new PartRef("module", part))
                            .orElseThrow()
                            .channel()));
        }
        until(() -> lookup("#mend-channel-clash").tryQuery().isPresent());
        clickOn("#mend-channel-clash");
        until(() -> desk().session()
                        .part(new PartRef("module", "part-2"))
                        .orElseThrow()
                        .channel()
                == 1);
        until(() -> lookup("#mend-channel-clash").tryQuery().isEmpty());
        assertThat(port.messages).contains(ShortMessage.programChange(0, 0), ShortMessage.programChange(2, 0));
    }
}
