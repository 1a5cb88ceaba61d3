package dibble.standins;

/** What a stand-in can do wrong, as real gear does by its defaults: to see what comes of it. */
public enum Fault {
    LOCAL_CONTROL("sounds what is played on it by itself"),
    HEARS_ALL("hears all channels"),
    ECHOES("sends back what it gets"),
    OTHER_CHANNEL("sends on the next channel");

    private final String words;

    Fault(String words) {
        this.words = words;
    }

    /** What it does, in words. */
    public String words() {
        return words;
    }
}
