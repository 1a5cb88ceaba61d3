package dibble.midi;

import static dibble.text.CoreText.say;

import dibble.text.UserException;

/**
 * A channel message packed into an {@code int}, so that no object is made on the way of an event.
 *
 * <pre>
 * bits 23..16  data 2 (0 where the message has one data byte)
 * bits 15..8   data 1
 * bits  7..0   status: kind in the upper four bits, channel 0-15 in the lower
 * </pre>
 *
 * Channels are 0-15 here and 1-16 everywhere a person or a file sees them (MIDI 1.0, channel voice messages).
 */
public final class ShortMessage {
    /** A key is let go: key, release velocity. */
    public static final int NOTE_OFF = 0x80;

    /** A key is struck: key, velocity; with velocity 0 it is let go. */
    public static final int NOTE_ON = 0x90;

    /** A held key is pressed (polyphonic aftertouch): key, pressure. */
    public static final int KEY_PRESSURE = 0xA0;

    /** A control change: number, value. */
    public static final int CONTROLLER = 0xB0;

    /** A program change: program; no second data byte. */
    public static final int PROGRAM_CHANGE = 0xC0;

    /** Held keys are pressed (channel aftertouch): pressure; no second data byte. */
    public static final int CHANNEL_PRESSURE = 0xD0;

    /** The pitch wheel is moved: lower seven bits, upper seven bits; 8192 is its rest. */
    public static final int PITCH_BEND = 0xE0;

    /** The release velocity of an off that no key released (64, as the standard advises). */
    public static final int DEFAULT_RELEASE = 64;

    private ShortMessage() {}

    /** Packs a message; arguments are not checked, since this runs on the way of an event. */
    public static int of(int kind, int channel, int data1, int data2) {
        return kind | channel | data1 << 8 | data2 << 16;
    }

    /** A note-on on a channel 0-15; key 0-127, velocity 1-127. */
    public static int noteOn(int channel, int note, int velocity) {
        return of(NOTE_ON, channel, note, velocity);
    }

    /** A note-off on a channel 0-15; key and release velocity 0-127. */
    public static int noteOff(int channel, int note, int velocity) {
        return of(NOTE_OFF, channel, note, velocity);
    }

    /** A control change on a channel 0-15; number and value 0-127. */
    public static int controller(int channel, int number, int value) {
        return of(CONTROLLER, channel, number, value);
    }

    /** A program change on a channel 0-15; program 0-127. */
    public static int programChange(int channel, int program) {
        return of(PROGRAM_CHANGE, channel, program, 0);
    }

    /** The kind: one of the constants of this class for a channel message. */
    public static int kind(int message) {
        return message & 0xF0;
    }

    /** The channel, 0-15. */
    public static int channel(int message) {
        return message & 0x0F;
    }

    /** The first data byte, 0-127. */
    public static int data1(int message) {
        return message >>> 8 & 0x7F;
    }

    /** The second data byte, 0-127; 0 where the kind has none. */
    public static int data2(int message) {
        return message >>> 16 & 0x7F;
    }

    /** The status byte: kind and channel. */
    public static int status(int message) {
        return message & 0xFF;
    }

    /** The same message on another channel, 0-15. */
    public static int onChannel(int message, int channel) {
        return message & ~0x0F | channel;
    }

    /** Returns true if this is a note-on or a note-off. */
    public static boolean isNote(int message) {
        return (message & 0xE0) == NOTE_OFF;
    }

    /** Returns true if this starts a note: a note-on with velocity 0 is a note-off by the standard. */
    public static boolean startsNote(int message) {
        return kind(message) == NOTE_ON && data2(message) > 0;
    }

    /** Returns true if this ends a note, as a note-off or as a note-on with velocity 0. */
    public static boolean endsNote(int message) {
        return kind(message) == NOTE_OFF || kind(message) == NOTE_ON && data2(message) == 0;
    }

    /** The number of bytes of a channel message with this status byte: 2 or 3. */
    public static int length(int status) {
        int kind = status & 0xF0;
        return kind == PROGRAM_CHANGE || kind == CHANNEL_PRESSURE ? 2 : 3;
    }

    /** Returns true if the status byte begins a channel message (0x80-0xEF). */
    public static boolean isChannelStatus(int status) {
        return status >= 0x80 && status < 0xF0;
    }

    /** The message as the bytes that go over a cable. */
    public static byte[] bytes(int message) {
        byte[] bytes = new byte[length(status(message))];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = (byte) (message >>> 8 * i);
        }
        return bytes;
    }

    /**
     * Packs bytes into a message.
     *
     * @throws UserException where they are not one whole channel message
     */
    public static int parse(int[] bytes) {
        if (bytes.length == 0 || !isChannelStatus(bytes[0])) {
            throw new UserException(say("short-message.not-a-channel-message-expected"));
        }
        if (bytes.length != length(bytes[0])) {
            throw new UserException(say("short-message.a-message-of-bytes-expected", bytes.length, length(bytes[0])));
        }
        int message = bytes[0];
        for (int i = 1; i < bytes.length; i++) {
            if (bytes[i] < 0 || bytes[i] > 127) {
                throw new UserException(say("common.data-byte-expected-0-to", bytes[i]));
            }
            message |= bytes[i] << 8 * i;
        }
        return message;
    }
}
