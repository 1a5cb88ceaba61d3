package dibble.desktop.ui;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dibble.presentation.Command;
import dibble.presentation.Subscription;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.Test;

class CommandsTest {
    private final Commands commands = new Commands();
    private final List<String> done = new ArrayList<>();

    private Command command(String id) {
        return Command.of(id, id, () -> done.add(id));
    }

    private static KeyEvent key(KeyCode code, boolean shift, boolean control, boolean alt) {
        return new KeyEvent(KeyEvent.KEY_PRESSED, "", "", code, shift, control, alt, false);
    }

    private boolean take(KeyCode code, boolean control) {
        return commands.take(key(code, false, control, false), null);
    }

    @Test
    void aKeyDoesWhatItIsForWithItsModifiersAlone() {
        commands.add(List.of(
                command("save").key("Shortcut+S"),
                command("redo").key("Shortcut+Shift+Z").key("Shortcut+Y")));
        assertThat(take(KeyCode.S, true)).isTrue();
        assertThat(take(KeyCode.S, false)).isFalse();
        assertThat(commands.take(key(KeyCode.S, true, true, false), null)).isFalse();
        assertThat(take(KeyCode.Y, true)).isTrue();
        assertThat(done).containsExactly("save", "redo");
    }

    private void press(KeyCode code) {
        KeyEvent event = key(code, false, false, false);
        commands.follow(event);
        assertThat(commands.take(event, null)).isTrue();
    }

    private void release(KeyCode code) {
        commands.follow(new KeyEvent(KeyEvent.KEY_RELEASED, "", "", code, false, false, false, false));
    }

    /** The system sends the press of a key that is held again and again. */
    @Test
    void aHeldKeyTakesStepsButBeginsAndEndsNothingTwice() {
        commands.add(List.of(
                command("play").key("Space"), command("later").key("Right").whileHeld()));
        press(KeyCode.SPACE);
        press(KeyCode.SPACE);
        release(KeyCode.SPACE);
        press(KeyCode.SPACE);
        press(KeyCode.RIGHT);
        press(KeyCode.RIGHT);
        assertThat(done).containsExactly("play", "play", "later", "later");
        commands.forgetKeys();
        press(KeyCode.SPACE);
        assertThat(done).hasSize(5).last().isEqualTo("play");
    }

    @Test
    void whereItDoesNotApplyAnotherOfTheKeyDoes() {
        boolean[] applies = {false};
        commands.add(List.of(command("window").key("P")));
        Subscription view = commands.add(List.of(command("view").key("P").when(() -> applies[0])));
        take(KeyCode.P, false);
        applies[0] = true;
        take(KeyCode.P, false);
        view.unsubscribe();
        take(KeyCode.P, false);
        assertThat(done).containsExactly("window", "view", "window");
    }

    @Test
    void lettersAreTypedAndSpacePressesWhatHasTheFocus() {
        commands.add(List.of(
                command("why").key("W"),
                command("play").key("Space"),
                command("save").key("Shortcut+S"),
                command("scene").key("F2")));
        assertThat(commands.take(key(KeyCode.W, false, false, false), true, false))
                .isFalse();
        assertThat(commands.take(key(KeyCode.SPACE, false, false, false), true, false))
                .isFalse();
        assertThat(commands.take(key(KeyCode.SPACE, false, false, false), false, true))
                .isFalse();
        assertThat(commands.take(key(KeyCode.S, false, true, false), true, false))
                .isTrue();
        assertThat(commands.take(key(KeyCode.F2, false, false, false), true, false))
                .isTrue();
        assertThat(commands.take(key(KeyCode.W, false, false, false), false, true))
                .isTrue();
        assertThat(done).containsExactly("save", "scene", "why");
    }

    @Test
    void aTipSaysWhatAndByWhichKey() {
        assertThat(Commands.tip(command("save").key("Shortcut+S").about("Keeps it")))
                .matches("Keeps it \\(.*S\\)");
        assertThat(Commands.tip(command("save"))).isEqualTo("save");
        assertThatThrownBy(() -> commands.get("gone")).hasMessageContaining("gone");
    }
}
