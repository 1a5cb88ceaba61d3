package dibble.midi;

import java.io.ByteArrayOutputStream;

/** Writes standard MIDI files of types 0 and 1, with running status; a type 2 file is written as it was read. */
public final class MidiFileWriter {
    private final ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 16);

    private MidiFileWriter() {}

    /**
     * The bytes of a file.
     *
     * @throws IllegalArgumentException where a file of type 0 has not exactly one track
     */
    public static byte[] write(MidiFile file) {
        if (file.type() == 0 && file.tracks().size() != 1) {
            throw new IllegalArgumentException(file.tracks().size() + " tracks in a type 0 file (expected 1)");
        }
        MidiFileWriter writer = new MidiFileWriter();
        writer.file(file);
        return writer.out.toByteArray();
    }

    private void file(MidiFile file) {
        int32(0x4D546864);
        int32(6);
        int16(file.type());
        int16(file.tracks().size());
        int16(file.division());
        for (MidiTrack track : file.tracks()) {
            MidiFileWriter body = new MidiFileWriter();
            body.track(track);
            int32(0x4D54726B);
            int32(body.out.size());
            out.writeBytes(body.out.toByteArray());
        }
    }

    private void track(MidiTrack track) {
        long tick = 0;
        int running = 0;
        for (int i = 0; i < track.size(); i++) {
            variable(track.tick(i) - tick);
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
                out.writeBytes(data);
            }
        }
        variable(track.endTick() - tick);
        out.write(MidiTrack.META);
        out.write(MidiTrack.META_END);
        out.write(0);
    }

    /** A length of one to four bytes; what is longer than 28 bits is held to the longest the format knows. */
    private void variable(long value) {
        int held = (int) Math.min(value, 0x0FFFFFFF);
        for (int shift = 21; shift > 0; shift -= 7) {
            if (held >>> shift != 0) {
                out.write(held >>> shift & 0x7F | 0x80);
            }
        }
        out.write(held & 0x7F);
    }

    private void int16(int value) {
        out.write(value >>> 8);
        out.write(value);
    }

    private void int32(int value) {
        int16(value >>> 16);
        int16(value);
    }
}
