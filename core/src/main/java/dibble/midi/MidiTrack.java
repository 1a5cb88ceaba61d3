package dibble.midi;

import static dibble.text.CoreText.say;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/**
 * One track of a standard MIDI file: its events in order, with absolute ticks, in flat arrays. Immutable; made by
 * {@link Builder}. An event is a channel message (packed), a meta event or a piece of system exclusive (bytes).
 */
public final class MidiTrack {
    /** Status of a meta event in a file. */
    public static final int META = 0xFF;

    public static final int META_TEXT = 0x01;
    public static final int META_COPYRIGHT = 0x02;
    public static final int META_TRACK_NAME = 0x03;

    /** The instrument that a track is for. */
    public static final int META_INSTRUMENT = 0x04;

    /** The name of the device that what follows is for. */
    public static final int META_DEVICE = 0x09;

    public static final int META_MARKER = 0x06;
    public static final int META_CUE = 0x07;
    public static final int META_END = 0x2F;
    public static final int META_TEMPO = 0x51;
    public static final int META_SMPTE_OFFSET = 0x54;
    public static final int META_METER = 0x58;
    public static final int META_KEY = 0x59;

    private static final byte[] NO_BYTES = {};

    private final long[] ticks;
    private final int[] messages;
    private final byte[][] bytes;
    private final long endTick;

    private MidiTrack(long[] ticks, int[] messages, byte[][] bytes, long endTick) {
        this.ticks = ticks;
        this.messages = messages;
        this.bytes = bytes;
        this.endTick = endTick;
    }

    /** The number of events, the end of track not counted. */
    public int size() {
        return ticks.length;
    }

    /** The absolute tick of event {@code i}. */
    public long tick(int i) {
        return ticks[i];
    }

    /** The tick of the end-of-track event; at or after the last event. */
    public long endTick() {
        return endTick;
    }

    /** The first byte of event {@code i}: a channel status, 0xF0, 0xF7 or {@link #META}. */
    public int status(int i) {
        return messages[i] & 0xFF;
    }

    public boolean isChannelMessage(int i) {
        return ShortMessage.isChannelStatus(status(i));
    }

    /** Whether event {@code i} is system exclusive, or goes on with it. */
    public boolean isExclusive(int i) {
        return status(i) == 0xF0 || status(i) == 0xF7;
    }

    public boolean isMeta(int i, int type) {
        return status(i) == META && metaType(i) == type;
    }

    /** The packed message of event {@code i}, where it is a channel message. */
    public int message(int i) {
        return messages[i];
    }

    /** The type byte of meta event {@code i}. */
    public int metaType(int i) {
        return messages[i] >>> 8 & 0xFF;
    }

    /** The data of a meta event or of a piece of system exclusive, without status, type and length. */
    public byte[] data(int i) {
        return bytes == null || bytes[i] == null ? NO_BYTES : bytes[i].clone();
    }

    /** The text of meta event {@code i}. */
    public String text(int i) {
        return text(data(i));
    }

    /** The first track name in this track. */
    public Optional<String> name() {
        for (int i = 0; i < size(); i++) {
            if (isMeta(i, META_TRACK_NAME)) {
                return Optional.of(text(data(i)));
            }
        }
        return Optional.empty();
    }

    /** Text of a meta event: UTF-8 where it is valid, else Latin-1; the standard leaves the encoding open. */
    static String text(byte[] data) {
        String utf8 = new String(data, StandardCharsets.UTF_8);
        return utf8.indexOf('\uFFFD') < 0 ? utf8 : new String(data, StandardCharsets.ISO_8859_1);
    }

    @Override
    public boolean equals(Object other) {
        return other == this
                || other instanceof MidiTrack that
                        && endTick == that.endTick
                        && Arrays.equals(ticks, that.ticks)
                        && Arrays.equals(messages, that.messages)
                        && sameBytes(that);
    }

    private boolean sameBytes(MidiTrack that) {
        for (int i = 0; i < size(); i++) {
            if (!Arrays.equals(bytes == null ? null : bytes[i], that.bytes == null ? null : that.bytes[i])) {
                return false;
            }
        }
        return true;
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(messages) * 31 + Arrays.hashCode(ticks);
    }

    /** Collects events in rising ticks. Not thread-safe. */
    public static final class Builder {
        /** A file can have many tracks with little on each. */
        private static final int FIRST = 8;

        private long[] ticks = new long[FIRST];
        private int[] messages = new int[FIRST];
        private byte[][] bytes;
        private int size;
        private long endTick;

        /** Adds a channel message. */
        public Builder add(long tick, int message) {
            return append(tick, message, null);
        }

        /** Adds a meta event of a type 0-127. */
        public Builder meta(long tick, int type, byte[] data) {
            return append(tick, META | type << 8, data.clone());
        }

        public Builder text(long tick, int type, String text) {
            return meta(tick, type, text.getBytes(StandardCharsets.UTF_8));
        }

        /** Adds system exclusive: status 0xF0 (a message begins) or 0xF7 (it goes on, or raw bytes). */
        public Builder exclusive(long tick, int status, byte[] data) {
            return append(tick, status, data.clone());
        }

        private Builder append(long tick, int message, byte[] data) {
            if (tick < endTick) {
                throw new IllegalArgumentException(say("midi-track.tick-expected-or-later", tick, endTick));
            }
            if (size == ticks.length) {
                ticks = Arrays.copyOf(ticks, size * 2);
                messages = Arrays.copyOf(messages, size * 2);
            }
            if (data != null) {
                if (bytes == null) {
                    bytes = new byte[ticks.length][];
                }
                if (bytes.length < ticks.length) {
                    bytes = Arrays.copyOf(bytes, ticks.length);
                }
                bytes[size] = data;
            }
            ticks[size] = tick;
            messages[size] = message;
            size++;
            endTick = tick;
            return this;
        }

        /** Copies an event of another track. */
        public Builder copy(MidiTrack from, int i) {
            return append(from.ticks[i], from.messages[i], from.bytes == null ? null : from.bytes[i]);
        }

        /** Copies an event of another track to another tick. */
        public Builder copyAt(long tick, MidiTrack from, int i) {
            return append(tick, from.messages[i], from.bytes == null ? null : from.bytes[i]);
        }

        public int size() {
            return size;
        }

        /** The track, ending with its last event. */
        public MidiTrack build() {
            return build(endTick);
        }

        /** The track, ending at a tick that is not before its last event. */
        public MidiTrack build(long end) {
            return new MidiTrack(
                    Arrays.copyOf(ticks, size),
                    Arrays.copyOf(messages, size),
                    bytes == null ? null : Arrays.copyOf(bytes, size),
                    Math.max(end, endTick));
        }
    }
}
