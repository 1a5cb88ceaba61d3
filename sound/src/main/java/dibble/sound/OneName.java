package dibble.sound;

import dibble.files.OneLine;

/** Names from files, which may have anything in them. */
final class OneName {
    private static final int LONGEST = 60;

    private OneName() {}

    /** What of a name can be shown on one line. */
    static String of(String name) {
        String plain = name == null ? "" : OneLine.plain(name);
        return plain.length() <= LONGEST ? plain : plain.substring(0, LONGEST);
    }
}
