package dibble.standins;

import static dibble.text.CoreText.say;

/** What a stand-in can do wrong, as real gear does by its defaults: to see what comes of it. */
public enum Fault {
    LOCAL_CONTROL(say("fault.sounds-what-is-played-on")),
    HEARS_ALL(say("fault.hears-all-channels")),
    ECHOES(say("fault.sends-back-what-it-gets")),
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
