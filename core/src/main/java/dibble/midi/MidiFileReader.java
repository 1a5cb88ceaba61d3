package dibble.midi;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Reads standard MIDI files of types 0, 1 and 2. Every length is compared with the bytes that are left before anything
 * is allocated for it, so the memory used is in proportion to the file. Unknown chunks are passed over, all meta
 * events are kept, and a file whose last track is cut off is refused with the place where it ends.
 */
public final class MidiFileReader {
    /** The largest file that is read: 256 MiB. */
    public static final long MOST_BYTES = 256L << 20;

    private static final int HEADER = 0x4D546864;
    private static final int TRACK = 0x4D54726B;

    private final byte[] bytes;
    private int at;
    private int end;

    private MidiFileReader(byte[] bytes) {
        this.bytes = bytes;
        this.end = bytes.length;
    }

    /**
     * Reads a file.
     *
     * @throws MidiFormatException where it is no MIDI file, is damaged or larger than {@link #MOST_BYTES}
     */
    public static MidiFile read(Path path) throws IOException {
        try (InputStream in = Files.newInputStream(path)) {
            byte[] head = in.readNBytes(4);
            if (head.length < 4 || !Arrays.equals(head, new byte[] {'M', 'T', 'h', 'd'})) {
                throw new MidiFormatException("no MIDI file: it begins with something else than \"MThd\"");
            }
        }
        long size = Files.size(path);
        if (size > MOST_BYTES) {
            throw new MidiFormatException("file of " + size + " bytes (expected at most " + MOST_BYTES + ")");
        }
        return read(Files.readAllBytes(path));
    }

    /** Reads the bytes of a file. */
    public static MidiFile read(byte[] bytes) throws MidiFormatException {
        return new MidiFileReader(bytes).file();
    }

    private MidiFile file() throws MidiFormatException {
        need(14, "the header");
        if (int32() != HEADER) {
            throw new MidiFormatException("no MIDI file: it begins with something else than \"MThd\"");
        }
        long headerLength = int32() & 0xFFFFFFFFL;
        if (headerLength < 6 || headerLength > end - at) {
            throw bad("header of " + headerLength + " bytes (expected 6 to " + (end - at) + ")");
        }
        int next = at + (int) headerLength;
        int type = int16();
        int count = int16();
        int division = (short) int16();
        at = next;
        if (type > 2) {
            throw bad("MIDI file type " + type + " (expected 0, 1 or 2)");
        }
        if (division == 0) {
            throw bad("division 0 (expected ticks a quarter note, 1 or more)");
        }
        List<MidiTrack> tracks = new ArrayList<>();
        while (at < bytes.length && tracks.size() < count) {
            end = bytes.length;
            need(8, "a chunk's head");
            int id = int32();
            long length = int32() & 0xFFFFFFFFL;
            if (length > bytes.length - at) {
                throw bad("chunk of " + length + " bytes (expected at most the " + (bytes.length - at) + " left)");
            }
            end = at + (int) length;
            if (id == TRACK) {
                tracks.add(track());
            }
            at = end;
        }
        if (tracks.size() < count) {
            throw bad("the file ends after " + tracks.size() + " tracks (expected " + count + ", as its header says)");
        }
        return new MidiFile(type, division, tracks);
    }

    private MidiTrack track() throws MidiFormatException {
        MidiTrack.Builder track = new MidiTrack.Builder();
        long tick = 0;
        int running = 0;
        while (at < end) {
            tick += variable();
            need(1, "an event");
            int status = bytes[at] & 0xFF;
            if (status < 0x80) {
                if (running == 0) {
                    throw bad("data byte " + status + " (expected a status byte)");
                }
                track.add(tick, channelMessage(running));
            } else if (ShortMessage.isChannelStatus(status)) {
                at++;
                running = status;
                track.add(tick, channelMessage(status));
            } else if (status == MidiTrack.META) {
                at++;
                need(1, "a meta event's type");
                int type = bytes[at++] & 0xFF;
                byte[] data = block();
                if (type == MidiTrack.META_END) {
                    return track.build(tick);
                }
                track.meta(tick, type, data);
            } else if (status == 0xF0 || status == 0xF7) {
                at++;
                // Running status is cancelled by the standard; a data byte after this is an error.
                running = 0;
                track.exclusive(tick, status, block());
            } else {
                throw bad("status byte " + status + " (expected a channel, meta or exclusive event)");
            }
        }
        return track.build(tick);
    }

    private int channelMessage(int status) throws MidiFormatException {
        int message = status;
        int length = ShortMessage.length(status);
        need(length - 1, "a channel message");
        for (int i = 1; i < length; i++) {
            int data = bytes[at] & 0xFF;
            if (data > 127) {
                throw bad("data byte " + data + " (expected 0 to 127)");
            }
            message |= data << 8 * i;
            at++;
        }
        return message;
    }

    private byte[] block() throws MidiFormatException {
        long length = variable();
        if (length > end - at) {
            throw bad("event of " + length + " bytes (expected at most the " + (end - at) + " left in its track)");
        }
        byte[] block = Arrays.copyOfRange(bytes, at, at + (int) length);
        at += (int) length;
        return block;
    }

    private long variable() throws MidiFormatException {
        long value = 0;
        for (int i = 0; i < 4; i++) {
            need(1, "a length");
            int b = bytes[at++] & 0xFF;
            value = value << 7 | b & 0x7F;
            if (b < 0x80) {
                return value;
            }
        }
        throw bad("a length of more than four bytes");
    }

    private void need(int count, String what) throws MidiFormatException {
        if (end - at < count) {
            throw bad("the " + (end == bytes.length ? "file" : "track") + " ends inside " + what);
        }
    }

    private int int16() {
        int value = (bytes[at] & 0xFF) << 8 | bytes[at + 1] & 0xFF;
        at += 2;
        return value;
    }

    private int int32() {
        return int16() << 16 | int16();
    }

    private MidiFormatException bad(String what) {
        return new MidiFormatException("byte " + at + ": " + what);
    }
}
