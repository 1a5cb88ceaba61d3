package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import com.sun.media.sound.DLSInstrument;
import com.sun.media.sound.DLSModulator;
import com.sun.media.sound.DLSRegion;
import com.sun.media.sound.DLSSample;
import com.sun.media.sound.DLSSampleLoop;
import com.sun.media.sound.DLSSampleOptions;
import com.sun.media.sound.DLSSoundbank;
import com.sun.media.sound.ModelPatch;
import dibble.midi.ShortMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import javax.sound.sampled.AudioFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SafeSoundsTest {
    private static final Duration PATIENCE = Duration.ofMinutes(3);

    /** A DLS file with one sound of 400 frames, looped. */
    private static byte[] dls(long loopStart, long loopLength, float rate, DLSModulator... more) throws IOException {
        DLSSoundbank bank = new DLSSoundbank();
        byte[] wave = new byte[2 * 400];
        new Random(5).nextBytes(wave);
        DLSSample sample = new DLSSample(bank);
        sample.setName("Glass wave");
        sample.setData(wave);
        sample.setFormat(new AudioFormat(rate, 16, 1, true, false));
        DLSSampleLoop loop = new DLSSampleLoop();
        loop.setStart(loopStart);
        loop.setLength(loopLength);
        DLSSampleOptions options = new DLSSampleOptions();
        options.setUnitynote(60);
        options.getLoops().add(loop);
        sample.setSampleoptions(options);
        DLSRegion region = new DLSRegion();
        region.setKeyto(127);
        region.setVelto(127);
        region.setSample(sample);
        region.setSampleoptions(options);
        DLSInstrument instrument = new DLSInstrument(bank);
        instrument.setName("Glass");
        instrument.setPatch(new ModelPatch(0, 0, false));
        instrument.getRegions().add(region);
        instrument.getModulators().addAll(List.of(more));
        bank.addResource(sample);
        bank.addInstrument(instrument);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        bank.save(out);
        return out.toByteArray();
    }

    private static double peak(byte[] file) {
        return assertTimeoutPreemptively(
                PATIENCE,
                () -> SoundBankTest.peak(
                        SoundBank.of(file), 20, ShortMessage.noteOn(0, 60, 100), ShortMessage.noteOn(0, 127, 100)));
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0",
        "100, 0",
        "0, 1",
        "0, 3",
        "399, 1",
        "400, 0",
        "0, 4294967295",
        "4294967295, 0",
        "4294967295, 4294967295",
        "2147483648, 2147483648",
        "0, 401",
        "397, 4"
    })
    void loopsThatNeverEndAreNotLooped(long start, long length) throws IOException {
        peak(dls(start, length, 22_050));
    }

    @Test
    void possibleLoopsGoOn() throws Exception {
        AudioSettings settings = AudioSettings.offline(44_100);
        float[] left = new float[settings.block()];
        float[] right = new float[settings.block()];
        try (JdkSynth synth = new JdkSynth(settings, SoundBank.of(dls(50, 300, 22_050)))) {
            synth.play(ShortMessage.noteOn(0, 60, 100), 0);
            // Longer than the sample, which is over after 800 frames.
            for (int i = 0; i < 20; i++) {
                synth.render(left, right);
            }
        }
        assertThat(left[0] * left[0] + left[50] * left[50]).isGreaterThan(1e-6f);
    }

    @ParameterizedTest
    @CsvSource({"0", "1", "-1", "4000000000"})
    void ratesThatNoSoundHasAreSilent(float rate) throws IOException {
        assertThat(peak(dls(0, 0, rate))).isZero();
    }

    @ParameterizedTest
    @CsvSource({"2147483647", "-2147483648", "1000000000"})
    void pitchesBeyondAllKeysReturn(int scale) throws IOException {
        DLSModulator pitch = new DLSModulator();
        pitch.setDestination(DLSModulator.CONN_DST_PITCH);
        pitch.setSource(DLSModulator.CONN_SRC_NONE);
        pitch.setScale(scale);
        peak(dls(0, 4, 22_050, pitch));
    }
}
