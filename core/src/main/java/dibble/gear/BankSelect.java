package dibble.gear;

/** The controllers by which a device selects banks (MIDI 1.0). Manufacturers read the standard in three ways. */
public enum BankSelect {
    /** By 0 and 32 together, as the standard says. */
    BOTH("both"),

    /** Controller 0 alone: the device would treat 32 as another bank, or as something else. */
    COARSE("msb"),

    /** By 32 alone. */
    FINE("lsb");

    private final String word;

    BankSelect(String word) {
        this.word = word;
    }

    /** Returns the word for this value in a session file. */
    public String word() {
        return word;
    }
}
