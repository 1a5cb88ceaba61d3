package dibble.text;

/** The texts of the core: checks, errors, names of things. */
public final class CoreText {
    private static final Texts TEXTS = Texts.of("dibble.text.core");

    private CoreText() {}

    /** A text of the bundle by its key, with its arguments. */
    public static String say(String key, Object... arguments) {
        return TEXTS.say(key, arguments);
    }
}
