package dibble.desktop.ui;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.presentation.Command;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The shortcuts on keyboards of other countries: keys report the codes and texts that these layouts give them. */
class KeyboardLayoutsTest {
    private final Commands commands = new Commands();
    private final List<String> done = new ArrayList<>();

    @BeforeEach
    void addCommands() {
        List<Command> all = new ArrayList<>();
        for (int digit = 0; digit <= 9; digit++) {
            all.add(command("view-" + digit).key("Shortcut+" + digit));
        }
        all.add(command("undo").key("Shortcut+Z"));
        all.add(command("redo").key("Shortcut+Y"));
        all.add(command("split").key("S"));
        all.add(command("silence").key("Shortcut+PERIOD"));
        all.add(command("settings").key("Shortcut+COMMA"));
        all.add(command("zoom-in").key("Shortcut+PLUS").key("Shortcut+EQUALS"));
        all.add(command("help").typed("?"));
        commands.add(all);
    }

    private Command command(String id) {
        return Command.of(id, id, () -> done.add(id));
    }

    private String pressed(KeyCode code, String text, boolean shift, boolean control) {
        done.clear();
        commands.take(new KeyEvent(KeyEvent.KEY_PRESSED, "", text, code, shift, control, false, false), null);
        return String.join(" ", done);
    }

    private String control(KeyCode code, String text) {
        return pressed(code, text, false, true);
    }

    @Test
    void frenchKeyboardTypesDigitsWithShift() {
        commands.setFrench(true);
        KeyCode[] codes = {
            KeyCode.UNDEFINED,
            KeyCode.AMPERSAND,
            KeyCode.UNDEFINED,
            KeyCode.QUOTEDBL,
            KeyCode.QUOTE,
            KeyCode.LEFT_PARENTHESIS,
            KeyCode.MINUS,
            KeyCode.UNDEFINED,
            KeyCode.UNDERSCORE,
            KeyCode.UNDEFINED
        };
        String texts = "à&é\"'(-è_ç";
        for (int digit = 0; digit <= 9; digit++) {
            assertThat(control(codes[digit], texts.substring(digit, digit + 1))).isEqualTo("view-" + digit);
            assertThat(pressed(codes[digit], String.valueOf(digit), true, true)).isEqualTo("view-" + digit);
        }
        assertThat(pressed(KeyCode.SEMICOLON, ".", true, true)).isEqualTo("silence");
        assertThat(control(KeyCode.COMMA, ",")).isEqualTo("settings");
        assertThat(pressed(KeyCode.EQUALS, "+", true, true)).isEqualTo("zoom-in");
    }

    @Test
    void germanKeyboardHasPlusOfItsOwnAndAltGrTypesCharacters() {
        assertThat(control(KeyCode.PLUS, "+")).isEqualTo("zoom-in");
        assertThat(control(KeyCode.Z, "z")).isEqualTo("undo");
        assertThat(control(KeyCode.Y, "y")).isEqualTo("redo");
        assertThat(control(KeyCode.DIGIT6, "6")).isEqualTo("view-6");
        assertThat(pressed(KeyCode.S, "s", false, false)).isEqualTo("split");
        assertThat(pressed(KeyCode.S, "ſ", false, false)).isEmpty();
    }

    @Test
    void nordicKeyboardHasItsDigitsAndPunctuation() {
        IntStream.rangeClosed(1, 9)
                .forEach(digit -> assertThat(control(KeyCode.valueOf("DIGIT" + digit), String.valueOf(digit)))
                        .isEqualTo("view-" + digit));
        assertThat(control(KeyCode.PERIOD, ".")).isEqualTo("silence");
        assertThat(control(KeyCode.PLUS, "+")).isEqualTo("zoom-in");
    }

    @Test
    void dvorakKeyboardFollowsItsLetters() {
        // The key that types a semicolon on a US keyboard types an s.
        assertThat(pressed(KeyCode.S, "s", false, false)).isEqualTo("split");
        assertThat(control(KeyCode.Z, "z")).isEqualTo("undo");
        assertThat(control(KeyCode.PERIOD, ".")).isEqualTo("silence");
        assertThat(control(KeyCode.EQUALS, "=")).isEqualTo("zoom-in");
    }

    @Test
    void americanKeyboardKeepsQuoteAndMinus() {
        assertThat(control(KeyCode.QUOTE, "'")).isEmpty();
        assertThat(control(KeyCode.MINUS, "-")).isEmpty();
        assertThat(control(KeyCode.NUMPAD3, "3")).isEqualTo("view-3");
        assertThat(control(KeyCode.ADD, "+")).isEqualTo("zoom-in");
    }

    @Test
    void fieldKeepsItsUndoAndTheWindowGetsTheRest() {
        KeyEvent redo = new KeyEvent(KeyEvent.KEY_PRESSED, "", "y", KeyCode.Y, false, true, false, false);
        assertThat(commands.take(redo, true, false))
                .as("menus do not see it either")
                .isTrue();
        assertThat(done).isEmpty();
        commands.take(
                new KeyEvent(KeyEvent.KEY_PRESSED, "", "6", KeyCode.DIGIT6, false, true, false, false), true, false);
        assertThat(done).containsExactly("view-6");
    }
}
