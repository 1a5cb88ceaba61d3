package dibble.sound;

import dibble.files.SingleLineText;

/** Names from files, which may have anything in them. */
final class SafeName {
    private static final int LONGEST = 60;

    private SafeName() {}

    /** Returns the part of a name that can be displayed on one line. */
    static String of(String name) {
        String plain = name == null ? "" : SingleLineText.plain(name);
        return plain.length() <= LONGEST ? plain : plain.substring(0, LONGEST);
    }
}
