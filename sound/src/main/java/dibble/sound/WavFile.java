package dibble.sound;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** A stereo WAV file that is being written: its head is filled in when it is closed. */
final class WavFile implements AutoCloseable {
    private static final int HEAD = 44;
    private static final int PCM = 1;
    private static final int FLOAT = 3;
    private static final int CHANNELS = 2;
    private static final int BUFFER = 1 << 16;

    private final FileChannel file;
    private final OutputStream out;
    private final int rate;
    private final Bounce.Bits format;
    private byte[] bytes = {};
    private long frames;

    WavFile(Path path, int rate, Bounce.Bits format) throws IOException {
        file = FileChannel.open(
                path, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.WRITE);
        out = new BufferedOutputStream(Channels.newOutputStream(file), BUFFER);
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

    /** Fills in the head, and has all of it on the disk. */
    @Override
    public void close() throws IOException {
        try (file) {
            out.flush();
            ByteBuffer head = head();
            while (head.hasRemaining()) {
                file.write(head, head.position());
            }
            file.force(true);
        }
    }

    private ByteBuffer head() {
        long data = size(frames, format) - HEAD;
        int frame = CHANNELS * format.bits() / 8;
        return ByteBuffer.allocate(HEAD)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put(ascii("RIFF"))
                .putInt((int) (HEAD - 8 + data))
                .put(ascii("WAVE"))
                .put(ascii("fmt "))
                .putInt(16)
                .putShort((short) (format == Bounce.Bits.FLOAT ? FLOAT : PCM))
                .putShort((short) CHANNELS)
                .putInt(rate)
                .putInt(rate * frame)
                .putShort((short) frame)
                .putShort((short) format.bits())
                .put(ascii("data"))
                .putInt((int) data)
                .flip();
    }

    private static byte[] ascii(String four) {
        return four.getBytes(StandardCharsets.US_ASCII);
    }
}
