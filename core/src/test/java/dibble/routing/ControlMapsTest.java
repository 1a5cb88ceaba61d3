package dibble.routing;

import static dibble.midi.ShortMessage.controller;
import static dibble.midi.ShortMessage.noteOff;
import static dibble.midi.ShortMessage.noteOn;
import static dibble.midi.ShortMessage.programChange;
import static org.assertj.core.api.Assertions.assertThat;

import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.Range;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** Control maps and scenes, with the decisions for ambiguous parts of the contract. */
class ControlMapsTest {
    private static final ZoneTarget LOW = new ZoneTarget.ToPart(new PartRef("i", "low"));
    private static final ZoneTarget HIGH = new ZoneTarget.ToPart(new PartRef("i", "high"));

    private final SlotAllocator slots = new SlotAllocator();
    private final List<Integer> sent = new ArrayList<>();
    private final Router router = new Router((stamp, port, message, instrument) -> sent.add(message));

    private static Routing routing(ControlMap... controls) {
        List<Instrument> instruments = List.of(Instrument.of(
                "i",
                "i",
                true,
                "port",
                List.of(Part.of("low", "low", 1, 0, Range.ALL, 1), Part.of("high", "high", 2, 0, Range.ALL, 2))));
        List<Source> sources =
                List.of(Source.keyboard("a", "a", "in-a", Range.ALL), Source.keyboard("b", "b", "in-b", Range.ALL));
        Zone zone = Zone.of("z", "", "a", Range.ALL, new PartRef("i", "low"));
        Scene one = Scene.of("one", "One", 0, List.of()).withControls(List.of(controls));
        Scene two = Scene.of("two", "Two", 1, List.of(Zone.of("y", "", "a", Range.ALL, new PartRef("i", "high"))));
        return new Routing(
                sources,
                instruments,
                ChannelPlan.of(instruments, Map.of()),
                List.of(zone),
                List.of(),
                List.of(one, two),
                new SceneSwitch("b", 1),
                "one");
    }

    private void install(ControlMap... controls) {
        router.install(RoutingCompiler.compile(routing(controls), slots), 0);
    }

    private List<Integer> play(String source, int... messages) {
        sent.clear();
        for (int message : messages) {
            router.event(slots.source(source), message, 0);
        }
        return sent;
    }

    private static ControlMap knob(ControlMap.Send... sends) {
        return ControlMap.of("c", "a", ControlMap.Trigger.controller(21), sends);
    }

    private static ControlMap.Send whole(ControlKind kind, int number) {
        return ControlMap.Send.whole(kind, number, LOW);
    }

    /** Pitch bend range is RPN 0: 24 semitones and 50 hundredths. The choice is sent once, the value each time. */
    @Test
    void aParameterIsOneValue() {
        install(knob(new ControlMap.Send(ControlKind.RPN, 0, 0, 24 * 128 + 50, null, LOW)));
        assertThat(play("a", controller(0, 21, 127), controller(0, 21, 0)))
                .containsExactly(
                        controller(0, 101, 0),
                        controller(0, 100, 0),
                        controller(0, 6, 24),
                        controller(0, 38, 50),
                        controller(0, 6, 0),
                        controller(0, 38, 0));
    }

    @Test
    void aParameterIsChosenAgainAfterSomebodyElsesAndTheirsAfterIt() {
        install(knob(whole(ControlKind.NRPN, 300)));
        assertThat(play(
                        "a",
                        controller(0, 101, 0),
                        controller(0, 100, 2),
                        controller(0, 21, 127),
                        controller(0, 6, 70)))
                .containsExactly(
                        controller(0, 101, 0),
                        controller(0, 100, 2),
                        controller(0, 99, 2),
                        controller(0, 98, 44),
                        controller(0, 6, 127),
                        controller(0, 38, 127),
                        controller(0, 101, 0),
                        controller(0, 100, 2),
                        controller(0, 6, 70));
    }

    /** Modulation with its fine half owes its rest as modulation alone does. */
    @Test
    void aControllerOf14BitsIsOneValueToo() {
        install(knob(whole(ControlKind.CONTROLLER_14, 1)));
        assertThat(play("a", controller(0, 21, 64))).containsExactly(controller(0, 1, 64), controller(0, 33, 64));
        sent.clear();
        router.letGo(slots.source("a"), 0);
        assertThat(sent).containsExactly(controller(0, 1, 0));
    }

    private static ControlMap answersTo(ControlKind kind, int number) {
        return ControlMap.of(
                "c", "a", ControlMap.Trigger.any(kind, number), ControlMap.Send.whole(ControlKind.PITCH_BEND, 0, LOW));
    }

    private static int bend(int value) {
        return ShortMessage.of(ShortMessage.PITCH_BEND, 0, value & 0x7F, value >>> 7);
    }

    /** The choice goes on, since it is no value yet; data of another parameter goes on, too. */
    @Test
    void aMapAnswersToAParameterAsOneValue() {
        install(answersTo(ControlKind.NRPN, 300));
        assertThat(play("a", controller(0, 99, 2), controller(0, 98, 44)))
                .containsExactly(controller(0, 99, 2), controller(0, 98, 44));
        sent.clear();
        assertThat(play("a", controller(0, 6, 64), controller(0, 38, 5))).containsExactly(bend(8192), bend(8197));
        sent.clear();
        play("a", controller(0, 98, 45));
        sent.clear();
        assertThat(play("a", controller(0, 6, 64))).containsExactly(controller(0, 6, 64));
        sent.clear();
        // Increments of a value are not a value: their effect depends on the device.
        play("a", controller(0, 98, 44));
        sent.clear();
        assertThat(play("a", controller(0, 96, 0))).containsExactly(controller(0, 96, 0));
    }

    @Test
    void eachChannelAndSourceHasChosenItsOwn() {
        install(answersTo(ControlKind.RPN, 0));
        play("a", controller(0, 101, 0), controller(0, 100, 0), controller(1, 101, 0), controller(1, 100, 1));
        play("b", controller(0, 101, 0), controller(0, 100, 0));
        sent.clear();
        assertThat(play("a", controller(1, 6, 12))).doesNotContain(bend(12 << 7));
        play("b", controller(0, 6, 12));
        assertThat(sent).doesNotContain(bend(12 << 7));
        assertThat(play("a", controller(0, 6, 12))).contains(bend(12 << 7));
    }

    @Test
    void afterTheNumberOfNoneDataIsForNothing() {
        install(answersTo(ControlKind.RPN, 16_383));
        play("a", controller(0, 101, 127), controller(0, 100, 127));
        sent.clear();
        assertThat(play("a", controller(0, 6, 12))).containsExactly(controller(0, 6, 12));
    }

    @Test
    void aMapAnswersToAControllerWithItsFineHalf() {
        install(answersTo(ControlKind.CONTROLLER_14, 16));
        assertThat(play("a", controller(0, 48, 5))).isEmpty();
        assertThat(play("a", controller(0, 16, 64), controller(0, 48, 5), controller(0, 48, 6)))
                .containsExactly(bend(8192), bend(8197), bend(8198));
    }

    private static ControlMap.Send note(int number) {
        return new ControlMap.Send(ControlKind.NOTE, number, 0, 127, null, LOW);
    }

    private static ControlMap.Send scene(String id) {
        return new ControlMap.Send(ControlKind.SCENE, 0, 0, 127, null, new SendTarget.ToScene(id));
    }

    @Nested
    class Values {
        @Test
        void aWindowIsMappedLinearlyAndHalvesAreRoundedUp() {
            install(ControlMap.of(
                    "c",
                    "a",
                    new ControlMap.Trigger(ControlKind.CONTROLLER, 21, 0, 90),
                    new ControlMap.Send(ControlKind.CONTROLLER, 11, 127, 34, null, HIGH)));
            assertThat(play("a", controller(0, 21, 0), controller(0, 21, 45), controller(0, 21, 90)))
                    .containsExactly(controller(1, 11, 127), controller(1, 11, 81), controller(1, 11, 34));
        }

        @Test
        void aFastMoveOutOfTheWindowEndsAtItsEndAndIsNotRepeated() {
            ControlMap map = ControlMap.of(
                    "c",
                    "a",
                    new ControlMap.Trigger(ControlKind.CONTROLLER, 21, 20, 90),
                    ControlMap.Send.controller(11, HIGH));
            install(map);
            assertThat(play("a", controller(0, 21, 60), controller(0, 21, 127), controller(0, 21, 100)))
                    .containsExactly(controller(1, 11, 73), controller(1, 11, 127));
            install(map.withIgnoreOutside(true));
            assertThat(play("a", controller(0, 21, 127))).isEmpty();
        }

        @Test
        void pitchBendHasFourteenBitsOnBothSides() {
            install(ControlMap.of(
                    "c",
                    "a",
                    new ControlMap.Trigger(ControlKind.PITCH_BEND, 0, 0, 16383),
                    new ControlMap.Send(ControlKind.PITCH_BEND, 0, 16383, 0, null, HIGH)));
            assertThat(play("a", ShortMessage.of(ShortMessage.PITCH_BEND, 0, 1, 0)))
                    .containsExactly(ShortMessage.of(ShortMessage.PITCH_BEND, 1, 126, 127));
        }

        @Test
        void aMapCannotReconfigureAModule() {
            install(knob(
                    new ControlMap.Send(ControlKind.CONTROLLER, 122, 0, 127, null, HIGH),
                    new ControlMap.Send(ControlKind.CONTROLLER, 126, 0, 127, null, HIGH)));
            assertThat(play("a", controller(0, 21, 60))).isEmpty();
        }

        @Test
        void oneSliderReachesAllParts() {
            install(knob(ControlMap.Send.controller(7, new SendTarget.AllParts())));
            assertThat(play("a", controller(0, 21, 60))).containsExactly(controller(0, 7, 60), controller(1, 7, 60));
        }

        @Test
        void aMapThatKeepsLetsTheEventGoOn() {
            install(knob(ControlMap.Send.controller(11, HIGH)).withKeep(true));
            assertThat(play("a", controller(0, 21, 60))).containsExactly(controller(1, 11, 60), controller(0, 21, 60));
        }
    }

    @Nested
    class Notes {
        @Test
        void aKnobHoldsOneNoteUntilItComesToZero() {
            install(knob(note(40)));
            assertThat(play("a", controller(0, 21, 60), controller(0, 21, 90), controller(0, 21, 0)))
                    .containsExactly(noteOn(0, 40, 60), noteOff(0, 40, 64));
        }

        @Test
        void aNoteThatComesToZeroIsAMessageOfItsMapAndLeavesInItsPlace() {
            install(knob(ControlMap.Send.controller(11, HIGH), note(40)));
            play("a", controller(0, 21, 60));
            assertThat(play("a", controller(0, 21, 0))).containsExactly(controller(1, 11, 0), noteOff(0, 40, 64));
        }

        @Test
        void aNoteThatAnEventSoundsTwiceEndsRightBeforeItSoundsAgain() {
            ControlMap map = ControlMap.of("c", "a", new ControlMap.Trigger(ControlKind.NOTE, 60, 0, 127), note(60))
                    .withKeep(true);
            install(map);
            assertThat(play("a", noteOn(0, 60, 80)))
                    .containsExactly(noteOn(0, 60, 80), noteOff(0, 60, 64), noteOn(0, 60, 80));
            assertThat(play("a", noteOff(0, 60, 30))).containsExactly(noteOff(0, 60, 64));
        }

        @Test
        void anOffIsNeverClampedIntoASound() {
            install(ControlMap.of(
                    "c",
                    "a",
                    new ControlMap.Trigger(ControlKind.NOTE, 60, 40, 100),
                    new ControlMap.Send(ControlKind.NOTE, 40, 100, 127, null, LOW),
                    ControlMap.Send.controller(11, HIGH)));
            assertThat(play("a", noteOn(0, 60, 70), noteOff(0, 60, 64)))
                    .containsExactly(noteOn(0, 40, 114), controller(1, 11, 64), noteOff(0, 40, 64));
        }

        @Test
        void aKeyThatWentDownBeforeAMapTookItComesUpWhereItSounded() {
            install();
            play("a", noteOn(0, 60, 80));
            install(ControlMap.of("c", "a", new ControlMap.Trigger(ControlKind.NOTE, 60, 0, 127), note(40)));
            assertThat(play("a", noteOff(0, 60, 30))).containsExactly(noteOff(0, 60, 30));
        }
    }

    @Nested
    class Leaving {
        @Test
        void aFadeDoesNotOutliveItsScene() {
            install(knob(
                    new ControlMap.Send(ControlKind.CONTROLLER, 74, 0, 127, 20, HIGH),
                    ControlMap.Send.controller(11, LOW),
                    ControlMap.Send.controller(7, HIGH),
                    note(40),
                    ControlMap.Send.controller(71, LOW)));
            play("a", controller(0, 21, 60));
            // The note, then by channel and number: 11 to 127, 7 to the part's volume, 74 to its rest; 71 stays.
            assertThat(play("b", programChange(0, 1)))
                    .containsExactly(
                            noteOff(0, 40, 64), controller(0, 11, 127), controller(1, 7, 100), controller(1, 74, 20));
        }

        @Test
        void aControllerThatIsAtItsRestAlreadyIsNotSentAgain() {
            install(knob(ControlMap.Send.controller(11, LOW)));
            play("a", controller(0, 21, 127));
            assertThat(play("b", programChange(0, 1))).isEmpty();
        }

        @Test
        void aWheelThatWasPaidIsPutToItsRestAllTheSame() {
            install(knob(new ControlMap.Send(ControlKind.CONTROLLER, 1, 0, 127, 64, LOW)));
            play("a", controller(0, 21, 64));
            assertThat(play("b", programChange(0, 1))).containsExactly(controller(0, 1, 0), controller(0, 1, 64));
        }

        @Test
        void aNewNameIsNoEditAndANewPlaceMovesWhatWasMoved() {
            ControlMap map = knob(ControlMap.Send.controller(11, LOW));
            install(map);
            play("a", controller(0, 21, 50));
            sent.clear();
            install(new ControlMap(
                    "c", "Swell", "a", map.channels(), false, false, true, map.when(), map.sends(), map.extras()));
            assertThat(sent).isEmpty();
            install(map.withSends(List.of(ControlMap.Send.controller(11, HIGH))));
            assertThat(sent).containsExactly(controller(0, 11, 127));
        }

        @Test
        void aPedalThatAMapHoldsIsCountedWithThoseOfPlayers() {
            install(knob(ControlMap.Send.controller(64, LOW)));
            play("a", controller(0, 64, 127), controller(0, 21, 127));
            assertThat(play("a", controller(0, 64, 0))).isEmpty();
            assertThat(play("a", controller(0, 21, 0))).containsExactly(controller(0, 64, 0));
        }

        @Test
        void aSourceThatGoesEndsWhatItsKnobsHold() {
            install(knob(note(40), ControlMap.Send.controller(64, HIGH)));
            play("a", controller(0, 21, 100));
            sent.clear();
            router.letGo(slots.source("a"), 0);
            assertThat(sent).containsExactly(noteOff(0, 40, 64), controller(1, 64, 0));
            assertThat(router.debtCount() + router.soundingCount()).isZero();
        }
    }

    @Nested
    class Scenes {
        @Test
        void aProgramChangeThatCallsASceneIsConsumedAndAnotherGoesOn() {
            install();
            assertThat(play("b", programChange(0, 1), programChange(0, 1))).isEmpty();
            assertThat(slots.sceneId(router.scene())).isEqualTo("two");
            play("b", programChange(1, 0), programChange(0, 99));
            assertThat(slots.sceneId(router.scene())).isEqualTo("two");
        }

        @Test
        void anEventIsDecidedWholeBeforeTheSceneThatItCalls() {
            install(ControlMap.of("c", "a", new ControlMap.Trigger(ControlKind.NOTE, 60, 0, 127), scene("next"))
                    .withKeep(true));
            assertThat(play("a", noteOn(0, 60, 80))).containsExactly(noteOn(0, 60, 80));
            assertThat(play("a", noteOn(0, 61, 80))).containsExactly(noteOn(0, 61, 80), noteOn(1, 61, 80));
            assertThat(play("a", noteOff(0, 60, 64))).containsExactly(noteOff(0, 60, 64));
        }

        @Test
        void nextAndPreviousStopAtTheEnds() {
            ControlMap next = ControlMap.of("n", "a", ControlMap.Trigger.controller(21), scene("next"));
            ControlMap back = ControlMap.of("p", "a", ControlMap.Trigger.controller(22), scene("previous"));
            router.install(RoutingCompiler.compile(routing().withControls(List.of(next, back)), slots), 0);
            int[] press = {controller(0, 21, 127), controller(0, 21, 0)};
            play("a", press);
            play("a", press);
            assertThat(slots.sceneId(router.scene())).isEqualTo("two");
            play("a", controller(0, 22, 127), controller(0, 22, 0), controller(0, 22, 127));
            assertThat(slots.sceneId(router.scene())).isEqualTo("one");
        }

        @Test
        void aButtonThatStaysDownCallsOnce() {
            ControlMap next = ControlMap.of("n", "a", ControlMap.Trigger.controller(21), scene("two"));
            router.install(RoutingCompiler.compile(routing().withControls(List.of(next)), slots), 0);
            play("a", controller(0, 21, 127));
            play("b", programChange(0, 0));
            play("a", controller(0, 21, 100));
            assertThat(slots.sceneId(router.scene())).isEqualTo("one");
        }
    }

    @Test
    void longMessagesKeepTheirOrderAndMoveTogether() {
        install();
        List<Integer> pieces = new ArrayList<>();
        for (int value = 0; value < 50; value++) {
            for (int number : new int[] {101, 100, 6, 38, 99, 98, 96, 97}) {
                pieces.add(controller(0, number, value));
            }
            pieces.add(controller(0, 2, value));
            pieces.add(controller(0, 34, value));
        }
        assertThat(play("a", pieces.stream().mapToInt(Integer::intValue).toArray()))
                .isEqualTo(pieces);
    }
}
