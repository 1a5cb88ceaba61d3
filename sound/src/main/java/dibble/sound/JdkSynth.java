package dibble.sound;

import com.sun.media.sound.AudioSynthesizer;
import com.sun.media.sound.SoftSynthesizer;
import dibble.midi.ShortMessage;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.util.Map;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The synthesizer of one part. Its own volume, pan and effects are neutral: those are the strip's. It is left out of
 * the mix while it is silent. Confined to one thread.
 */
final class JdkSynth implements PartSynth {
    private static final Logger LOG = LoggerFactory.getLogger(JdkSynth.class);
    private static final int VOICES = 32;
    private static final int DRUMS = 9;
    private static final float QUIET = 3e-5f;
    private static final double REST_AFTER_SECONDS = 3;

    private final AudioSynthesizer synthesizer = new SoftSynthesizer();
    private final AudioInputStream stream;
    private final Receiver receiver;
    private final byte[] block;
    private final FloatBuffer samples;
    private final javax.sound.midi.ShortMessage message = new javax.sound.midi.ShortMessage();
    private final int restAfter;
    private final AudioSettings settings;
    private int channel;
    private int quietBlocks;
    private boolean broken;
    private long blocks;
    private volatile boolean abandoned;

    /** @param bank sounds that come before those of Dibble and of the JDK; null for none */
    JdkSynth(AudioSettings settings, SoundBank bank) throws MidiUnavailableException {
        this.settings = settings;
        AudioFormat format =
                new AudioFormat(AudioFormat.Encoding.PCM_FLOAT, settings.rate(), 32, 2, 8, settings.rate(), false);
        stream = synthesizer.openStream(
                format,
                Map.of(
                        "max polyphony", VOICES,
                        "control rate", (float) settings.rate() / settings.block(),
                        "auto gain control", false,
                        "reverb", false,
                        "chorus", false));
        SoundBank.own().loadInto(synthesizer);
        if (bank != null) {
            try {
                bank.loadInto(synthesizer);
            } catch (RuntimeException e) {
                LOG.warn("sounds of a file cannot be used: {}", e.toString(), e);
            }
        }
        receiver = synthesizer.getReceiver();
        block = new byte[settings.block() * format.getFrameSize()];
        samples = ByteBuffer.wrap(block).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer();
        restAfter = (int) (REST_AFTER_SECONDS * settings.rate() / settings.block());
        quietBlocks = restAfter;
        for (int on : new int[] {0, DRUMS}) {
            channel = on;
            play(ShortMessage.controller(0, 7, 127), 0);
            play(ShortMessage.controller(0, 10, 64), 0);
            play(ShortMessage.controller(0, 91, 0), 0);
            play(ShortMessage.controller(0, 93, 0), 0);
        }
        channel = 0;
        // The first block is rendered late: so no note is later than another.
        render(new float[settings.block()], new float[settings.block()]);
        quietBlocks = restAfter;
    }

    @Override
    public void setDrums(boolean drums) {
        channel = drums ? DRUMS : 0;
    }

    @Override
    public void play(int packed, int frame) {
        try {
            message.setMessage(
                    ShortMessage.kind(packed), channel, ShortMessage.data1(packed), ShortMessage.data2(packed));
        } catch (InvalidMidiDataException e) {
            throw new IllegalArgumentException("message " + Integer.toHexString(packed), e);
        }
        if (broken || abandoned) {
            return;
        }
        try {
            receiver.send(message, micros(frame));
        } catch (RuntimeException e) {
            fail(e);
            return;
        }
        // A pedal or a swell may raise an inaudible note.
        quietBlocks = 0;
    }

    /**
     * Returns the time of a frame of the next block on the synthesizer's clock, which counts rendered frames, in
     * microseconds.
     */
    private long micros(int frame) {
        double frameMicros = 1e6 / settings.rate();
        return (long) (blocks * settings.block() * frameMicros) + Math.round(frame * frameMicros);
    }

    /** Damage in a sound file can appear only while playing: this part becomes silent, the others continue. */
    private void fail(Exception e) {
        LOG.warn("a sound cannot be played: {}", e.toString(), e);
        broken = true;
        quietBlocks = restAfter;
    }

    @Override
    public boolean isSounding() {
        return quietBlocks < restAfter;
    }

    @Override
    public boolean render(float[] left, float[] right) {
        if (!isSounding() || abandoned) {
            return false;
        }
        try {
            stream.readNBytes(block, 0, block.length);
            blocks++;
        } catch (IOException | RuntimeException e) {
            fail(e);
            return false;
        }
        if (abandoned) {
            throw new IllegalStateException("a block came after its synthesizer had been given up");
        }
        float peak = 0;
        for (int i = 0; i < left.length; i++) {
            left[i] = samples.get(2 * i);
            right[i] = samples.get(2 * i + 1);
            peak = Math.max(peak, Math.max(Math.abs(left[i]), Math.abs(right[i])));
        }
        quietBlocks = peak <= QUIET ? quietBlocks + 1 : 0;
        return true;
    }

    @Override
    public void abandon() {
        abandoned = true;
    }

    @Override
    public void close() {
        // One that does not return holds what closing it waits for.
        if (!abandoned) {
            synthesizer.close();
        }
    }
}
