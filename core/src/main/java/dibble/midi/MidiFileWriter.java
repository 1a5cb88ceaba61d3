package dibble.midi;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;

/** Writes standard MIDI files of types 0 and 1, with running status; a type 2 file is written as it was read. */
public final class MidiFileWriter {
    private final OutputStream out;

    private MidiFileWriter(OutputStream out) {
        this.out = out;
    }

    /** The longest time between two events that the format can express. */
    private static final long LONGEST_PAUSE = 0x0FFFFFFF;

    /** Returns true if an event is an empty text that fills a delta time that would not fit otherwise. */
    static boolean isFiller(long pause, int type, byte[] data) {
        return pause == LONGEST_PAUSE && type == MidiTrack.META_TEXT && data.length == 0;
    }

    /** Counts what would be written. */
    private static final class Counter extends OutputStream {
        private int count;

        @Override
        public void write(int value) {
            count++;
        }

        @Override
        public void write(byte[] bytes, int from, int length) {
            count += length;
        }
    }

    /**
     * The bytes of a file.
     *
     * @throws UserException where a file of type 0 has not exactly one track, or any more than 65,535
     */
    public static byte[] write(MidiFile file) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(1 << 16);
        try {
            write(file, bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    /**
     * Writes a file as a stream, with no second copy in memory.
     *
     * @throws UserException if a file of type 0 has not exactly one track, or any file more than 65,535; nothing is
     *     written then
     */
    public static void write(MidiFile file, OutputStream out) throws IOException {
        checkTracks(file);
        MidiFileWriter writer = new MidiFileWriter(out);
        writer.int32(0x4D546864);
        writer.int32(6);
        writer.int16(file.type());
        writer.int16(file.tracks().size());
        writer.int16(file.division());
        for (MidiTrack track : file.tracks()) {
            // The length of a track precedes it.
            Counter length = new Counter();
            new MidiFileWriter(length).track(track);
            writer.int32(0x4D54726B);
            writer.int32(length.count);
            writer.track(track);
        }
    }

    /** @throws UserException where a file of type 0 has not exactly one track, or any more than 65,535 */
    public static void checkTracks(MidiFile file) {
        int count = file.tracks().size();
        if (file.type() == 0 && count != 1) {
            throw new UserException(say("midi-file-writer.tracks-in-a-type-0", count));
        }
        if (count > MidiFile.MAX_TRACKS) {
            throw new UserException(say("midi-file-writer.tracks-expected-at-most", count, MidiFile.MAX_TRACKS));
        }
    }

    private void track(MidiTrack track) throws IOException {
        long tick = 0;
        int running = 0;
        for (int i = 0; i < track.size(); i++) {
            running = pause(track.tick(i) - tick, running);
            tick = track.tick(i);
            if (track.isChannelMessage(i)) {
                int message = track.message(i);
                int status = ShortMessage.status(message);
                if (status != running) {
                    out.write(status);
                    running = status;
                }
                for (int b = 1; b < ShortMessage.length(status); b++) {
                    out.write(message >>> 8 * b & 0x7F);
                }
            } else {
                running = 0;
                out.write(track.status(i));
                if (track.status(i) == MidiTrack.META) {
                    out.write(track.metaType(i));
                }
                byte[] data = track.data(i);
                variable(data.length);
                out.write(data);
            }
        }
        pause(track.endTick() - tick, running);
        out.write(MidiTrack.META);
        out.write(MidiTrack.META_END);
        out.write(0);
    }

    /** The time before an event; the running status behind it. */
    private int pause(long ticks, int running) throws IOException {
        long left = ticks;
        int status = running;
        while (left > LONGEST_PAUSE) {
            variable((int) LONGEST_PAUSE);
            out.write(MidiTrack.META);
            out.write(MidiTrack.META_TEXT);
            out.write(0);
            left -= LONGEST_PAUSE;
            status = 0;
        }
        variable((int) left);
        return status;
    }

    /** A number of up to 28 bits in one to four bytes. */
    private void variable(int value) throws IOException {
        for (int shift = 21; shift > 0; shift -= 7) {
            if (value >>> shift != 0) {
                out.write(value >>> shift & 0x7F | 0x80);
            }
        }
        out.write(value & 0x7F);
    }

    private void int16(int value) throws IOException {
        out.write(value >>> 8);
        out.write(value);
    }

    private void int32(int value) throws IOException {
        int16(value >>> 16);
        int16(value);
    }
}
