package dibble.files;

/** Text from a file, as it is fit for a line on a terminal: control characters are escaped as JSON does. */
public final class SingleLineText {
    private SingleLineText() {}

    /** The text with no control character, line end or half of a character in it. */
    public static String of(String text) {
        StringBuilder line = null;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean plain = !Character.isISOControl(c)
                    && !(c >= '\u2028' && c <= '\u202E')
                    && !(c >= '\u2066' && c <= '\u2069')
                    && !isHalf(text, i);
            if (!plain && line == null) {
                line = new StringBuilder(text.substring(0, i));
            }
            if (line != null) {
                line.append(plain ? String.valueOf(c) : String.format("\\u%04x", (int) c));
            }
        }
        return line == null ? text : line.toString();
    }

    /** Returns the text with a space for each control character, line end and mark that turns the direction of others. */
    public static String plain(String text) {
        return text.replaceAll("[\\p{Cc}\\u061C\\u200E\\u200F\\u2028-\\u202E\\u2066-\\u2069\\uFEFF]", " ")
                .strip();
    }

    private static boolean isHalf(String text, int i) {
        char c = text.charAt(i);
        if (Character.isHighSurrogate(c)) {
            return i + 1 == text.length() || !Character.isLowSurrogate(text.charAt(i + 1));
        }
        return Character.isLowSurrogate(c) && (i == 0 || !Character.isHighSurrogate(text.charAt(i - 1)));
    }
}
