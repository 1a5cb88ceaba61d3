package dibble.presentation;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;

/**
 * A command, available by key, menu or button.
 *
 * @param id in lower-case letters and dashes
 * @param words the label in a menu
 * @param about the effect, as a sentence without its full stop; may be empty
 * @param keys in the form {@code Shortcut+Shift+S}; the first is displayed
 * @param typed a character that runs it as well, wherever it is on the keyboard; empty for none
 * @param group the submenu; empty for none
 * @param again whether it repeats while its key is held down
 * @param applies whether it is available now
 */
public record Command(
        String id,
        String words,
        String about,
        List<String> keys,
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
        List<String> more = new ArrayList<>(keys);
        more.add(key);
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

    /** Returns the tooltip: the sentence, or the label if there is none. */
    public String explanation() {
        return about.isEmpty() ? words : about;
    }

    /** Returns true if its key would be a character, or move the caret, in a text field. */
    public boolean isTyped() {
        return keys.stream()
                .anyMatch(key -> !key.contains("Shortcut+") && !key.contains("Alt+") && !isFunctionKey(key));
    }

    private static boolean isFunctionKey(String key) {
        return key.matches("(Shift\\+)?F\\d{1,2}");
    }

    /** Returns true if its key is Space, which buttons take. */
    public boolean isSpace() {
        return keys.stream().anyMatch("SPACE"::equalsIgnoreCase);
    }
}
