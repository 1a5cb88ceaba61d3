package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;

import dibble.midi.ShortMessage;
import java.util.Arrays;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A note starts at the frame of its time, whatever the rate and the block. */
class SampleAccuracyTest {
    private static final int LEAD = 2;
    private static final int BLOCKS = 8;

    private static float[] played(AudioSettings settings, int frame) throws Exception {
        float[] left = new float[settings.block()];
        float[] right = new float[settings.block()];
        float[] all = new float[BLOCKS * settings.block()];
        try (JdkSynth synth = new JdkSynth(settings, null)) {
            synth.setDrums(true);
            // A synthesizer that has played already, so that its own time is not 0.
            synth.play(ShortMessage.controller(9, 1, 0), 0);
            for (int i = 0; i < LEAD; i++) {
                synth.render(left, right);
            }
            synth.play(ShortMessage.noteOn(9, 38, 120), frame);
            for (int i = 0; i < BLOCKS; i++) {
                synth.render(left, right);
                System.arraycopy(left, 0, all, i * left.length, left.length);
            }
        }
        return all;
    }

    @ParameterizedTest
    @CsvSource({
        "8000, 128",
        "22050, 64",
        "44100, 64",
        "44100, 128",
        "44100, 512",
        "48000, 256",
        "96000, 128",
        "192000, 512"
    })
    void laterNotesAreTheSameSamplesLater(int rate, int block) throws Exception {
        AudioSettings settings = new AudioSettings("", 0, rate, block, 1);
        float[] first = played(settings, 0);
        for (int frame : new int[] {1, 2, block / 3, block / 2 + 1, block - 1}) {
            float[] later = played(settings, frame);
            assertThat(Arrays.copyOfRange(later, frame, later.length))
                    .as("frame %d", frame)
                    .isEqualTo(Arrays.copyOf(first, first.length - frame));
            assertThat(Arrays.copyOf(later, frame)).containsOnly(0);
        }
    }
}
