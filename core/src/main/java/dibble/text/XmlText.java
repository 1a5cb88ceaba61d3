package dibble.text;

import java.util.regex.Pattern;

/** Text in files that are XML. */
public final class XmlText {
    /** Characters that XML 1.0 excludes: control characters, which a name may have. */
    private static final Pattern NO_CHARACTER =
            Pattern.compile("[^\\t\\n\\r\\x{20}-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]");

    private XmlText() {}

    /** A text without what XML 1.0 cannot say. */
    public static String of(String text) {
        return NO_CHARACTER.matcher(text).replaceAll("");
    }
}
