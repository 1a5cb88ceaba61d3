package dibble.sound;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;

/** The machine's audio device. */
final class DeviceOut implements AudioOut {
    private static final int BITS = 16;

    private final SourceDataLine line;
    private final int pairs;
    private byte[] bytes = {};
    private int dropouts;
    private boolean started;

    private DeviceOut(SourceDataLine line, int pairs) {
        this.line = line;
        this.pairs = pairs;
    }

    private static AudioFormat format(int rate, int pairs) {
        return new AudioFormat(rate, BITS, pairs * 2, true, false);
    }

    private static DataLine.Info info(AudioFormat format) {
        return new DataLine.Info(SourceDataLine.class, format);
    }

    /** The names of all devices that can be written to. */
    static List<String> names() {
        List<String> names = new ArrayList<>();
        for (Mixer.Info info : AudioSystem.getMixerInfo()) {
            if (AudioSystem.getMixer(info).isLineSupported(info(format(AudioSettings.USUAL.rate(), 1)))) {
                names.add(info.getName());
            }
        }
        return names;
    }

    /**
     * Opens a device with as many of the pairs that are asked for as it has; empty where there is none, or where another
     * program holds it. Where no device has the name now, it is the system's own choice.
     */
    static Optional<AudioOut> open(AudioSettings settings) {
        for (int pairs = settings.pairs(); pairs >= 1; pairs--) {
            try {
                AudioFormat format = format(settings.rate(), pairs);
                SourceDataLine line = line(settings.device(), info(format));
                line.open(format, settings.bufferFrames() * format.getFrameSize());
                line.start();
                return Optional.of(new DeviceOut(line, pairs));
            } catch (LineUnavailableException | IllegalArgumentException e) {
                // Fewer channels may do.
            }
        }
        return Optional.empty();
    }

    private static SourceDataLine line(String name, DataLine.Info wanted) throws LineUnavailableException {
        for (Mixer.Info info : AudioSystem.getMixerInfo()) {
            Mixer mixer = AudioSystem.getMixer(info);
            if (info.getName().equals(name) && mixer.isLineSupported(wanted)) {
                return (SourceDataLine) mixer.getLine(wanted);
            }
        }
        return (SourceDataLine) AudioSystem.getLine(wanted);
    }

    @Override
    public int pairs() {
        return pairs;
    }

    @Override
    public boolean write(float[] frames) {
        if (bytes.length != frames.length * 2) {
            bytes = new byte[frames.length * 2];
        }
        int at = 0;
        for (float sample : frames) {
            at = Samples.put(sample, BITS, bytes, at);
        }
        // Nothing waits any more: the device has run dry since the last block.
        if (started && line.available() >= line.getBufferSize()) {
            dropouts++;
        }
        started = true;
        return line.isOpen() && line.write(bytes, 0, bytes.length) == bytes.length;
    }

    @Override
    public int dropouts() {
        return dropouts;
    }

    @Override
    public void close() {
        line.close();
    }
}
