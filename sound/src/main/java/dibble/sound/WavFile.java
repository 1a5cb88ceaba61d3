package dibble.sound;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.channels.Channels;
import java.nio.file.Path;

/** A stereo WAV file that is being written: its head is filled in when it is closed. */
final class WavFile implements AutoCloseable {
    private static final int HEAD = 44;
    private static final int PCM = 1;
    private static final int FLOAT = 3;
    private static final int CHANNELS = 2;
    private static final int BUFFER = 1 << 16;

    private final RandomAccessFile file;
    private final OutputStream out;
    private final int rate;
    private final Bounce.Bits format;
    private byte[] bytes = {};
    private long frames;

    WavFile(Path path, int rate, Bounce.Bits format) throws IOException {
        file = new RandomAccessFile(path.toFile(), "rw");
        file.setLength(0);
        out = new BufferedOutputStream(Channels.newOutputStream(file.getChannel()), BUFFER);
        this.rate = rate;
        this.format = format;
        out.write(new byte[HEAD]);
    }

    /** How many bytes a file of some frames has; a WAV file has less than 4 GiB. */
    static long size(long frames, Bounce.Bits format) {
        return HEAD + frames * CHANNELS * format.bits() / 8;
    }

    /** How many frames have been written. */
    long frames() {
        return frames;
    }

    void write(float[] left, float[] right) throws IOException {
        int size = left.length * CHANNELS * format.bits() / 8;
        if (bytes.length != size) {
            bytes = new byte[size];
        }
        int at = 0;
        for (int i = 0; i < left.length; i++) {
            at = put(left[i], at);
            at = put(right[i], at);
        }
        out.write(bytes);
        frames += left.length;
    }

    private int put(float sample, int at) {
        return format == Bounce.Bits.FLOAT
                ? Samples.putFloat(sample, bytes, at)
                : Samples.put(sample, format.bits(), bytes, at);
    }

    @Override
    public void close() throws IOException {
        try {
            out.flush();
            file.seek(0);
            long data = size(frames, format) - HEAD;
            int frame = CHANNELS * format.bits() / 8;
            text("RIFF");
            whole(HEAD - 8 + data, 4);
            text("WAVE");
            text("fmt ");
            whole(16, 4);
            whole(format == Bounce.Bits.FLOAT ? FLOAT : PCM, 2);
            whole(CHANNELS, 2);
            whole(rate, 4);
            whole((long) rate * frame, 4);
            whole(frame, 2);
            whole(format.bits(), 2);
            text("data");
            whole(data, 4);
        } finally {
            file.close();
        }
    }

    private void text(String four) throws IOException {
        file.writeBytes(four);
    }

    private void whole(long number, int size) throws IOException {
        for (int i = 0; i < size; i++) {
            file.write((int) (number >> 8 * i));
        }
    }
}
