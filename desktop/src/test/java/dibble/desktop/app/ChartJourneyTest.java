package dibble.desktop.app;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.checks.Finding;
import dibble.demo.LamplightersRound;
import dibble.edits.ZoneEdits;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import dibble.presentation.Navigator;
import dibble.routing.ControlMap;
import dibble.routing.Zone;
import dibble.routing.ZoneTarget;
import dibble.session.Session;
import dibble.standins.Fault;
import dibble.standins.StandIn;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;

/** Channels, controls, scenes, the monitor, why? and checks, as hands use them on the demo. */
class ChartJourneyTest extends WindowTest {
    @Override
    Session session() {
        return LamplightersRound.session();
    }

    private Point2D dot(String row, boolean right) {
        Node node = lookup(row).query();
        Bounds bounds = node.localToScreen(node.getBoundsInLocal());
        return new Point2D(right ? bounds.getMaxX() : bounds.getMinX(), bounds.getCenterY());
    }

    private void fire(String button) {
        until(() -> lookup(button).tryQuery().filter(Node::isVisible).isPresent());
        interact(() -> lookup(button).queryAs(ButtonBase.class).fire());
    }

    private StandIn standIn(String name) {
        return desk().standIns().standIn("stand-in:" + name).orElseThrow();
    }

    private void press(String source, int key) {
        onFx(() -> desk().press(desk().session().source(source).orElseThrow(), key, 70));
        until(() -> desk().live().isDown(source, key));
    }

    private void letGo(String source, int key) {
        onFx(() -> desk().release(desk().session().source(source).orElseThrow(), key));
        until(() -> !desk().live().isDown(source, key));
    }

    private List<Zone> playedBy(String source) {
        return desk().routing().zones().stream()
                .filter(zone -> zone.source().equals(source))
                .toList();
    }

    @Test
    void oneChannelIsLedToTwoPartsByRibbonAndPlaysBoth() {
        push(KeyCode.CONTROL, KeyCode.DIGIT3);
        until(() -> lookup("#arrival-tansy-2").tryQuery().isPresent());
        moveTo(dot("#arrival-tansy-2", true)).press(MouseButton.PRIMARY);
        moveTo(dot("#arrival-tansy-2", true).add(120, 80));
        moveTo(dot("#place-yarrow-harp", false));
        release(MouseButton.PRIMARY);
        until(() -> playedBy("tansy").size() == 2);
        assertThat(playedBy("tansy").get(1).to()).isEqualTo(new ZoneTarget.ToPart(new PartRef("yarrow", "harp")));
        press("tansy", 60);
        until(() -> port.notes().containsAll(List.of("4:72", "3:60")));
        letGo("tansy", 60);
        // It is a zone like any other: Keys shows it, and one step takes it back.
        push(KeyCode.CONTROL, KeyCode.DIGIT2);
        until(() -> lookup("#zone-" + playedBy("tansy").get(1).id()).tryQuery().isPresent());
        interact(() -> desk().document().undo());
        assertThat(playedBy("tansy")).hasSize(1);
    }

    @Test
    void fiveLanesArePlantedToFiveParts() {
        push(KeyCode.CONTROL, KeyCode.DIGIT3);
        fire("#show-teasel");
        fire("#unplug-all");
        until(() -> playedBy("teasel").isEmpty());
        fire("#join-plant-open");
        choose("#join-plant-first", "Marimba");
        until(() -> text("#join-plant-preview").contains("(5 of 5)"));
        fire("#join-plant-do");
        until(() -> playedBy("teasel").size() == 5);
        List<Integer> channels = List.of(2, 5, 6, 9, 13);
        for (int lane = 0; lane < 5; lane++) {
            int channel = channels.get(lane);
            standIn("teasel").play(ShortMessage.noteOn(channel - 1, 60 + lane, 80));
        }
        // Marimba 4, hammer dulcimer 5, glass bowls 6, hand drums 10, then reed organ 1 of the other port.
        until(() -> port.notes().containsAll(List.of("4:60", "5:61", "6:62", "10:63", "1:64")));
        for (int lane = 0; lane < 5; lane++) {
            standIn("teasel").play(ShortMessage.noteOff(channels.get(lane) - 1, 60 + lane, 64));
        }
    }

    @Test
    void aFadeOfTwoSoundsIsMadeInOneActionAndFollowsTheSlider() {
        push(KeyCode.CONTROL, KeyCode.DIGIT4);
        fire("#add-fade");
        choose("#fade-from", "Sorrel / Marimba");
        choose("#fade-to", "Yarrow / Harp");
        // The control is named by moving it.
        standIn("tansy").play(ShortMessage.controller(1, 22, 0));
        until(() -> lookup("#make-number").queryAs(TextField.class).getText().equals("22"));
        int before = desk().session().allControls().size();
        fire("#make-control-do");
        until(() -> desk().session().allControls().size() == before + 1);
        ControlMap fade = desk().session().allControls().stream()
                .filter(map -> map.when().number() == 22)
                .findFirst()
                .orElseThrow();
        assertThat(fade.source()).isEqualTo("tansy");
        port.messages.clear();
        standIn("tansy").play(ShortMessage.controller(1, 22, 127));
        until(() -> port.messages.contains(ShortMessage.controller(3, 11, 0))
                && port.messages.contains(ShortMessage.controller(2, 11, 127)));
        until(() -> lookup("#control-" + fade.id()).lookup(".label").queryAllAs(Label.class).stream()
                .anyMatch(label -> plain(label.getText()).equals("now 127")));
        interact(() -> desk().document().undo());
        // Both sounds are whole again.
        until(() -> port.messages.contains(ShortMessage.controller(3, 11, 127)));
    }

    @Test
    void aSceneChangesWithAHeldChordAndPedalAndNothingHangs() {
        push(KeyCode.CONTROL, KeyCode.DIGIT7);
        until(() -> lookup("#call-procession").tryQuery().isPresent());
        int[] chord = {70, 73, 77};
        standIn("larkspur").play(ShortMessage.controller(0, 64, 127));
        for (int key : chord) {
            press("larkspur", key);
        }
        until(() -> port.notes().contains("6:77"));
        fire("#call-procession");
        until(() -> desk().performance().activeScene().equals("procession"));
        // What is held stays where it is.
        assertThat(port.messages)
                .noneMatch(message -> ShortMessage.endsNote(message) && ShortMessage.channel(message) == 5);
        for (int key : chord) {
            letGo("larkspur", key);
        }
        standIn("larkspur").play(ShortMessage.controller(0, 64, 0));
        until(() -> port.messages.contains(ShortMessage.controller(5, 64, 0)));
        for (int key : chord) {
            assertThat(port.messages).contains(ShortMessage.noteOff(5, key, 64));
        }
        until(() -> workbench.studio().soundingCount() == 0);
        // A scene shown large says what comes next.
        push(KeyCode.CONTROL, KeyCode.L);
        until(() -> text("#large-now").equals("Procession"));
        assertThat(text("#large-next")).isEqualTo("Snow");
        fire("#large-following");
        until(() -> text("#large-now").equals("Snow"));
    }

    @Test
    void scenesAreAddedDuplicatedOrderedRenamedAndCompared() {
        push(KeyCode.CONTROL, KeyCode.DIGIT7);
        until(() -> lookup("#scene-duplicate").tryQuery().isPresent());
        fire("#scene-duplicate");
        until(() -> desk().session().scenes().size() == 5);
        assertThat(desk().session().scenes().get(1).name()).isEqualTo("Dusk 2");
        assertThat(desk().session().scenes().get(1).program()).isEqualTo(4);
        interact(() -> {
            TextField name = lookup("#scene-name").query();
            name.setText("Last light");
            name.fireEvent(new javafx.event.ActionEvent());
        });
        until(() -> desk().session().scenes().get(1).name().equals("Last light"));
        choose("#scene-other", "Dusk");
        until(() -> lookup("#scene-differences").lookup(".label").queryAllAs(Label.class).stream()
                .anyMatch(label -> plain(label.getText()).startsWith("None")));
        choose("#scene-other", "Lamps lit");
        until(() -> lookup("#scene-differences").lookup(".label").queryAllAs(Label.class).stream()
                .anyMatch(label -> plain(label.getText()).equals("Tansy 32 → Kalimba")));
        fire("#scene-down");
        until(() -> desk().session().scenes().get(2).name().equals("Last light"));
        fire("#scene-delete");
        until(() -> desk().session().scenes().size() == 4);
    }

    @Test
    void aDoubledKeyIsFoundByACheckAndMendedByIt() {
        until(() -> text("#checks-count-button").equals("No warnings"));
        interact(() -> desk().document()
                .edit(
                        "a leftover",
                        session -> ZoneEdits.addZone(
                                session,
                                Zone.of("leftover", "", "tansy", new Range(70, 84), new PartRef("sorrel", "marimba")),
                                null)));
        until(() -> text("#checks-count-button").equals("1 warning"));
        fire("#checks-count-button");
        until(() -> text("#finding-0").contains("both play"));
        Finding found = desk().findings().now().get(0);
        assertThat(found.code()).isEqualTo("doubled");
        fire("#mend-0");
        until(() -> text("#checks-count-button").equals("No warnings"));
        assertThat(desk().session().zone("leftover").orElseThrow().enabled()).isFalse();
        interact(() -> desk().document().undo());
        // The other answer: it is meant so.
        until(() -> desk().findings().count() == 1);
        fire("#intended-0");
        until(() -> desk().findings().count() == 0);
        assertThat(desk().session().settled()).hasSize(1);
        until(() -> lookup("#again-0").tryQuery().isPresent());
    }

    @Test
    void whyAnswersForASilentKeyAndLeadsToWhatSilencesIt() {
        interact(() -> desk().document()
                .edit(
                        "marimba off",
                        session -> ZoneEdits.changeZone(session, "marimba", zone -> zone.withEnabled(false))));
        press("tansy", 60);
        letGo("tansy", 60);
        push(KeyCode.W);
        until(() -> text("#why-sentence").endsWith("nothing comes of it."));
        assertThat(text("#why-sentence")).startsWith("Tansy 32, channel 2, C4 60");
        fire("#why-marimba");
        until(() -> "marimba".equals(desk().selection().zone().get()));
        interact(() -> desk().document().undo());
        until(() -> text("#why-sentence").endsWith("plays Marimba."));
        // A message that nobody has played.
        choose("#why-source", "Larkspur 73");
        interact(() -> {
            TextField typed = lookup("#why-typed").query();
            typed.setText("E2 60");
            typed.fireEvent(new javafx.event.ActionEvent());
        });
        until(() -> text("#why-sentence").equals("Larkspur 73, channel 1, E2 40 · velocity 60 plays Upright bass."));
        interact(() -> {
            TextField typed = lookup("#why-typed").query();
            typed.setText("H2");
            typed.fireEvent(new javafx.event.ActionEvent());
        });
        until(() -> text("#why-sentence").contains("expected"));
    }

    @Test
    void whatPassedIsAskedAboutAndCopied() {
        fire("#show-passed");
        press("sedge", 53);
        letGo("sedge", 53);
        interact(() -> lookup("#passed-rows").query().requestFocus());
        // The newest row is its off, the one above it the key itself.
        type(KeyCode.UP, KeyCode.UP, KeyCode.ENTER);
        until(() -> text("#why-sentence").startsWith("Sedge pads, channel 10, F3 53"));
        fire("#passed-copy");
        String copied = plain(copied().orElse(""));
        assertThat(copied).contains("Sedge pads\t10\tF3 53 · velocity 70\t99 35 46\tHand drums 10:");
        fire("#fold-live");
        until(() -> !lookup("#live-keyboard").query().isVisible()
                || !lookup("#live-keyboard").query().getParent().isVisible());
    }

    private Optional<String> copied() {
        List<String> texts = new ArrayList<>();
        interact(() -> Optional.ofNullable(
                        javafx.scene.input.Clipboard.getSystemClipboard().getString())
                .ifPresent(texts::add));
        return texts.stream().findFirst();
    }

    @Test
    void aLoopersEchoIsCutAndReportedByAChangingCheck() {
        interact(() -> desk().document().edit("a looper", session -> {
            List<Source> sources = new ArrayList<>(session.sources());
            sources.add(Source.keyboard("clover", "Clover", "stand-in:sorrel", Range.ALL));
            return ZoneEdits.addZone(
                    session.withSources(sources),
                    Zone.of("back", "Back", "clover", Range.ALL, new PartRef("sorrel", "celesta")),
                    null);
        }));
        StandIn clover = standIn("sorrel");
        interact(() -> clover.misbehave(Fault.ECHOES, true));
        standIn("larkspur").press(0, 60, 80);
        until(() -> desk().findings().now().stream()
                .anyMatch(finding -> finding.code().equals("loop")));
        standIn("larkspur").release(0, 60);
        push(KeyCode.CONTROL, KeyCode.DIGIT8);
        until(() -> text("#finding-0").contains("comes back from Clover"));
        interact(() -> clover.misbehave(Fault.ECHOES, false));
        fire("#loop-0");
        until(() -> workbench.studio().loops().isEmpty());
        until(() -> desk().findings().now().stream()
                .noneMatch(finding -> finding.code().equals("loop")));
        Optional<Navigator.Thing> place = Navigator.find(desk().session(), "back");
        assertThat(place).contains(new Navigator.Thing(Navigator.Kind.ZONE, "back"));
        assertThat(lookup("#silence").queryAs(Button.class).isVisible()).isTrue();
    }
}
