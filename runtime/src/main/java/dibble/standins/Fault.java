package dibble.standins;

import static dibble.text.CoreText.say;

/** The faults of a stand-in, as real gear has them by default. */
public enum Fault {
    LOCAL_CONTROL(say("fault.sounds-its-own-keys-local")),
    HEARS_ALL(say("fault.hears-all-channels-omni")),
    ECHOES(say("fault.sends-back-what-it-receives")),
    OTHER_CHANNEL(say("fault.sends-on-the-next-channel"));

    private final String words;

    Fault(String words) {
        this.words = words;
    }

    /** Returns a description. */
    public String words() {
        return words;
    }
}
