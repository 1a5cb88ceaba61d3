package dibble.standins;

import dibble.midi.ShortMessage;
import dibble.ports.InputPort;

/**
 * A simulated keyboard: what its keys do is heard on its port as from a real one. Several hands can play it at once, on
 * threads of their own.
 */
public final class StandInKeyboard implements InputPort {
    private final String name;
    private volatile Listener listener;

    StandInKeyboard(String name) {
        this.name = name;
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public void listen(Listener heard) {
        listener = heard;
    }

    /** Plays a packed channel message. */
    public void play(int message) {
        Listener to = listener;
        if (to != null) {
            to.heard(message);
        }
    }

    /** Presses a key on a channel 0-15. */
    public void press(int channel, int key, int velocity) {
        play(ShortMessage.noteOn(channel, key, velocity));
    }

    /** Lets a key go. */
    public void release(int channel, int key) {
        play(ShortMessage.noteOff(channel, key, ShortMessage.DEFAULT_RELEASE));
    }
}
