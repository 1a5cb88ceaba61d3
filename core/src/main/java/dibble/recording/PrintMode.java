package dibble.recording;

/** The effect of a printed take on the previous content of the tracks. */
public enum PrintMode {
    /** Replaces the content from the start of the take, if the take has anything for the track. */
    REPLACE_ALL("instead"),

    /** Replaces the content of the range of the take. */
    REPLACE_RANGE("within"),

    /** Keeps the content and adds the take. */
    OVERDUB("over");

    private final String word;

    PrintMode(String word) {
        this.word = word;
    }

    /** Returns the word for this mode in files. */
    public String word() {
        return word;
    }
}
