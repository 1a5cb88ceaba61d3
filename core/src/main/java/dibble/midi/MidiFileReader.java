package dibble.midi;

import static dibble.text.CoreText.say;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * A reader of standard MIDI files of types 0, 1 and 2, also within a RIFF file (RMID). Every length is compared with
 * the remaining bytes before memory is allocated, so the memory is proportional to the file. All meta events are kept.
 * Violations of the standard are tolerated and reported if possible; a truncated file is rejected with the position of
 * its end.
 */
public final class MidiFileReader {
    /** The largest file that is read: 64 MiB. */
    public static final long MAX_BYTES = 64L << 20;

    /** The most events that a file may have. */
    public static final int MAX_EVENTS = 3_000_000;

    private static final int HEADER = 0x4D546864;
    private static final int TRACK = 0x4D54726B;
    private static final int RIFF = 0x52494646;
    private static final int RIFF_MIDI = 0x524D4944;
    private static final int RIFF_DATA = 0x64617461;
    private static final int CHUNK_HEAD = 8;
    private static final int MAX_REMARKS = 20;

    private final byte[] bytes;
    private final List<String> remarks = new ArrayList<>();
    private int at;

    /** Behind the last byte of the chunk that is read. */
    private int end;

    /** Behind the last byte of the MIDI file. */
    private int last;

    private int events;

    private MidiFileReader(byte[] bytes) {
        this.bytes = bytes;
        end = bytes.length;
        last = bytes.length;
    }

    /**
     * Reads a file.
     *
     * @throws MidiFormatException where it is no MIDI file, is damaged, larger than {@link #MAX_BYTES} or has more than
     *     {@link #MAX_EVENTS} events
     */
    public static MidiFile read(Path path) throws IOException {
        if (Files.isDirectory(path)) {
            throw new IOException(say("common.is-a-folder-expected-a", path));
        }
        if (Files.exists(path) && !Files.isRegularFile(path)) {
            throw new IOException(say("whole-file.is-no-ordinary-file", path));
        }
        try (InputStream in = Files.newInputStream(path)) {
            return read(in);
        }
    }

    /** Reads a file to the end of a stream. */
    public static MidiFile read(InputStream in) throws IOException {
        byte[] bytes = in.readNBytes((int) MAX_BYTES + 1);
        if (bytes.length > MAX_BYTES) {
            throw new MidiFormatException(say("midi-file-reader.larger-than-mib", MAX_BYTES >> 20));
        }
        return read(bytes);
    }

    /** Reads the bytes of a file. */
    public static MidiFile read(byte[] bytes) throws MidiFormatException {
        return new MidiFileReader(bytes).file();
    }

    private MidiFile file() throws MidiFormatException {
        if (bytes.length >= 12 && intAt(0) == RIFF && intAt(8) == RIFF_MIDI) {
            unwrap();
        }
        if (last - at < 14) {
            throw bad(say("midi-file-reader.the-file-ends-after-bytes", last - at));
        }
        if (int32() != HEADER) {
            throw new MidiFormatException(say("midi-file-reader.not-a-midi-file-it"));
        }
        long headerLength = int32() & 0xFFFFFFFFL;
        if (headerLength < 6 || headerLength > last - at) {
            throw bad(say("midi-file-reader.header-of-bytes-expected-6", headerLength, last - at));
        }
        int next = at + (int) headerLength;
        int type = int16();
        int count = int16();
        int division = (short) int16();
        at = next;
        if (type > 2) {
            throw bad(say("common.midi-file-type-expected-0", type));
        }
        if (division == 0) {
            throw bad(say("midi-file-reader.division-0-expected-ticks-per"));
        }
        List<MidiTrack> tracks = tracks(count);
        if (tracks.size() < count) {
            throw bad(say("midi-file-reader.the-file-ends-after-tracks", tracks.size(), count));
        }
        if (tracks.size() > count) {
            remark(say("midi-file-reader.it-has-tracks-not-as", tracks.size(), count));
        }
        // A file of type 0 with more than one track can only be one of type 1.
        return new MidiFile(type == 0 && tracks.size() != 1 ? 1 : type, division, tracks, remarks);
    }

    /** The file is the data of a RIFF file: little-endian, which nothing else here is. */
    private void unwrap() throws MidiFormatException {
        at = 12;
        while (bytes.length - at >= CHUNK_HEAD) {
            int id = intAt(at);
            long length = Integer.reverseBytes(intAt(at + 4)) & 0xFFFFFFFFL;
            at += CHUNK_HEAD;
            if (length > bytes.length - at) {
                throw bad(say("midi-file-reader.chunk-of-bytes-expected-at", length, bytes.length - at));
            }
            if (id == RIFF_DATA) {
                last = at + (int) length;
                end = last;
                return;
            }
            at += (int) length + (int) (length & 1);
        }
        throw bad(say("midi-file-reader.a-riff-file-without-midi"));
    }

    private List<MidiTrack> tracks(int count) throws MidiFormatException {
        List<MidiTrack> tracks = new ArrayList<>();
        while (at < last) {
            boolean enough = tracks.size() >= count && count > 0;
            end = last;
            if (enough && last - at < CHUNK_HEAD) {
                remark(say("midi-file-reader.bytes-after-the-last-track", last - at));
                break;
            }
            need(CHUNK_HEAD, "midi-file-reader.a-chunks-header");
            int id = int32();
            long length = int32() & 0xFFFFFFFFL;
            if (length > last - at) {
                if (enough) {
                    remark(say("midi-file-reader.bytes-after-the-last-track", last - at + CHUNK_HEAD));
                    break;
                }
                throw bad(say("midi-file-reader.chunk-of-bytes-expected-at", length, last - at));
            }
            end = at + (int) length;
            if (id == TRACK) {
                if (tracks.size() == MidiFile.MAX_TRACKS) {
                    throw bad(say("midi-file-reader.more-than-tracks", MidiFile.MAX_TRACKS));
                }
                tracks.add(track(tracks.size() + 1));
            } else {
                remark(say("midi-file-reader.unknown-chunk-of-bytes-is", name(id), length));
            }
            at = end;
        }
        return tracks;
    }

    private static String name(int id) {
        StringBuilder name = new StringBuilder("\"");
        for (int shift = 24; shift >= 0; shift -= 8) {
            int letter = id >>> shift & 0xFF;
            name.append(letter >= 0x20 && letter < 0x7F ? (char) letter : '?');
        }
        return name.append('"').toString();
    }

    private void remark(String text) {
        if (remarks.size() < MAX_REMARKS) {
            remarks.add(text);
        }
    }

    private MidiTrack track(int number) throws MidiFormatException {
        MidiTrack.Builder track = new MidiTrack.Builder();
        long endTick = events(track, 0);
        if (at < end) {
            endTick = behindTheEnd(number, track, endTick);
        }
        return track.build(endTick);
    }

    /** Reads the bytes that follow an end of track within its chunk: events of another application, or garbage. */
    private long behindTheEnd(int number, MidiTrack.Builder track, long endTick) {
        int left = end - at;
        int before = events;
        MidiTrack.Builder more = new MidiTrack.Builder();
        try {
            long later = events(more, endTick);
            if (at == end && more.size() > 0) {
                MidiTrack found = more.build();
                for (int i = 0; i < found.size(); i++) {
                    track.copy(found, i);
                }
                remark(say("midi-file-reader.track-continues-after-its-end", number));
                return Math.max(later, endTick);
            }
        } catch (MidiFormatException e) {
            // It is none of a track's.
        }
        events = before;
        remark(say("midi-file-reader.bytes-after-the-end-of", left, number));
        return endTick;
    }

    /** Reads events up to an end of track, or to the end of the chunk; the tick of that end. */
    private long events(MidiTrack.Builder track, long from) throws MidiFormatException {
        long tick = from;
        int running = 0;
        while (at < end) {
            long pause = variable();
            tick += pause;
            need(1, "midi-file-reader.an-event");
            int status = bytes[at] & 0xFF;
            if (++events > MAX_EVENTS) {
                throw bad(say("midi-file-reader.more-than-events", MAX_EVENTS));
            }
            if (status < 0x80) {
                if (running == 0) {
                    throw bad(say("midi-file-reader.data-byte-expected-a-status", status));
                }
                track.add(tick, channelMessage(running));
            } else if (ShortMessage.isChannelStatus(status)) {
                at++;
                running = status;
                track.add(tick, channelMessage(status));
            } else if (status == MidiTrack.META) {
                at++;
                need(1, "midi-file-reader.a-meta-events-type");
                int type = bytes[at++] & 0xFF;
                byte[] data = block();
                if (type == MidiTrack.META_END) {
                    return tick;
                }
                if (!MidiFileWriter.isFiller(pause, type, data)) {
                    track.meta(tick, type, data);
                }
            } else if (status == Status.EXCLUSIVE || status == Status.EXCLUSIVE_END) {
                at++;
                // Running status is cancelled by the standard; a data byte after this is an error.
                running = 0;
                track.exclusive(tick, status, block());
            } else {
                throw bad(say("midi-file-reader.status-byte-expected-a-channel", status));
            }
        }
        return tick;
    }

    private int channelMessage(int status) throws MidiFormatException {
        int message = status;
        int length = ShortMessage.length(status);
        need(length - 1, "midi-file-reader.a-channel-message");
        for (int i = 1; i < length; i++) {
            int data = bytes[at] & 0xFF;
            if (data > 127) {
                throw bad(say("common.data-byte-expected-0-to", data));
            }
            message |= data << 8 * i;
            at++;
        }
        return message;
    }

    private byte[] block() throws MidiFormatException {
        long length = variable();
        if (length > end - at) {
            throw bad(say("midi-file-reader.event-of-bytes-expected-at", length, end - at));
        }
        byte[] block = Arrays.copyOfRange(bytes, at, at + (int) length);
        at += (int) length;
        return block;
    }

    private long variable() throws MidiFormatException {
        long value = 0;
        for (int i = 0; i < 4; i++) {
            need(1, "midi-file-reader.a-length");
            int b = bytes[at++] & 0xFF;
            value = value << 7 | b & 0x7F;
            if (b < 0x80) {
                return value;
            }
        }
        throw bad(say("midi-file-reader.a-length-of-more-than"));
    }

    private void need(int count, String what) throws MidiFormatException {
        if (end - at < count) {
            throw bad(say("midi-file-reader.the-file-ends-inside", end == last, say(what)));
        }
    }

    private int intAt(int place) {
        return (bytes[place] & 0xFF) << 24
                | (bytes[place + 1] & 0xFF) << 16
                | (bytes[place + 2] & 0xFF) << 8
                | bytes[place + 3] & 0xFF;
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
        return new MidiFormatException(say("midi-file-reader.byte", at, what));
    }
}
