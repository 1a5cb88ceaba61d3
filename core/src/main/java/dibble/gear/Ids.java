package dibble.gear;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.text.Normalizer;
import java.util.Locale;
import java.util.function.Predicate;
import java.util.regex.Pattern;

/** Ids of a session: lower-case letters, digits and hyphens, unique in their list. */
public final class Ids {
    private static final Pattern ID = Pattern.compile("[a-z0-9-]+");

    /** Short of the longest that a file may have, so that a number fits behind it. */
    private static final int LONGEST_FRESH = 100;

    private Ids() {}

    /** The id itself. @throws UserException where it is not well formed */
    public static String check(String id) {
        if (!ID.matcher(id).matches()) {
            throw new UserException(say("ids.id-expected-lower-case-letters", id));
        }
        return id;
    }

    /** An id made of a name, with a number behind it where it is taken already. */
    public static String fresh(String name, Predicate<String> taken) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFD)
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        String base = plain.isEmpty() ? "item" : plain.substring(0, Math.min(LONGEST_FRESH, plain.length()));
        String id = base;
        for (int n = 2; taken.test(id); n++) {
            id = base + "-" + n;
        }
        return id;
    }
}
