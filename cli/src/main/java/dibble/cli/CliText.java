package dibble.cli;

import dibble.text.Texts;

/** The texts of the command line. */
public final class CliText {
    static final String BUNDLE = "dibble.cli.cli";

    private static final Texts TEXTS = Texts.of(BUNDLE);

    private CliText() {}

    /** A text of the bundle by its key, with its arguments. */
    public static String say(String key, Object... arguments) {
        return TEXTS.say(key, arguments);
    }
}
