package dibble.desktop.ui;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;

/**
 * Something that can be done: by its key, from a menu, by a button.
 *
 * @param id in small letters and dashes
 * @param words as a menu says it
 * @param about what it does, in a sentence without its full stop; may be empty
 * @param keys the first is the one that is shown
 * @param typed a character that does it as well, wherever it lies on the keyboard; empty for none
 * @param group what a menu has it under, with others; empty where it stands by itself
 * @param again whether it is done again and again while its key is held down
 * @param applies whether it can be done now
 */
public record Command(
        String id,
        String words,
        String about,
        List<KeyCombination> keys,
        String typed,
        String group,
        boolean again,
        BooleanSupplier applies,
        Runnable action) {
    public Command {
        keys = List.copyOf(keys);
    }

    /** One that always applies and has no key yet. */
    public static Command of(String id, String words, Runnable action) {
        return new Command(id, words, "", List.of(), "", "", false, () -> true, action);
    }

    /** With another key, such as {@code Shortcut+S}. */
    public Command key(String key) {
        List<KeyCombination> more = new ArrayList<>(keys);
        more.add(KeyCombination.keyCombination(key));
        return new Command(id, words, about, more, typed, group, again, applies, action);
    }

    /** With a character that does it, such as {@code ?}. */
    public Command typed(String character) {
        return new Command(id, words, about, keys, character, group, again, applies, action);
    }

    /** With a sentence about it. */
    public Command about(String sentence) {
        return new Command(id, words, sentence, keys, typed, group, again, applies, action);
    }

    /** Together with others, under a word. */
    public Command in(String menu) {
        return new Command(id, words, about, keys, typed, menu, again, applies, action);
    }

    /** Only where something is so as well. */
    public Command when(BooleanSupplier also) {
        BooleanSupplier before = applies;
        return new Command(
                id,
                words,
                about,
                keys,
                typed,
                group,
                again,
                () -> before.getAsBoolean() && also.getAsBoolean(),
                action);
    }

    /** Again and again while its key is held down: for steps, never for what begins or ends something. */
    public Command whileHeld() {
        return new Command(id, words, about, keys, typed, group, true, applies, action);
    }

    /** Its first key as the platform writes it, or its character; empty for neither. */
    public String sign() {
        return keys.isEmpty() ? typed : keys.get(0).getDisplayText();
    }

    /** What a tooltip says: the sentence, or the words where there is none, with the key. */
    public String tip() {
        String text = about.isEmpty() ? words : about;
        return sign().isEmpty() ? text : text + " (" + sign() + ")";
    }

    /** Whether one of its keys was pressed. */
    boolean isPressed(KeyEvent event) {
        return keys.stream().anyMatch(key -> key.match(event)) && !KeyCharacters.typesAnother(event);
    }

    /** Whether one of its keys is meant by a key that has another code on this keyboard. */
    boolean isWritten(KeyEvent event, boolean french) {
        return keys.stream().anyMatch(key -> KeyCharacters.match(key, event, french));
    }

    /** Whether its key would be a letter, or move the caret, where somebody types. */
    boolean isTyped() {
        return keys.stream()
                .anyMatch(key -> key.getShortcut() != KeyCombination.ModifierValue.DOWN
                        && key.getAlt() != KeyCombination.ModifierValue.DOWN
                        && !(key instanceof KeyCodeCombination code
                                && code.getCode().isFunctionKey()));
    }

    /** Whether its key is Space, which buttons take. */
    boolean isSpace() {
        return keys.stream().anyMatch(key -> key instanceof KeyCodeCombination code && code.getCode() == KeyCode.SPACE);
    }
}
