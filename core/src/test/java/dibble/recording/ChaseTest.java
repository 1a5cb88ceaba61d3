package dibble.recording;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** A receiver of the state at a position equals one that received all earlier events. */
class ChaseTest {
    private static int cc(int number, int value) {
        return ShortMessage.controller(0, number, value);
    }

    private static Chase chase(int... messages) {
        Chase chase = new Chase();
        for (int message : messages) {
            chase.add(message);
        }
        return chase;
    }

    private static List<Integer> held(int... messages) {
        return chase(messages).messages();
    }

    @Test
    void aBendRangeIsSaidWithItsParameterAndWhatWasSelectedLastIsSelectedAgain() {
        assertThat(held(cc(101, 0), cc(100, 0), cc(6, 12), cc(38, 0), cc(7, 90), cc(101, 127), cc(100, 127)))
                .containsExactly(cc(101, 0), cc(100, 0), cc(6, 12), cc(38, 0), cc(7, 90), cc(101, 127), cc(100, 127));
    }

    @Test
    void twoParametersKeepTheirOwnValues() {
        assertThat(held(
                        cc(101, 0),
                        cc(100, 0),
                        cc(6, 12),
                        cc(99, 1),
                        cc(98, 8),
                        cc(6, 70),
                        cc(101, 0),
                        cc(100, 0),
                        cc(6, 2)))
                .containsExactly(cc(99, 1), cc(98, 8), cc(6, 70), cc(101, 0), cc(100, 0), cc(6, 2));
    }

    /** A coarse half puts its fine half to 0, so the two belong together. */
    @Test
    void fineHalvesAreSentWithTheirCoarseHalves() {
        assertThat(held(cc(7, 90), cc(39, 12))).containsExactly(cc(7, 90), cc(39, 12));
        assertThat(held(cc(39, 12), cc(7, 90))).containsExactly(cc(7, 90));
        Chase start = chase(cc(7, 90), cc(39, 12));
        assertThat(chase(cc(7, 80), cc(39, 12)).wayTo(start)).containsExactly(cc(7, 90), cc(39, 12));
        assertThat(chase(cc(7, 90), cc(39, 50)).wayTo(start)).containsExactly(cc(7, 90), cc(39, 12));
        assertThat(chase(cc(7, 90), cc(39, 12)).wayTo(start)).isEmpty();
        assertThat(start.wayTo(chase(cc(7, 90)))).containsExactly(cc(7, 90));
    }

    @Test
    void dataForNothingIsAControllerLikeOthers() {
        assertThat(held(cc(6, 12), cc(64, 127))).containsExactly(cc(6, 12), cc(64, 127));
    }

    @Test
    void aProgramIsChosenFromItsBankThoughAnotherWasSelectedSince() {
        int program = ShortMessage.programChange(0, 5);
        assertThat(held(cc(0, 1), cc(32, 2), program, cc(0, 9)))
                .containsExactly(cc(0, 1), cc(32, 2), program, cc(0, 9));
    }

    @Test
    void aResetPutsToRestWhatWasMovedAndSelectsNothing() {
        assertThat(held(cc(101, 0), cc(100, 0), cc(6, 12), cc(64, 127), cc(11, 20), cc(7, 30), cc(121, 0)))
                .containsExactlyInAnyOrder(
                        cc(101, 0),
                        cc(100, 0),
                        cc(6, 12),
                        cc(7, 30),
                        cc(11, 127),
                        cc(64, 0),
                        cc(101, 127),
                        cc(100, 127));
    }

    /** A receiver that knows of parameters, as modules do. */
    private static final class Receiver {
        private final int[] controllers = new int[128];
        private final int[] registered = new int[1 << 14];
        private int selected = -1;
        private int bend = 64;

        Receiver hear(Iterable<Integer> messages) {
            messages.forEach(this::hear);
            return this;
        }

        void hear(int message) {
            int value = ShortMessage.data2(message);
            int number = ShortMessage.data1(message);
            if (ShortMessage.kind(message) == ShortMessage.PITCH_BEND) {
                bend = value;
            } else if (number == 101) {
                selected = value << 7 | (selected < 0 ? 127 : selected & 0x7F);
            } else if (number == 100) {
                selected = (selected < 0 ? 127 << 7 : selected & 0x3F80) | value;
            } else if (number == 6 && selected >= 0) {
                registered[selected] = value;
            } else {
                controllers[number] = value;
            }
        }

        String state() {
            return java.util.Arrays.toString(controllers) + java.util.Arrays.hashCode(registered) + " " + selected + " "
                    + bend;
        }
    }

    private static int random(Random random) {
        int[] numbers = {1, 6, 7, 11, 64, 66, 69, 74, 100, 101};
        return random.nextInt(8) == 0
                ? ShortMessage.of(ShortMessage.PITCH_BEND, 0, 0, random.nextInt(128))
                : cc(numbers[random.nextInt(numbers.length)], random.nextInt(3));
    }

    @Property(tries = 300)
    void whoIsGivenWhatHoldsIsWhereTheOneIsWhoHeardEverything(@ForAll long seed) {
        Random random = new Random(seed);
        Receiver all = new Receiver();
        Chase chase = new Chase();
        for (int i = 0; i < 60; i++) {
            int message = random(random);
            all.hear(message);
            chase.add(message);
        }
        assertThat(new Receiver().hear(chase.messages()).state()).isEqualTo(all.state());
    }

    @Property(tries = 300)
    void theWayFromOnePlaceToAnotherLeadsThere(@ForAll long seed) {
        Random random = new Random(seed);
        Chase here = new Chase();
        Chase there = new Chase();
        // What either has moved has a value at both places.
        for (int number : new int[] {1, 7, 11, 64, 66, 69, 74}) {
            here.add(cc(number, 0));
            there.add(cc(number, 0));
        }
        for (int parameter = 0; parameter < 3; parameter++) {
            for (int low = 0; low < 3; low++) {
                for (Chase chase : List.of(here, there)) {
                    chase.add(cc(101, parameter));
                    chase.add(cc(100, low));
                    chase.add(cc(6, 0));
                }
            }
        }
        for (int i = 0; i < 40; i++) {
            here.add(random(random));
            there.add(random(random));
        }
        there.add(cc(101, 0));
        there.add(cc(100, 0));
        Receiver receiver = new Receiver().hear(here.messages());
        receiver.hear(here.wayTo(there));
        assertThat(receiver.state())
                .isEqualTo(new Receiver().hear(there.messages()).state());
    }
}
