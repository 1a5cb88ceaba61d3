package dibble.sound;

import com.sun.media.sound.AudioSynthesizer;
import com.sun.media.sound.SoftSynthesizer;
import dibble.midi.ShortMessage;
import java.io.IOException;
import java.util.Map;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.sampled.AudioInputStream;

/**
 * One part's synthesizer with its level. Made at the first message and left out of the mix while it is quiet. Belongs
 * to the mixer's thread; only the level is read by others.
 */
final class Strip implements AutoCloseable {
    private static final int VOICES = 32;
    private static final int QUIET = 8;
    private static final float FALL = 0.93f;

    /** Blocks of silence after which a strip rests: about three seconds. */
    private static final int REST_AFTER = 1000;

    /** The synthesizer takes messages in at this rate, which is a block. */
    private static final float CONTROL_RATE = SynthInstrument.FORMAT.getSampleRate() / SynthInstrument.BLOCK_FRAMES;

    private final AudioSynthesizer synthesizer = new SoftSynthesizer();
    private final AudioInputStream stream;
    private final Receiver receiver;
    private final byte[] block = new byte[SynthInstrument.BLOCK_BYTES];
    private final javax.sound.midi.ShortMessage message = new javax.sound.midi.ShortMessage();
    private int quietBlocks = REST_AFTER;
    private volatile float level;

    Strip() throws MidiUnavailableException {
        stream = synthesizer.openStream(
                SynthInstrument.FORMAT,
                Map.of(
                        "max polyphony", VOICES,
                        "control rate", CONTROL_RATE,
                        "auto gain control", false,
                        "reverb", false,
                        "chorus", false));
        receiver = synthesizer.getReceiver();
    }

    void play(int packed) {
        try {
            message.setMessage(
                    ShortMessage.kind(packed),
                    ShortMessage.channel(packed),
                    ShortMessage.data1(packed),
                    ShortMessage.data2(packed));
        } catch (InvalidMidiDataException e) {
            throw new IllegalArgumentException("message " + Integer.toHexString(packed), e);
        }
        receiver.send(message, -1);
        if (ShortMessage.startsNote(packed)) {
            quietBlocks = 0;
        }
    }

    /** Adds the next block to the mix. */
    void mixInto(int[] mix) throws IOException {
        if (quietBlocks >= REST_AFTER) {
            level = 0;
            return;
        }
        int read = stream.readNBytes(block, 0, block.length);
        int peak = 0;
        for (int i = 0; i + 1 < read; i += 2) {
            int sample = block[i] & 0xFF | block[i + 1] << 8;
            mix[i / 2] += sample;
            peak = Math.max(peak, Math.abs(sample));
        }
        quietBlocks = peak <= QUIET ? quietBlocks + 1 : 0;
        level = Math.max(peak / 32768f, level * FALL);
    }

    float level() {
        return level;
    }

    @Override
    public void close() {
        synthesizer.close();
    }
}
