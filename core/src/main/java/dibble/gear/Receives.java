package dibble.gear;

import java.util.Locale;

/** The use of channels by an instrument. */
public enum Receives {
    /** Each part hears its own channel. */
    BY_CHANNEL,

    /** The whole instrument hears one channel. */
    ONE_CHANNEL,

    /** It cannot be limited: everything on its port sounds. */
    ALL;

    /** Returns the word for this value in a session file. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The constant for a word of the file. @throws UserException for an unknown one */
    public static Receives ofWord(String word) {
        return valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_'));
    }
}
