package dibble.recording;

import java.util.Locale;

/** What becomes of what the tracks have already, where a take is printed onto them. */
public enum PrintMode {
    /** It makes way from the take's start on, where the take has anything for the track. */
    REPLACE_ALL,

    /** It makes way where the take is. */
    REPLACE_RANGE,

    /** It stays, and the take comes on top. */
    OVERDUB;

    /** The word that stands for it in a file: {@code instead}. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
