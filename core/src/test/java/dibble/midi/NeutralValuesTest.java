package dibble.midi;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Neutral values of pedals and wheels. */
class NeutralValuesTest {
    @ParameterizedTest
    @CsvSource({
        "63,false",
        "64,true",
        "65,true",
        "66,true",
        "67,true",
        "68,true",
        "69,true",
        "70,false",
        "1,true",
        "7,false"
    })
    void pedalsAndModulationAreMovedByTheirControllers(int number, boolean moves) {
        assertThat(NeutralValues.moves(ShortMessage.controller(3, number, 100))).isEqualTo(moves);
        assertThat(NeutralValues.isAtRest(ShortMessage.controller(3, number, 0)))
                .isEqualTo(moves);
        assertThat(NeutralValues.isAtRest(ShortMessage.controller(3, number, 64)))
                .isFalse();
    }

    @Property
    void whatPutsSomethingToRestDoes(
            @ForAll @IntRange(min = 0x80, max = 0xEF) int status,
            @ForAll @IntRange(min = 0, max = 127) int first,
            @ForAll @IntRange(min = 0, max = 127) int second) {
        int message = ShortMessage.of(status & 0xF0, status & 0xF, first, second);
        int rest = NeutralValues.of(message);
        assertThat(ShortMessage.channel(rest)).isEqualTo(ShortMessage.channel(message));
        if (NeutralValues.moves(message)) {
            assertThat(NeutralValues.isAtRest(rest)).isTrue();
            assertThat(NeutralValues.atFirst(message)).isEqualTo(rest);
        } else {
            assertThat(rest).isEqualTo(message);
            assertThat(NeutralValues.isAtRest(message)).isFalse();
        }
    }

    @ParameterizedTest
    @CsvSource({"7,100", "10,64", "11,127", "74,64", "8,64"})
    void otherControllersBeginWhereGeneralMidiHasThem(int number, int value) {
        assertThat(NeutralValues.atFirst(ShortMessage.controller(5, number, 3)))
                .isEqualTo(ShortMessage.controller(5, number, value));
        assertThat(NeutralValues.atFirst(ShortMessage.controller(5, 20, 3))).isZero();
        assertThat(NeutralValues.atFirst(ShortMessage.programChange(5, 3))).isZero();
    }
}
