package dibble.edits;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.demo.LamplightersRound;
import dibble.gear.PartRef;
import dibble.gear.Sound;
import dibble.midi.Range;
import dibble.routing.ControlKind;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SendTarget;
import dibble.routing.Zone;
import dibble.session.SceneDifference;
import dibble.session.Session;
import java.util.List;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** Scenes made, ordered, compared; control maps moved between them. */
class SceneEditsTest {
    private static final PartRef CELESTA = new PartRef("sorrel", "celesta");
    private final Session demo = LamplightersRound.session();

    private static List<String> names(Session session) {
        return session.scenes().stream().map(Scene::name).toList();
    }

    private Scene scene(String id) {
        return demo.scene(id).orElseThrow();
    }

    @Test
    void aNewSceneStandsBehindAnotherAndTakesTheFirstFreeProgram() {
        Session added = SceneEdits.add(demo, "wind", "Wind", "lamps");
        assertThat(names(added)).containsExactly("Dusk", "Lamps lit", "Wind", "Procession", "Snow");
        assertThat(added.scene("wind").orElseThrow().program()).isEqualTo(4);
        assertThat(SceneEdits.neighbour(added, "lamps", 1).id()).isEqualTo("wind");
        assertThat(SceneEdits.neighbour(added, "snow", 1)).isNull();
        assertThat(SceneEdits.move(added, "wind", -1).scenes().get(1).id()).isEqualTo("wind");
        assertThat(SceneEdits.delete(added, "wind")).isEqualTo(demo);
    }

    @Test
    void aDuplicateDoesTheSameUnderIdsOfItsOwn() {
        Session twice = SceneEdits.duplicate(demo, "dusk", "dusk-2", "Dusk 2");
        Scene copy = twice.scene("dusk-2").orElseThrow();
        assertThat(twice.allZones()).extracting(Zone::id).doesNotHaveDuplicates();
        assertThat(twice.allControls()).extracting(ControlMap::id).doesNotHaveDuplicates();
        assertThat(SceneDifference.zones(scene("dusk"), copy)).isEmpty();
        assertThat(SceneDifference.controls(scene("dusk"), copy)).isEmpty();
        assertThat(SceneDifference.sounds(scene("dusk"), copy)).isEmpty();
    }

    @Test
    void withASceneGoTheSendsThatCallIt() {
        ControlMap.Send call = ControlMap.Send.whole(ControlKind.SCENE, 0, new SendTarget.ToScene("snow"));
        ControlMap only = ControlMap.of("only", "fern", ControlMap.Trigger.controller(81), call);
        ControlMap also = demo.controls().get(0).withId("also");
        also = also.withSends(List.of(also.sends().get(0), call));
        Session calling = ControlEdits.add(ControlEdits.add(demo, only, "dusk"), also, null);
        Session without = SceneEdits.delete(calling, "snow");
        assertThat(ControlEdits.find(without, "only")).isEmpty();
        assertThat(ControlEdits.find(without, "also").orElseThrow().sends()).hasSize(1);
    }

    @Test
    void aSoundIsSetChangedAndLeftAlone() {
        PartRef harp = new PartRef("yarrow", "harp");
        Session set = SceneEdits.changeSound(demo, "dusk", harp, sound -> new Sound(null, 5, null, null));
        assertThat(set.scene("dusk").orElseThrow().sounds()).hasSize(2);
        Session changed = SceneEdits.changeSound(
                set, "dusk", CELESTA, sound -> new Sound(null, sound.program(), 10, sound.pan()));
        assertThat(changed.scene("dusk").orElseThrow().sounds().get(0).sound().volume())
                .isEqualTo(10);
        assertThat(changed.scene("dusk").orElseThrow().sounds().get(0).part()).isEqualTo(CELESTA);
        assertThat(SceneEdits.changeSound(set, "dusk", harp, sound -> new Sound(null, null, null, null)))
                .isEqualTo(demo);
    }

    @Nested
    class Differences {
        @Test
        void whatOnlyOneHasStandsAlone() {
            List<SceneDifference<Zone>> differences = SceneDifference.zones(scene("dusk"), scene("lamps"));
            assertThat(differences).hasSize(2);
            assertThat(differences.get(0).first().id()).isEqualTo("bowls-soft");
            assertThat(differences.get(0).second()).isNull();
            assertThat(differences.get(1).first()).isNull();
            assertThat(differences.get(1).second().id()).isEqualTo("kalimba");
        }

        @Test
        void whatBothHaveOtherwiseStandsSideBySide() {
            Session twice = SceneEdits.duplicate(demo, "dusk", "dusk-2", "Dusk 2");
            Scene copy = twice.scene("dusk-2").orElseThrow();
            Scene changed = copy.withZones(
                    List.of(copy.zones().get(0).withKeys(new Range(70, 96)).withName("Other name")));
            List<SceneDifference<Zone>> differences = SceneDifference.zones(scene("dusk"), changed);
            assertThat(differences).hasSize(1);
            assertThat(differences.get(0).first().keys()).isEqualTo(new Range(66, 96));
            assertThat(differences.get(0).second().keys()).isEqualTo(new Range(70, 96));
            // A name makes no difference to playing.
            Scene renamed = copy.withZones(List.of(copy.zones().get(0).withName("Other name")));
            assertThat(SceneDifference.zones(scene("dusk"), renamed)).isEmpty();
        }
    }

    @Nested
    class Controls {
        @Test
        void aControlMapHoldsInOneSceneOrAlways() {
            Session held = ControlEdits.holdIn(demo, "breath", "snow");
            assertThat(ControlEdits.sceneOf(held, "breath").orElseThrow().id()).isEqualTo("snow");
            assertThat(held.controls()).hasSize(demo.controls().size() - 1);
            assertThat(ControlEdits.holdIn(held, "breath", "snow")).isSameAs(held);
            assertThat(ControlEdits.sceneOf(ControlEdits.holdIn(held, "breath", null), "breath"))
                    .isEmpty();
        }

        @Test
        void aFadeIsWholeAtBothEndsAndLeavesBothSoundsWhole() {
            PartRef harp = new PartRef("yarrow", "harp");
            ControlMap fade = ControlEdits.fade("f", "F", "tansy", ControlMap.Trigger.controller(22), CELESTA, harp);
            assertThat(fade.sends()).extracting(ControlMap.Send::first).containsExactly(127, 0);
            assertThat(fade.sends()).extracting(ControlMap.Send::last).containsExactly(0, 127);
            assertThat(fade.sends()).extracting(ControlMap.Send::rest).containsOnly(127);
        }

        @Test
        void manyWithoutPartsIsAllThereAre() {
            ControlMap all = ControlEdits.many(
                    "a", "", "tansy", ControlMap.Trigger.controller(7), ControlKind.CONTROLLER, 7, List.of());
            assertThat(all.sends()).extracting(send -> send.to()).containsExactly(new SendTarget.AllParts());
        }
    }
}
