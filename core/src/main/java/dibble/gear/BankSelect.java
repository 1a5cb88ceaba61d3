package dibble.gear;

/** By which controllers a device selects banks (MIDI 1.0): makers have read the standard in three ways. */
public enum BankSelect {
    /** By 0 and 32 together, as the standard says. */
    BOTH("both"),

    /** By 0 alone: 32 would be taken for another bank, or for something else. */
    COARSE("msb"),

    /** By 32 alone. */
    FINE("lsb");

    private final String word;

    BankSelect(String word) {
        this.word = word;
    }

    /** The word that stands for it in a session file. */
    public String word() {
        return word;
    }
}
