package dibble.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Locale;
import java.util.MissingResourceException;
import org.junit.jupiter.api.Test;

class TextsTest {
    private final Texts texts = Texts.of("dibble.text.sample");

    @Test
    void aTextChoosesByNumberAndByWhatIsSo() {
        assertThat(texts.say("count", 0, "Harp")).isEqualTo("no notes on Harp");
        assertThat(texts.say("count", 1, "Harp")).isEqualTo("1 note on Harp");
        assertThat(texts.say("count", 5L, "Harp")).isEqualTo("5 notes on Harp");
        assertThat(texts.say("yes", true)).isEqualTo("it is on");
        assertThat(texts.say("yes", false)).isEqualTo("it is off");
    }

    @Test
    void numbersFollowTheUserAndWholeOnesHaveNoSeparators() {
        Locale before = Texts.users();
        try {
            Texts.writeAs(Locale.GERMANY);
            assertThat(texts.say("number", 132.5)).isEqualTo("at 132,5");
            assertThat(Texts.decimal(60)).isEqualTo("60");
            Texts.writeAs(Locale.ROOT);
            assertThat(texts.say("number", 132.504)).isEqualTo("at 132.5");
            assertThat(texts.say("number", 65_534)).isEqualTo("at 65534");
        } finally {
            Texts.writeAs(before);
        }
    }

    @Test
    void marksBecomePlainForATerminal() {
        assertThat(texts.say("plain")).isEqualTo("Don’t “quote” 0–127…");
        assertThat(Texts.plain(texts.say("plain"))).isEqualTo("Don't \"quote\" 0-127...");
    }

    @Test
    void aTextThatIsNotThereIsNamed() {
        assertThatThrownBy(() -> texts.say("none"))
                .isInstanceOf(MissingResourceException.class)
                .hasMessageContaining("none");
    }
}
