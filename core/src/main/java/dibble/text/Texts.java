package dibble.text;

import java.text.ChoiceFormat;
import java.text.Format;
import java.text.MessageFormat;
import java.text.NumberFormat;
import java.util.Locale;
import java.util.Map;
import java.util.MissingResourceException;
import java.util.ResourceBundle;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/**
 * The texts of one module, from its message bundle. A text is a {@link MessageFormat} pattern, whether or not it has
 * arguments. Whole numbers are written without separators, as channels and keys are; numbers with a fraction with the
 * user's decimal sign. A boolean chooses between 0 (false) and 1 (true) in a choice.
 */
public final class Texts {
    /** The language of the texts; English unless set. Tests set the marked one. */
    public static final String LANGUAGE = "dibble.language";

    /** True if texts are for a terminal: plain quotes, dashes and dots. Set before the first text is asked for. */
    private static volatile boolean plain;

    /** The user's format for numbers and dates. */
    private static volatile Locale users = Locale.getDefault(Locale.Category.FORMAT);

    private final ResourceBundle bundle;
    private final Map<String, Object> read = new ConcurrentHashMap<>();
    private final Map<String, Object> readPlain = new ConcurrentHashMap<>();

    private Texts(ResourceBundle bundle) {
        this.bundle = bundle;
    }

    /**
     * The texts of a bundle on the class path.
     *
     * @param name as {@link ResourceBundle} takes it
     */
    public static Texts of(String name) {
        Locale locale = Locale.forLanguageTag(System.getProperty(LANGUAGE, "und"));
        return new Texts(ResourceBundle.getBundle(
                name, locale, ResourceBundle.Control.getNoFallbackControl(ResourceBundle.Control.FORMAT_PROPERTIES)));
    }

    /** Returns the user's format for numbers and dates. */
    public static Locale users() {
        return users;
    }

    /** From now on numbers and dates in texts are written so. */
    public static void writeAs(Locale locale) {
        users = locale;
    }

    /** A number with the user's decimal sign, without separators and with two places at most. */
    public static String decimal(double number) {
        NumberFormat format = NumberFormat.getInstance(users);
        format.setGroupingUsed(false);
        format.setMaximumFractionDigits(2);
        return format.format(number);
    }

    /** From now on texts are for a terminal. */
    public static void forTerminal() {
        plain = true;
    }

    /** Runs a task with typographic texts for paper, in place of those for a terminal. */
    public static <T> T typeset(Supplier<T> work) {
        boolean before = plain;
        plain = false;
        try {
            return work.get();
        } finally {
            plain = before;
        }
    }

    /** Text with plain quotes, dashes and dots, as a terminal and a script expect them. */
    public static String plain(String text) {
        return text.replace('’', '\'')
                .replace('“', '"')
                .replace('”', '"')
                .replace('–', '-')
                .replace('−', '-')
                .replace("…", "...");
    }

    /**
     * A text with its arguments.
     *
     * @throws MissingResourceException where the bundle has no such text
     */
    public String say(String key, Object... arguments) {
        Object found = (plain ? readPlain : read).computeIfAbsent(key, this::read);
        if (found instanceof String text) {
            return text;
        }
        MessageFormat format = (MessageFormat) found;
        synchronized (format) {
            Format[] formats = format.getFormatsByArgumentIndex();
            Object[] given = new Object[arguments.length];
            for (int i = 0; i < given.length; i++) {
                given[i] = shown(arguments[i], i < formats.length ? formats[i] : null);
            }
            return format.format(given);
        }
    }

    private Object read(String key) {
        String pattern = bundle.getString(key);
        if (pattern.indexOf('{') < 0 && pattern.indexOf('\'') < 0) {
            // Most texts have nothing to put in; a thousand formats would be made for a start.
            return plain ? plain(pattern) : pattern;
        }
        MessageFormat format = new MessageFormat(plain ? plain(pattern.replace("’", "''")) : pattern, users);
        return format.getFormats().length == 0 ? format.format(new Object[0]) : format;
    }

    private static Object shown(Object given, Format format) {
        if (given instanceof Boolean choice) {
            return choice ? 1 : 0;
        }
        if (format instanceof ChoiceFormat || format instanceof NumberFormat) {
            return given;
        }
        if (given instanceof Double || given instanceof Float) {
            return decimal(((Number) given).doubleValue());
        }
        return given instanceof Number ? given.toString() : given;
    }
}
