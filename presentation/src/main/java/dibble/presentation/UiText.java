package dibble.presentation;

import dibble.text.Texts;

/** The texts of the window. */
public final class UiText {
    private static final Texts TEXTS = Texts.of("dibble.presentation.window");

    private UiText() {}

    /** A text of the bundle by its key, with its arguments. */
    public static String say(String key, Object... arguments) {
        return TEXTS.say(key, arguments);
    }
}
