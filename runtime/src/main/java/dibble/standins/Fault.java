package dibble.standins;

import static dibble.text.CoreText.say;

/** What a stand-in can do wrong, as real gear does by its defaults: to see what comes of it. */
public enum Fault {
    LOCAL_CONTROL(say("fault.sounds-its-own-keys-local")),
    HEARS_ALL(say("fault.hears-all-channels-omni")),
    ECHOES(say("fault.sends-back-what-it-receives")),
    OTHER_CHANNEL(say("fault.sends-on-the-next-channel"));

    private final String words;

    Fault(String words) {
        this.words = words;
    }

    /** What it does, in words. */
    public String words() {
        return words;
    }
}
