package dibble.sound;

import com.sun.media.sound.SoftSynthesizer;
import dibble.midi.ShortMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Receiver;
import javax.sound.midi.Soundbank;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import org.junit.jupiter.api.Test;

/**
 * Compares the sounds that come with Dibble with those of the JDK: for a note of two seconds its peak and its level in dB,
 * where its spectrum has its middle, how much of it is not harmonic, and the largest step between two samples while it
 * holds, beside the largest that a sine of its level and of its middle makes. Run by {@code ./dibble bench sounds}.
 */
class SoundsMeasurement {
    private static final int RATE = 44_100;
    private static final int SIZE = 1 << 15;

    private static float[] played(Soundbank bank, int channel, int program, int key, double seconds) throws Exception {
        SoftSynthesizer synth = new SoftSynthesizer();
        AudioFormat format = new AudioFormat(AudioFormat.Encoding.PCM_FLOAT, RATE, 32, 2, 8, RATE, false);
        try (AudioInputStream in = synth.openStream(
                format,
                Map.of(
                        "auto gain control",
                        false,
                        "reverb",
                        false,
                        "chorus",
                        false,
                        "load default soundbank",
                        false))) {
            synth.loadAllInstruments(bank);
            Receiver to = synth.getReceiver();
            to.send(new javax.sound.midi.ShortMessage(ShortMessage.CONTROLLER, channel, 7, 127), -1);
            to.send(new javax.sound.midi.ShortMessage(ShortMessage.PROGRAM_CHANGE, channel, program, 0), -1);
            to.send(new javax.sound.midi.ShortMessage(ShortMessage.NOTE_ON, channel, key, 100), -1);
            ByteBuffer bytes =
                    ByteBuffer.wrap(in.readNBytes((int) (seconds * RATE) * 8)).order(ByteOrder.LITTLE_ENDIAN);
            float[] left = new float[bytes.capacity() / 8];
            for (int i = 0; i < left.length; i++) {
                left[i] = bytes.getFloat(i * 8);
            }
            return left;
        } finally {
            synth.close();
        }
    }

    private static String row(float[] samples) {
        double peak = 0;
        double square = 0;
        for (float sample : samples) {
            peak = Math.max(peak, Math.abs(sample));
            square += sample * sample;
        }
        double step = 0;
        for (int i = RATE / 2; i < samples.length - RATE / 4; i++) {
            step = Math.max(step, Math.abs(samples[i] - 2 * samples[i - 1] + samples[i - 2]));
        }
        double[] power = spectrum(samples);
        double all = 0;
        double weighted = 0;
        for (int i = 1; i < power.length; i++) {
            all += power[i];
            weighted += power[i] * i * RATE / SIZE;
        }
        return String.format(
                "%6.1f %6.1f %7.0f %9.5f",
                20 * Math.log10(peak), 10 * Math.log10(square / samples.length), weighted / all, step);
    }

    private static double[] spectrum(float[] samples) {
        double[] re = new double[SIZE];
        double[] im = new double[SIZE];
        for (int i = 0; i < SIZE && i < samples.length; i++) {
            re[i] = samples[i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * i / SIZE));
        }
        transform(re, im);
        double[] power = new double[SIZE / 2];
        for (int i = 0; i < power.length; i++) {
            power[i] = re[i] * re[i] + im[i] * im[i];
        }
        return power;
    }

    private static void transform(double[] re, double[] im) {
        for (int i = 1, j = 0; i < SIZE; i++) {
            int bit = SIZE >> 1;
            for (; (j & bit) != 0; bit >>= 1) {
                j ^= bit;
            }
            j ^= bit;
            if (i < j) {
                double swap = re[i];
                re[i] = re[j];
                re[j] = swap;
            }
        }
        for (int length = 2; length <= SIZE; length <<= 1) {
            for (int from = 0; from < SIZE; from += length) {
                for (int k = 0; k < length / 2; k++) {
                    double turn = -2 * Math.PI * k / length;
                    int a = from + k;
                    int b = a + length / 2;
                    double x = re[b] * Math.cos(turn) - im[b] * Math.sin(turn);
                    double y = re[b] * Math.sin(turn) + im[b] * Math.cos(turn);
                    re[b] = re[a] - x;
                    im[b] = im[a] - y;
                    re[a] += x;
                    im[a] += y;
                }
            }
        }
    }

    private static Soundbank own() throws IOException {
        try (InputStream in = SoundBank.class.getResourceAsStream("dibble.sf2")) {
            return new com.sun.media.sound.SF2Soundbank(in);
        }
    }

    @Test
    void compare() throws Exception {
        Soundbank own = own();
        Soundbank jdk = MidiSystem.getSynthesizer().getDefaultSoundbank();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        PrintStream out = new PrintStream(bytes, true, StandardCharsets.UTF_8);
        out.println(
                "sound              key |   peak  level  middle      bend |   peak  level  middle      bend (the JDK's)");
        for (Preset preset : SoundBank.own().presets()) {
            int[] keys = preset.drums()
                    ? preset.keyNames().keySet().stream()
                            .sorted()
                            .mapToInt(Integer::intValue)
                            .toArray()
                    : new int[] {preset.program() == 32 ? 33 : preset.program() == 70 ? 43 : 62};
            for (int key : keys) {
                int channel = preset.drums() ? 9 : 0;
                out.printf(
                        "%-18s %3d | %s | %s%n",
                        preset.drums() ? preset.keyNames().get(key) : preset.name(),
                        key,
                        row(played(own, channel, preset.program(), key, 2)),
                        row(played(jdk, channel, preset.drums() ? 0 : preset.program(), key, 2)));
            }
        }
        System.out.print(bytes.toString(StandardCharsets.UTF_8));
    }
}
