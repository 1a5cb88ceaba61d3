package dibble.notes;

import static dibble.text.CoreText.say;

import dibble.midi.ShortMessage;
import dibble.text.UserException;

/**
 * A single note, to be drawn or pasted.
 *
 * @param channel 0-15
 * @param key 0-127
 * @param start tick, 0 or more
 * @param end tick, after its start
 * @param velocity 1-127
 * @param release the release velocity, 0-127
 */
public record Note(int channel, int key, long start, long end, int velocity, int release) {
    public Note {
        if (channel < 0 || channel > 15 || key < 0 || key > 127 || velocity < 1 || velocity > 127) {
            throw new UserException(say("note.expected", channel, key, velocity));
        }
        if (start < 0 || end <= start || release < 0 || release > 127) {
            throw new UserException(say("note.ticks-expected", start, end, release));
        }
    }

    /** One that is let go with the usual velocity. */
    public static Note of(int channel, int key, long start, long end, int velocity) {
        return new Note(channel, key, start, end, velocity, ShortMessage.DEFAULT_RELEASE);
    }

    /** The same so many ticks later, or earlier. */
    public Note later(long ticks) {
        return new Note(channel, key, start + ticks, end + ticks, velocity, release);
    }
}
