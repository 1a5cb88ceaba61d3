package dibble.recording;

import static dibble.text.CoreText.say;

import java.util.Locale;
import java.util.Set;
import java.util.function.Predicate;

/** Names of files made of names of things, such as every system takes them. */
public final class FileNames {
    private static final int LONGEST = 80;

    /** Names of devices on some systems. */
    private static final Set<String> RESERVED = Set.of("con", "prn", "aux", "nul");

    private FileNames() {}

    /** The name without what some system does not take, and never empty. */
    public static String plain(String name) {
        String bare = name.replaceAll("[^\\p{L}\\p{N} ._-]", "").strip();
        String shortened = bare.codePointCount(0, bare.length()) > LONGEST
                ? bare.substring(0, bare.offsetByCodePoints(0, LONGEST))
                : bare;
        String ended = shortened.replaceAll("^[ .]+|[ .]+$", "");
        String low = ended.toLowerCase(Locale.ROOT);
        boolean device = RESERVED.contains(low) || low.matches("(com|lpt)\\d");
        return ended.isEmpty() ? "untitled" : device ? say("file-names.file", ended) : ended;
    }

    /**
     * A plain name that no other file has, with a number behind it where that is needed.
     *
     * @param taken whether a name is another file's; asked in small letters, since some systems do not tell them from
     *     capitals
     */
    public static String fresh(String name, Predicate<String> taken) {
        String plain = plain(name);
        String free = plain;
        for (int number = 2; taken.test(free.toLowerCase(Locale.ROOT)); number++) {
            free = plain + " " + number;
        }
        return free;
    }
}
