package dibble.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dibble.gear.Loudness;
import dibble.gear.Strip;
import dibble.midi.ShortMessage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Levels by table: what goes in is known, and what comes out is measured. */
class MixerTest {
    private static final AudioSettings SETTINGS = new AudioSettings("", 25, 48_000, 128, 1);
    private static final double HALF = 0.5;

    private static Desk desk(Desk.Signal signal, Strip... strips) {
        Desk desk = new Desk(SETTINGS, signal);
        desk.plan(strips);
        for (int channel = 0; channel < strips.length; channel++) {
            desk.instrument.playNow(ShortMessage.noteOn(channel, 60, 100), 0);
        }
        desk.mix();
        return desk;
    }

    private static Strip level(double decibels) {
        return Strip.PLAIN.withLevel(decibels);
    }

    private static double decibels(double gain) {
        return 20 * Math.log10(gain);
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "6, 6", "-6, -6", "-3.5, -3.5", "-40, -40", "-90, -90"})
    void aStripAddsItsLevelAndNothingElse(double level, double added) {
        Desk desk = desk(frame -> (float) HALF, level(level));
        assertThat(decibels(desk.out(1).left[100] / HALF)).isCloseTo(added, within(0.001));
        assertThat(desk.out(1).right[100]).isEqualTo(desk.out(1).left[100]);
    }

    @Test
    void atZeroDecibelsInTheMiddleWhatComesOutIsWhatGoesIn() {
        Desk desk = desk(frame -> (float) HALF, level(0));
        assertThat(desk.out(1).left[0]).isEqualTo((float) HALF);
        Desk silent = desk(frame -> (float) HALF, level(Loudness.SILENCE));
        assertThat(silent.out(1).left[0]).isZero();
    }

    /** Constant power: sine and cosine, 0 dB in the middle. */
    @ParameterizedTest
    @CsvSource({
        "1, 3.0103, -200",
        "64, 0, 0",
        "127, -200, 3.0103",
        "0, 3.0103, -200",
        "32, 2.345, -5.465",
        "96, -5.465, 2.345"
    })
    void panKeepsThePower(int pan, double left, double right) {
        Desk desk = desk(frame -> (float) HALF, level(0).withPan(pan));
        double l = desk.out(1).left[50] / HALF;
        double r = desk.out(1).right[50] / HALF;
        assertThat(l * l + r * r).isCloseTo(2, within(1e-5));
        assertThat(Math.max(-200, decibels(l))).isCloseTo(left, within(0.05));
        assertThat(Math.max(-200, decibels(r))).isCloseTo(right, within(0.05));
    }

    /** By BS.1770 a sine of 997 Hz at full scale on both sides is at 0 LUFS, on one side at -3.01. */
    @ParameterizedTest
    @CsvSource({"0, 0", "-6, -6", "-20, -20", "-60, -60"})
    void metersAreTrueForASine(double level, double shown) {
        Desk desk = desk(frame -> (float) Math.sin(2 * Math.PI * 997 * frame / 48_000), level(level));
        for (int block = 0; block < 48_000 / 128; block++) {
            desk.mix();
        }
        Meter meter = desk.instrument.strip(0, -1).meter();
        assertThat(Loudness.ofGain(meter.peak())).isCloseTo(shown, within(0.1));
        assertThat(Loudness.ofGain(meter.highest())).isCloseTo(shown, within(0.1));
        assertThat(meter.loudness()).isCloseTo(shown, within(0.1));
        assertThat(desk.mixer.meter(1).loudness()).isCloseTo(shown, within(0.1));
        meter.forget();
        assertThat(meter.highest()).isZero();
    }

    @Test
    void oneSideAloneIsThreeDecibelsLessLoud() {
        Desk desk = desk(
                frame -> (float) (Math.sin(2 * Math.PI * 997 * frame / 48_000) / Math.sqrt(2)), level(0).withPan(1));
        for (int block = 0; block < 48_000 / 128; block++) {
            desk.mix();
        }
        assertThat(desk.instrument.strip(0, -1).meter().loudness()).isCloseTo(-3.01, within(0.1));
    }

    @Test
    void aFaderMovedAtFullSpeedMakesNoStep() {
        Desk desk = desk(frame -> 1f, level(Loudness.SILENCE));
        float before = 0;
        double largest = 0;
        for (int block = 0; block < 40; block++) {
            // From one end to the other each time, before it has got there.
            desk.instrument.playNow(ShortMessage.controller(0, 7, block % 2 == 0 ? 127 : 0), 0);
            desk.mix();
            for (float sample : desk.out(1).left) {
                largest = Math.max(largest, Math.abs(sample - before));
                before = sample;
            }
        }
        assertThat(largest).isGreaterThan(0).isLessThan(0.01);
        desk.plan(level(Loudness.MAX).withPan(1));
        for (int block = 0; block < 10; block++) {
            desk.mix();
            for (float sample : desk.out(1).left) {
                largest = Math.max(largest, Math.abs(sample - before));
                before = sample;
            }
        }
        assertThat(largest).isLessThan(0.01);
        assertThat(before).isCloseTo((float) (Loudness.gain(6) * Math.sqrt(2)), within(1e-4f));
    }

    /** General MIDI 2: 40 log10(v / 127); the volume of the session means its level exactly. */
    @ParameterizedTest
    @CsvSource({"127, 0", "90, -6.0", "64, -11.91", "0, -Infinity"})
    void controllersMoveStrips(int volume, double level) {
        Desk desk = desk(frame -> 1f, level(-6.0));
        desk.instrument.playNow(ShortMessage.controller(0, 7, volume), 0);
        for (int block = 0; block < 8; block++) {
            desk.mix();
        }
        assertThat(Loudness.ofGain(desk.out(1).left[127])).isCloseTo(level, within(0.01));
        assertThat(desk.instrument.strip(0, -1).level()).isCloseTo(level, within(0.01));
        desk.instrument.playNow(ShortMessage.controller(0, 10, 1), 0);
        assertThat(desk.instrument.strip(0, -1).pan()).isEqualTo(1);
    }

    @Test
    void theSessionsLevelHoldsAgainOnceItIsChanged() {
        Desk desk = desk(frame -> 1f, level(-6.0));
        desk.instrument.playNow(ShortMessage.controller(0, 7, 20), 0);
        desk.plan(level(-5.0));
        desk.mix();
        assertThat(desk.instrument.strip(0, -1).level()).isEqualTo(-5.0);
    }

    @Test
    void anOutputHasItsStripsAlone() {
        Desk desk = desk(frame -> 0.25f, level(0), level(0).withOutput(3), level(0).withOutput(3));
        assertThat(desk.out(1).left[9]).isEqualTo(0.25f);
        assertThat(desk.out(2).left[9]).isZero();
        assertThat(desk.out(3).left[9]).isEqualTo(0.5f);
        float[] six = new float[128 * 6];
        desk.mixer.interleave(3, six);
        assertThat(new float[] {six[0], six[1], six[2], six[3], six[4], six[5]})
                .containsExactly(0.25f, 0.25f, 0, 0, 0.5f, 0.5f);
        // A device with two channels has all of it there.
        float[] two = new float[128 * 2];
        desk.mixer.interleave(1, two);
        assertThat(two[0]).isEqualTo(0.75f);
    }

    @Test
    void theRoomGoesOnWhereTheSoundEnds() {
        Desk desk = desk(frame -> frame < 128 ? 0.5f : 0, level(0).withReverb(127), level(0).withChorus(127));
        double tail = 0;
        for (int block = 0; block < 200; block++) {
            desk.mix();
            tail += Math.abs(desk.out(1).left[0]);
        }
        assertThat(tail).isGreaterThan(0.001);
        Desk dry = desk(frame -> frame < 128 ? 0.5f : 0, level(0));
        dry.mix();
        assertThat(dry.out(1).left[0]).isZero();
    }

    @Test
    void aKeysStripIsApartAndMovesWithItsPart() {
        Desk desk = new Desk(SETTINGS, frame -> 1f);
        desk.instrument.follow(
                new dibble.levels.SoundPlan(
                        java.util.List.of(Desk.plan(1, -1, level(-6.0)), Desk.plan(1, 38, level(0).withOutput(2))),
                        java.util.Map.of()),
                java.util.Map.of());
        desk.instrument.playNow(ShortMessage.noteOn(0, 38, 100), 0);
        desk.mix();
        assertThat(desk.out(1).left[5]).isZero();
        assertThat(desk.out(2).left[5]).isEqualTo(1f);
        // From -6.0 dB to silence, by a controller on the channel: all of the kit.
        desk.instrument.playNow(ShortMessage.controller(0, 7, 64), 0);
        assertThat(desk.instrument.strip(0, 38).level()).isCloseTo(-11.91 + 6, within(0.01));
        desk.instrument.playNow(ShortMessage.controller(0, 7, 90), 0);
        assertThat(desk.instrument.strip(0, 38).level()).isEqualTo(0);
    }
}
