package dibble.sound;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;

/** The machine's audio device. */
final class DeviceOut implements AudioOut {
    private static final DataLine.Info LINE = new DataLine.Info(SourceDataLine.class, SynthInstrument.FORMAT);

    private final SourceDataLine line;

    private DeviceOut(SourceDataLine line) {
        this.line = line;
    }

    /** The names of all devices that can be written to. */
    static List<String> names() {
        List<String> names = new ArrayList<>();
        for (Mixer.Info info : AudioSystem.getMixerInfo()) {
            if (AudioSystem.getMixer(info).isLineSupported(LINE)) {
                names.add(info.getName());
            }
        }
        return names;
    }

    /**
     * Opens a device; empty where there is none, or where another program holds it.
     *
     * @param name of the device; the system's own choice where it is empty, or where no device has this name now
     */
    static Optional<AudioOut> open(String name, int bufferBytes) {
        try {
            SourceDataLine line = line(name);
            line.open(SynthInstrument.FORMAT, bufferBytes);
            line.start();
            return Optional.of(new DeviceOut(line));
        } catch (LineUnavailableException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static SourceDataLine line(String name) throws LineUnavailableException {
        for (Mixer.Info info : AudioSystem.getMixerInfo()) {
            Mixer mixer = AudioSystem.getMixer(info);
            if (info.getName().equals(name) && mixer.isLineSupported(LINE)) {
                return (SourceDataLine) mixer.getLine(LINE);
            }
        }
        return (SourceDataLine) AudioSystem.getLine(LINE);
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
