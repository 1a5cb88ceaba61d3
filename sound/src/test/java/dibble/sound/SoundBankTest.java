package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.media.sound.ModelPatch;
import com.sun.media.sound.SF2Instrument;
import com.sun.media.sound.SF2InstrumentRegion;
import com.sun.media.sound.SF2Layer;
import com.sun.media.sound.SF2LayerRegion;
import com.sun.media.sound.SF2Region;
import com.sun.media.sound.SF2Sample;
import com.sun.media.sound.SF2Soundbank;
import dibble.midi.ShortMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SoundBankTest {
    private static final AudioSettings SETTINGS = AudioSettings.offline(44_100);
    private static final int MUTATIONS = Integer.getInteger("dibble.damage", 150);

    @TempDir
    Path folder;

    /** A small SoundFont: a looped sound in bank 3 and a kit of two drums. */
    static byte[] small() throws IOException {
        SF2Soundbank bank = new SF2Soundbank();
        bank.setName("Glass");
        byte[] wave = new byte[2 * 400];
        for (int i = 0; i < 400; i++) {
            int value = (int) (20_000 * Math.sin(2 * Math.PI * i / 50));
            wave[2 * i] = (byte) value;
            wave[2 * i + 1] = (byte) (value >> 8);
        }
        SF2Layer looped = layer(bank, "Glass", sample(bank, "Glass wave", wave), new byte[] {0, 127}, 1);
        instrument(bank, "Glass song", new ModelPatch(3 << 7, 5, false), looped);
        SF2Layer kit = layer(bank, "Kit", sample(bank, "Low glass", wave), new byte[] {40, 40}, 0);
        kit.getRegions()
                .addAll(layer(bank, "More", sample(bank, "High glass", wave), new byte[] {41, 41}, 0)
                        .getRegions());
        instrument(bank, "Glass kit", new ModelPatch(0, 0, true), kit);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        bank.save(out);
        return out.toByteArray();
    }

    private static SF2Sample sample(SF2Soundbank bank, String name, byte[] wave) {
        SF2Sample sample = new SF2Sample(bank);
        sample.setName(name);
        sample.setData(wave);
        sample.setSampleRate(22_050);
        sample.setOriginalPitch(60);
        sample.setStartLoop(50);
        sample.setEndLoop(350);
        bank.addResource(sample);
        return sample;
    }

    private static SF2Layer layer(SF2Soundbank bank, String name, SF2Sample sample, byte[] keys, int modes) {
        SF2Layer layer = new SF2Layer(bank);
        layer.setName(name);
        SF2LayerRegion region = new SF2LayerRegion();
        region.putBytes(SF2Region.GENERATOR_KEYRANGE, keys);
        region.putShort(SF2Region.GENERATOR_SAMPLEMODES, (short) modes);
        region.setSample(sample);
        layer.getRegions().add(region);
        bank.addResource(layer);
        return layer;
    }

    private static void instrument(SF2Soundbank bank, String name, ModelPatch patch, SF2Layer layer) {
        SF2Instrument instrument = new SF2Instrument(bank);
        instrument.setName(name);
        instrument.setPatch(patch);
        SF2InstrumentRegion region = new SF2InstrumentRegion();
        region.setLayer(layer);
        instrument.getRegions().add(region);
        bank.addInstrument(instrument);
    }

    static double peak(SoundBank bank, int blocks, int... messages) throws Exception {
        float[] left = new float[SETTINGS.block()];
        float[] right = new float[SETTINGS.block()];
        double peak = 0;
        try (JdkSynth synth = new JdkSynth(SETTINGS, bank)) {
            for (int message : messages) {
                synth.setDrums(ShortMessage.channel(message) == 9);
                synth.play(message, 0);
            }
            for (int i = 0; i < blocks; i++) {
                synth.render(left, right);
                for (float sample : left) {
                    peak = Math.max(peak, Math.abs(sample));
                }
            }
        }
        return peak;
    }

    @Test
    void aFilesSoundsAreListedByBankAndProgramWithTheNamesOfDrums() throws Exception {
        Path file = folder.resolve("glass.sf2");
        Files.write(file, small());
        SoundBank bank = SoundBank.open(file);
        assertThat(bank.presets())
                .containsExactly(
                        new Preset("Glass song", List.of(3, 0), 5, false, Map.of()),
                        new Preset("Glass kit", List.of(0, 0), 0, true, Map.of(40, "Low glass", 41, "High glass")));
        assertThat(bank.sha256()).matches("[0-9a-f]{64}");
        assertThat(peak(
                        bank,
                        40,
                        ShortMessage.controller(0, 0, 3),
                        ShortMessage.programChange(0, 5),
                        ShortMessage.noteOn(0, 60, 100)))
                .isGreaterThan(0.01);
        assertThat(peak(bank, 5, ShortMessage.noteOn(9, 40, 100))).isGreaterThan(0.01);
    }

    @Test
    void theSoundsThatComeWithDibbleAreAllThereAndSound() throws Exception {
        SoundBank own = SoundBank.own();
        assertThat(own.presets().stream().filter(preset -> !preset.drums())).hasSizeGreaterThanOrEqualTo(16);
        assertThat(own.presets().stream().filter(Preset::drums).map(Preset::name))
                .containsExactly("Standard kit", "Hand drums");
        for (Preset preset : own.presets()) {
            int channel = preset.drums() ? 9 : 0;
            int key = preset.drums() ? 45 : 55;
            assertThat(peak(
                            null,
                            200,
                            ShortMessage.programChange(channel, preset.program()),
                            ShortMessage.noteOn(channel, key, 100)))
                    .as(preset.name())
                    .isBetween(0.02, 1.0);
        }
        assertThat(SoundBank.usual()).hasSize(130);
        assertThat(SoundBank.usual().get(108).name()).isEqualTo("Kalimba");
    }

    /** Where a loop begins anew, the next samples are those behind its end. */
    @Test
    void loopsOfDibblesOwnSoundsHaveNoSeam() throws IOException {
        SF2Soundbank own;
        try (java.io.InputStream in = SoundBank.class.getResourceAsStream("dibble.sf2")) {
            own = new SF2Soundbank(in);
        }
        int loops = 0;
        for (SF2Layer layer : own.getLayers()) {
            for (SF2LayerRegion region : layer.getRegions()) {
                if (region.getShort(SF2Region.GENERATOR_SAMPLEMODES) == 0) {
                    continue;
                }
                SF2Sample sample = region.getSample();
                byte[] data = sample.getDataBuffer().array();
                int base = (int) sample.getDataBuffer().arrayOffset();
                loops++;
                for (int i = 0; i < 4; i++) {
                    int again = value(data, base, (int) sample.getStartLoop() + i);
                    assertThat(value(data, base, (int) sample.getEndLoop() + i))
                            .as(sample.getName())
                            .isBetween(again - 40, again + 40);
                }
            }
        }
        assertThat(loops).isGreaterThan(15);
    }

    private static int value(byte[] data, int base, int frame) {
        return (short) (data[base + 2 * frame] & 0xFF | data[base + 2 * frame + 1] << 8);
    }

    @Test
    void whatIsNoFileOfSoundsIsRefusedInOneLine() {
        assertThatThrownBy(() -> SoundBank.of(new byte[0])).hasMessageContaining("expected SoundFont 2 or DLS");
        assertThatThrownBy(() -> SoundBank.of("RIFF\4\0\0\0WAVE".getBytes())).hasMessageContaining("without sounds");
        assertThatThrownBy(() -> SoundBank.of("RIFF\377\377\377\177sfbk".getBytes()))
                .hasMessageContaining("longer than what it lies in");
        Path large = folder.resolve("large.sf2");
        assertThatThrownBy(() -> {
                    try (RandomAccessFile file = new RandomAccessFile(large.toFile(), "rw")) {
                        file.setLength((SoundBank.MAX_MEGABYTES + 1L) << 20);
                    }
                    SoundBank.open(large);
                })
                .hasMessageContaining("257 MB (expected 256 MB at most)");
    }

    /** Every file either opens and sounds, or is refused in one line; chunks that lie reserve no memory. */
    @Test
    void damagedFilesNeitherCrashNorHang() throws Exception {
        byte[] whole = small();
        Random random = new Random(18);
        int opened = 0;
        int refused = 0;
        for (int n = 0; n < MUTATIONS; n++) {
            byte[] bytes = whole.clone();
            for (int times = 1 + random.nextInt(4); times > 0; times--) {
                int at = random.nextInt(bytes.length);
                switch (random.nextInt(4)) {
                    case 0 -> bytes[at] = (byte) random.nextInt(256);
                    case 1 -> bytes[at] ^= (byte) (1 << random.nextInt(8));
                    case 2 -> bytes[at] = (byte) (random.nextBoolean() ? 0xFF : 0x7F);
                    // Behind the samples lie the lists.
                    default -> bytes[bytes.length - 1 - random.nextInt(700)] = (byte) random.nextInt(256);
                }
            }
            if (random.nextInt(10) == 0) {
                bytes = java.util.Arrays.copyOf(bytes, random.nextInt(bytes.length));
            }
            try {
                SoundBank bank = SoundBank.of(bytes);
                opened++;
                if (n % 10 == 0) {
                    for (Preset preset : bank.presets()) {
                        int channel = preset.drums() ? 9 : 0;
                        peak(
                                bank,
                                3,
                                ShortMessage.controller(
                                        channel, 0, preset.bank().get(0)),
                                ShortMessage.programChange(channel, preset.program()),
                                ShortMessage.noteOn(channel, 40, 100));
                    }
                }
            } catch (SoundBankException e) {
                refused++;
                assertThat(e.getMessage()).doesNotContain("\n").isNotBlank();
            }
        }
        assertThat(opened).isGreaterThan(MUTATIONS / 10);
        assertThat(refused).isGreaterThan(MUTATIONS / 10);
    }
}
