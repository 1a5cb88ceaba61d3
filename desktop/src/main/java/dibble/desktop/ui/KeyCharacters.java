package dibble.desktop.ui;

import dibble.presentation.Command;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;

/** Matches shortcuts with digits and punctuation by the character of a key, for layouts whose keys have other codes. */
final class KeyCharacters {
    /** Keys of digits on French layouts, where digits are typed with Shift only, that have no code. */
    private static final Map<String, KeyCode> FRENCH =
            Map.of("é", KeyCode.DIGIT2, "è", KeyCode.DIGIT7, "ç", KeyCode.DIGIT9, "à", KeyCode.DIGIT0);

    private static final Map<String, KeyCode> PUNCTUATION =
            Map.of("+", KeyCode.PLUS, "-", KeyCode.MINUS, "=", KeyCode.EQUALS, ".", KeyCode.PERIOD, ",", KeyCode.COMMA);

    private static final Map<KeyCode, KeyCode> SAME = Map.ofEntries(
            Map.entry(KeyCode.ADD, KeyCode.PLUS),
            Map.entry(KeyCode.SUBTRACT, KeyCode.MINUS),
            Map.entry(KeyCode.DECIMAL, KeyCode.PERIOD),
            Map.entry(KeyCode.AMPERSAND, KeyCode.DIGIT1),
            Map.entry(KeyCode.QUOTEDBL, KeyCode.DIGIT3),
            Map.entry(KeyCode.LEFT_PARENTHESIS, KeyCode.DIGIT5),
            Map.entry(KeyCode.UNDERSCORE, KeyCode.DIGIT8));

    /** Shortcuts as the toolkit has them, by their form in commands. */
    private static final Map<String, KeyCombination> COMBINATIONS = new ConcurrentHashMap<>();

    private KeyCharacters() {}

    static KeyCombination combination(String key) {
        return COMBINATIONS.computeIfAbsent(key, KeyCombination::keyCombination);
    }

    /** Returns whether one of the keys of a command was pressed. */
    static boolean isPressed(Command command, KeyEvent event) {
        return command.keys().stream().anyMatch(key -> combination(key).match(event)) && !typesAnother(event);
    }

    /** Returns whether one of the keys of a command is meant by a key that has another code on this keyboard. */
    static boolean isWritten(Command command, KeyEvent event, boolean french) {
        return command.keys().stream().anyMatch(key -> match(combination(key), event, french));
    }

    /**
     * Returns whether a shortcut is meant by the character of a key, though the key has another code.
     *
     * @param french whether the keys of quote and minus are those of the digits 4 and 6
     */
    private static boolean match(KeyCombination shortcut, KeyEvent event, boolean french) {
        if (!(shortcut instanceof KeyCodeCombination combination)) {
            return false;
        }
        KeyCode code = combination.getCode();
        boolean isQuote = event.getCode() == KeyCode.QUOTE && code == KeyCode.DIGIT4;
        boolean isMinus = event.getCode() == KeyCode.MINUS && code == KeyCode.DIGIT6;
        if (written(event).filter(code::equals).isEmpty()
                && SAME.get(event.getCode()) != code
                && !(french && (isQuote || isMinus))) {
            return false;
        }
        // Shift may be what types the character.
        boolean shift = combination.getShift() == KeyCombination.ModifierValue.DOWN;
        return (!shift || event.isShiftDown())
                && event.isShortcutDown() == (combination.getShortcut() == KeyCombination.ModifierValue.DOWN)
                && event.isAltDown() == (combination.getAlt() == KeyCombination.ModifierValue.DOWN);
    }

    /** Returns the code that a key with this text has on most layouts. */
    private static Optional<KeyCode> written(KeyEvent event) {
        String text = event.getText();
        if (text.length() != 1) {
            return numpad(event.getCode());
        }
        if (PUNCTUATION.containsKey(text)) {
            return Optional.of(PUNCTUATION.get(text));
        }
        char character = text.charAt(0);
        return character >= '0' && character <= '9'
                ? Optional.of(digit(character - '0'))
                : Optional.ofNullable(FRENCH.get(text));
    }

    private static Optional<KeyCode> numpad(KeyCode code) {
        int digit = code.ordinal() - KeyCode.NUMPAD0.ordinal();
        return digit >= 0 && digit <= 9 ? Optional.of(digit(digit)) : Optional.empty();
    }

    private static KeyCode digit(int digit) {
        return KeyCode.values()[KeyCode.DIGIT0.ordinal() + digit];
    }

    /**
     * Returns whether a key types another character than its letter, as AltGr does: then it is no shortcut of a letter alone.
     */
    private static boolean typesAnother(KeyEvent event) {
        String text = event.getText();
        return event.getCode().isLetterKey()
                && !event.isShortcutDown()
                && text.length() == 1
                && !text.toLowerCase(Locale.ROOT)
                        .equals(event.getCode().getName().toLowerCase(Locale.ROOT));
    }
}
