package dibble.sound;

import java.util.Optional;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.SourceDataLine;

/** The machine's audio device. */
final class DeviceOut implements AudioOut {
    private final SourceDataLine line;

    private DeviceOut(SourceDataLine line) {
        this.line = line;
    }

    /** Opens the device; empty where there is none, or where another program holds it. */
    static Optional<AudioOut> open(int bufferBytes) {
        DataLine.Info info = new DataLine.Info(SourceDataLine.class, SynthInstrument.FORMAT);
        if (!AudioSystem.isLineSupported(info)) {
            return Optional.empty();
        }
        try {
            SourceDataLine line = (SourceDataLine) AudioSystem.getLine(info);
            line.open(SynthInstrument.FORMAT, bufferBytes);
            line.start();
            return Optional.of(new DeviceOut(line));
        } catch (LineUnavailableException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    @Override
    public boolean write(byte[] block) {
        return line.isOpen() && line.write(block, 0, block.length) == block.length;
    }

    @Override
    public void close() {
        line.close();
    }
}
