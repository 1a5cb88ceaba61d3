package dibble.routing;

import dibble.midi.Parameter;
import dibble.midi.ShortMessage;
import java.util.Arrays;

/**
 * The selections of registered and non-registered parameters (MIDI 1.0): that of each source, and the last one sent to
 * each destination. So data of one source never reaches a parameter that another has selected. Confined to its router;
 * arrays grow when a table is installed, never on the path of an event.
 */
final class Parameters {
    /** By voice and channel. */
    private int[] chosen = {};

    /** By voice and channel: the coarse half of the value that was sent last, and one more. */
    private int[] coarse = {};

    /** By destination. */
    private int[] told = {};

    void openVoices(int count) {
        if (count * 16 > chosen.length) {
            chosen = Arrays.copyOf(chosen, count * 16);
            coarse = Arrays.copyOf(coarse, count * 16);
        }
    }

    void openPorts(int count) {
        if (count * 16 > told.length) {
            told = Arrays.copyOf(told, count * 16);
        }
    }

    /** Records a message of a voice to its destinations. */
    void sent(int voice, int channel, int message) {
        if (ShortMessage.kind(message) != ShortMessage.CONTROLLER) {
            return;
        }
        int at = voice * 16 + channel;
        int next = Parameter.after(chosen[at], message);
        if (next != chosen[at]) {
            chosen[at] = next;
            coarse[at] = 0;
        }
        if (ShortMessage.data1(message) == Parameter.DATA) {
            coarse[at] = ShortMessage.data2(message) + 1;
        }
    }

    /** Records a message to a destination. */
    void told(int destination, int message) {
        told[destination] = Parameter.after(told[destination], message);
    }

    /** Returns true if a destination would take a voice's data for another parameter than the voice has chosen. */
    boolean isCut(int voice, int channel, int destination, int message) {
        int wanted = chosen[voice * 16 + channel];
        return Parameter.isData(message) && Parameter.isWhole(wanted) && told[destination] != wanted;
    }

    /** Returns true if a destination was told last that this is chosen. */
    boolean isTold(int destination, int choice) {
        return told[destination] == choice;
    }

    /** Returns the selection of a voice. */
    int chosen(int voice, int channel) {
        return chosen[voice * 16 + channel];
    }

    /** The coarse half of a voice's value, which its fine half alone would lack; or -1 where none was sent. */
    int coarse(int voice, int channel) {
        return coarse[voice * 16 + channel] - 1;
    }

    /** Clears the selections of a port's channels. */
    void forgetPort(int port) {
        Arrays.fill(told, port * 16, port * 16 + 16, Parameter.NOTHING);
    }
}
