import com.sun.media.sound.ModelPatch;
import com.sun.media.sound.SF2Instrument;
import com.sun.media.sound.SF2InstrumentRegion;
import com.sun.media.sound.SF2Layer;
import com.sun.media.sound.SF2LayerRegion;
import com.sun.media.sound.SF2Region;
import com.sun.media.sound.SF2Sample;
import com.sun.media.sound.SF2Soundbank;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * Makes the sounds that come with Dibble, by computation alone: plucked strings, struck bars, looped harmonics, frequency
 * modulation, and noise. {@code java --add-exports java.desktop/com.sun.media.sound=ALL-UNNAMED tools/MakeSounds.java}
 * writes them; the same program always makes the same bytes.
 */
class MakeSounds {
    private static final Path TO = Path.of("sound/src/main/resources/dibble/sound/dibble.sf2");
    private static final double TAU = 2 * Math.PI;
    private static final double LOUDEST = 0.85;

    private static final SF2Soundbank BANK = new SF2Soundbank();

    public static void main(String[] args) throws IOException {
        BANK.setName("Dibble sounds");
        BANK.setCreationDate("2026");
        BANK.setProduct("Dibble");
        BANK.setVendor("Dibble");
        BANK.setTargetEngine("EMU8000");
        BANK.setTools("MakeSounds");
        BANK.setDescription("Made by computation; free to use.");
        BANK.setRomName("");
        keyboards();
        bars();
        strings();
        winds();
        handDrums();
        standardKit();
        Files.createDirectories(TO.getParent());
        BANK.save(TO.toFile());
        System.out.println(TO + ": " + Files.size(TO) / 1024 + " KiB");
    }

    // What samples are made of.

    /** A sound that was made: its samples, at a rate, and where it loops (-1 where it does not). */
    record Wave(double[] samples, double rate, int loopFrom, int loopTo) {
        static Wave once(double[] samples, double rate) {
            return new Wave(samples, rate, -1, -1);
        }
    }

    private static double hertz(int note) {
        return 440 * Math.pow(2, (note - 69) / 12.0);
    }

    private static int frames(double seconds, double rate) {
        return (int) Math.round(seconds * rate);
    }

    /** A partial of a struck or plucked body: ratio to the lowest, how loud, and how long until it is 60 dB quieter. */
    record Partial(double ratio, double level, double seconds) {}

    /** Partials that die away, each by itself, behind a short knock of noise. */
    private static Wave struck(
            int note, double rate, double seconds, List<Partial> partials, double knock, double knockSeconds, long seed) {
        double f = hertz(note);
        double[] out = new double[frames(seconds, rate)];
        Random random = new Random(seed);
        for (Partial partial : partials) {
            double hz = f * partial.ratio;
            if (hz > rate * 0.45) {
                continue;
            }
            double phase = random.nextDouble() * 0.4;
            double fall = Math.log(1000) / partial.seconds;
            for (int i = 0; i < out.length; i++) {
                double t = i / rate;
                out[i] += partial.level * Math.exp(-fall * t) * Math.sin(TAU * (hz * t) + phase);
            }
        }
        double low = 0;
        for (int i = 0; i < out.length && i < frames(knockSeconds * 6, rate); i++) {
            low += (random.nextGaussian() - low) * 0.35;
            out[i] += knock * low * Math.exp(-i / rate / knockSeconds);
        }
        return Wave.once(ended(risen(out, 24)), rate);
    }

    /**
     * A plucked string: noise going round a delay, duller each time. The rate is chosen so that the length of the delay is
     * the pitch exactly.
     */
    private static Wave plucked(
            int note, double about, double seconds, double damp, double sustain, double place, double bright, long seed) {
        double f = hertz(note);
        int period = (int) Math.round(about / f);
        double rate = f * (period + damp);
        double[] out = new double[frames(seconds, rate)];
        double[] line = new double[period + 1];
        Random random = new Random(seed);
        double low = 0;
        double mean = 0;
        for (int i = 0; i < period; i++) {
            low += (random.nextDouble() * 2 - 1 - low) * bright;
            line[i] = low;
            mean += low / period;
        }
        // Plucked at a place, a string lacks what has a node there.
        int away = Math.max(1, (int) (period * place));
        double[] combed = new double[period];
        for (int i = 0; i < period; i++) {
            combed[i] = line[i] - mean - (line[(i + away) % period] - mean);
        }
        double[] delay = combed.clone();
        double before = delay[period - 1];
        double loss = Math.pow(0.001, 1 / (f * sustain));
        for (int i = 0; i < out.length; i++) {
            double now = delay[i % period];
            out[i] = now;
            delay[i % period] = loss * ((1 - damp) * now + damp * before);
            before = now;
        }
        return Wave.once(ended(risen(out, 16)), rate);
    }

    /** What a string's body or a reed's pipe does: a peak at a frequency. */
    private static Wave resonant(Wave wave, double hz, double q, double amount) {
        double w = TAU * hz / wave.rate;
        double alpha = Math.sin(w) / (2 * q);
        double a0 = 1 + alpha;
        double x1 = 0;
        double x2 = 0;
        double y1 = 0;
        double y2 = 0;
        double[] out = new double[wave.samples.length];
        for (int i = 0; i < out.length; i++) {
            double x = wave.samples[i];
            double y = (alpha * x - alpha * x2 + 2 * Math.cos(w) * y1 - (1 - alpha) * y2) / a0;
            x2 = x1;
            x1 = x;
            y2 = y1;
            y1 = y;
            out[i] = x + amount * y;
        }
        return new Wave(out, wave.rate, wave.loopFrom, wave.loopTo);
    }

    private static Wave mixed(Wave a, Wave b, double share) {
        double[] out = new double[Math.min(a.samples.length, b.samples.length)];
        for (int i = 0; i < out.length; i++) {
            out[i] = a.samples[i] + share * b.samples[i];
        }
        return Wave.once(ended(out), a.rate);
    }

    /**
     * Harmonics that come up one after the other and then go round a loop without a seam: every partial has whole turns in
     * it.
     *
     * @param cents how far voices lie apart; 0 for one voice alone
     */
    private static Wave looped(int note, double about, double attack, double loop, double[] levels, double cents, long seed) {
        double f = hertz(note);
        int period = Math.max(8, (int) Math.round(about / f));
        double rate = f * period;
        int turns = Math.max(1, (int) Math.round(loop * f));
        int length = turns * period;
        int before = frames(attack, rate) / period * period;
        double[] out = new double[before + length + 8];
        Random random = new Random(seed);
        double[] apart = cents == 0 ? new double[] {0} : new double[] {-cents, 0, cents * 0.83};
        for (int n = 1; n <= levels.length; n++) {
            if (f * n > rate * 0.45) {
                break;
            }
            for (double by : apart) {
                // Whole turns in the loop, so that it has no seam.
                double cycles = Math.round(turns * n * Math.pow(2, by / 1200));
                double step = TAU * cycles / length;
                double phase = random.nextDouble() * TAU;
                double comes = attack * (0.25 + 0.5 * n / levels.length);
                for (int i = 0; i < out.length; i++) {
                    double t = i / rate;
                    double up = t >= attack ? 1 : 1 - Math.exp(-6 * t / comes);
                    double settled = i >= before ? 1 : up / (1 - Math.exp(-6 * attack / comes));
                    out[i] += levels[n - 1] / apart.length * Math.min(1, settled) * Math.sin(step * i + phase);
                }
            }
        }
        return new Wave(risen(out, 32), rate, before, before + length);
    }

    /** Frequency modulation whose swing settles, and then goes round a loop of whole turns. */
    private static Wave modulated(int note, double about, double index, double settled, double seconds) {
        double f = hertz(note);
        int period = Math.max(8, (int) Math.round(about / f));
        double rate = f * period;
        int before = frames(seconds, rate) / period * period;
        int length = Math.max(1, (int) Math.round(0.1 * f)) * period;
        double[] out = new double[before + length + 8];
        for (int i = 0; i < out.length; i++) {
            double left = Math.max(0, 1 - i / (double) before);
            double swing = settled + (index - settled) * left * left;
            double tine = f * 14 < rate * 0.4 ? 0.12 * left * Math.exp(-i / rate / 0.06) : 0;
            double turn = TAU * i / period;
            out[i] = Math.sin(turn + swing * Math.sin(turn)) + tine * Math.sin(14 * turn);
        }
        return new Wave(risen(out, 24), rate, before, before + length);
    }

    /** A membrane: a tone that falls a little, its inharmonic partials, and noise of the stroke. */
    private static double[] drum(
            double rate, double seconds, double hz, double fall, double ring, double[] ratios, double slap, double dark, long seed) {
        double[] out = new double[frames(seconds, rate)];
        Random random = new Random(seed);
        double[] phase = new double[ratios.length];
        double low = 0;
        for (int i = 0; i < out.length; i++) {
            double t = i / rate;
            double bend = 1 + fall * Math.exp(-t / 0.03);
            for (int n = 0; n < ratios.length; n++) {
                phase[n] += TAU * hz * ratios[n] * bend / rate;
                out[i] += Math.sin(phase[n]) / (1 + 1.4 * n) * Math.exp(-t * (1 + 0.9 * n) / ring);
            }
            low += (random.nextGaussian() - low) * dark;
            out[i] += slap * low * Math.exp(-t / 0.012);
        }
        return ended(risen(out, 12));
    }

    /** Noise through two filters, dying away: cymbals, shakers, wires. */
    private static double[] hiss(double rate, double seconds, double from, double to, double ring, double clang, long seed) {
        double[] out = new double[frames(seconds, rate)];
        Random random = new Random(seed);
        double high = 1 - Math.exp(-TAU * Math.min(to, rate * 0.45) / rate);
        double low = 1 - Math.exp(-TAU * from / rate);
        double a = 0;
        double b = 0;
        double[] metal = {2.0, 3.01, 4.17, 5.43, 6.79, 8.21};
        for (int i = 0; i < out.length; i++) {
            double t = i / rate;
            double noise = random.nextGaussian() * 0.6;
            for (double ratio : metal) {
                noise += clang * Math.signum(Math.sin(TAU * 317 * ratio * t)) / metal.length;
            }
            a += (noise - a) * high;
            b += (a - b) * low;
            out[i] = (a - b) * Math.exp(-t / ring);
        }
        return ended(risen(out, 8));
    }

    private static double[] sum(double[] a, double[] b, double share) {
        double[] out = new double[Math.max(a.length, b.length)];
        for (int i = 0; i < out.length; i++) {
            out[i] = (i < a.length ? a[i] : 0) + share * (i < b.length ? b[i] : 0);
        }
        return out;
    }

    /** Begins at nothing. */
    private static double[] risen(double[] samples, int over) {
        for (int i = 0; i < over && i < samples.length; i++) {
            samples[i] *= i / (double) over;
        }
        return samples;
    }

    /** Ends at nothing, over its last tenth. */
    private static double[] ended(double[] samples) {
        int over = samples.length / 10;
        for (int i = 0; i < over; i++) {
            samples[samples.length - 1 - i] *= 0.5 - 0.5 * Math.cos(Math.PI * i / over);
        }
        return samples;
    }

    // What presets are made of.

    private static SF2Sample sample(String name, Wave wave, int note) {
        double most = 0;
        for (double one : wave.samples) {
            most = Math.max(most, Math.abs(one));
        }
        // Some silence behind it, as the format asks for.
        byte[] data = new byte[(wave.samples.length + 46) * 2];
        for (int i = 0; i < wave.samples.length; i++) {
            int value = (int) Math.round(wave.samples[i] / most * LOUDEST * 32767);
            data[2 * i] = (byte) value;
            data[2 * i + 1] = (byte) (value >> 8);
        }
        SF2Sample sample = new SF2Sample(BANK);
        sample.setName(name);
        sample.setData(data);
        sample.setSampleRate(Math.round(wave.rate));
        sample.setOriginalPitch(note);
        sample.setStartLoop(Math.max(0, wave.loopFrom));
        sample.setEndLoop(wave.loopFrom < 0 ? wave.samples.length : wave.loopTo);
        sample.setSampleType(1);
        BANK.addResource(sample);
        return sample;
    }

    private static short timecents(double seconds) {
        return (short) Math.round(1200 * Math.log(seconds) / Math.log(2));
    }

    /** A sound whose keys lead to the nearest of some samples. */
    private static SF2Layer preset(
            int program, String name, int[] notes, java.util.function.IntFunction<Wave> make, double attack, double release, double quieter) {
        SF2Layer layer = new SF2Layer(BANK);
        layer.setName(name);
        BANK.addResource(layer);
        for (int i = 0; i < notes.length; i++) {
            Wave wave = make.apply(notes[i]);
            int low = i == 0 ? 0 : (notes[i - 1] + notes[i]) / 2 + 1;
            int high = i == notes.length - 1 ? 127 : (notes[i] + notes[i + 1]) / 2;
            SF2LayerRegion region = new SF2LayerRegion();
            region.putBytes(SF2Region.GENERATOR_KEYRANGE, new byte[] {(byte) low, (byte) high});
            region.putShort(SF2Region.GENERATOR_SAMPLEMODES, (short) (wave.loopFrom < 0 ? 0 : 1));
            region.putShort(SF2Region.GENERATOR_ATTACKVOLENV, timecents(attack));
            region.putShort(SF2Region.GENERATOR_RELEASEVOLENV, timecents(release));
            region.putShort(SF2Region.GENERATOR_INITIALATTENUATION, (short) Math.round(quieter * 10));
            region.setSample(sample(name + " " + notes[i], wave, notes[i]));
            layer.getRegions().add(region);
        }
        instrument(program, name, false, layer);
        return layer;
    }

    /** What goes round a loop dies away all the same. */
    private static void decaying(SF2Layer layer, double seconds) {
        for (SF2LayerRegion region : layer.getRegions()) {
            region.putShort(SF2Region.GENERATOR_DECAYVOLENV, timecents(seconds));
            region.putShort(SF2Region.GENERATOR_SUSTAINVOLENV, (short) 1000);
        }
    }

    private static void instrument(int program, String name, boolean drums, SF2Layer layer) {
        SF2Instrument instrument = new SF2Instrument(BANK);
        instrument.setName(name);
        instrument.setPatch(new ModelPatch(0, program, drums));
        SF2InstrumentRegion region = new SF2InstrumentRegion();
        region.setLayer(layer);
        instrument.getRegions().add(region);
        BANK.addInstrument(instrument);
    }

    // The sounds.

    private static List<Partial> stiff(int count, double stiffness, double slope, double seconds, double shorter) {
        List<Partial> partials = new ArrayList<>();
        for (int n = 1; n <= count; n++) {
            partials.add(new Partial(
                    n * Math.sqrt(1 + stiffness * n * n), Math.pow(n, -slope), seconds / (1 + shorter * (n - 1))));
        }
        return partials;
    }

    private static void keyboards() {
        preset(0, "Piano", new int[] {36, 52, 67, 83}, note -> {
            double long60 = 9 * Math.pow(2, -(note - 33) / 18.0) + 0.8;
            return struck(note, 28_000, Math.min(1.6, long60), stiff(22, 0.0004, 1.15, long60, 0.22), 0.10, 0.004, note);
        }, 0.001, 0.25, 1);
        decaying(preset(4, "Electric piano", new int[] {40, 56, 72}, note ->
                modulated(note, 26_000, 1.7, 0.35, 0.7), 0.001, 0.2, 3), 9);
        preset(8, "Celesta", new int[] {60, 72, 84}, note -> struck(
                note, 36_000, 1.2,
                List.of(new Partial(1, 1, 2.2), new Partial(2.76, 0.28, 0.7), new Partial(4.02, 0.30, 0.9), new Partial(5.4, 0.10, 0.25), new Partial(8.93, 0.05, 0.12)),
                0.10, 0.003, note), 0.001, 0.5, 2);
        preset(10, "Music box", new int[] {72, 86}, note -> struck(
                note, 36_000, 0.9,
                List.of(new Partial(1, 1, 1.8), new Partial(2.0, 0.2, 1.0), new Partial(5.98, 0.32, 0.6), new Partial(9.3, 0.1, 0.2)),
                0.2, 0.002, note), 0.001, 0.6, 3);
        preset(16, "Organ", new int[] {36, 54, 72}, note -> looped(
                note, 32_000, 0.06, 0.2, new double[] {0.8, 0.9, 0.45, 0.6, 0.02, 0.3, 0.02, 0.35, 0, 0.12, 0, 0.1}, 0, note), 0.006, 0.05, 6);
        preset(20, "Reed organ", new int[] {36, 50, 64, 78}, note -> resonant(looped(
                note, 28_000, 0.16, 0.5, new double[] {1, 0.75, 0.62, 0.5, 0.42, 0.3, 0.3, 0.2, 0.2, 0.14, 0.13, 0.1, 0.09, 0.07, 0.06, 0.05}, 2.5, note), 900, 1.2, 0.6), 0.03, 0.09, 5);
    }

    private static void bars() {
        preset(12, "Marimba", new int[] {48, 62, 76}, note -> {
            double fall = 1.5 * Math.pow(2, -(note - 48) / 20.0);
            return struck(note, 30_000, Math.min(0.9, fall), List.of(
                    new Partial(1, 1, fall), new Partial(3.93, 0.28, fall * 0.3), new Partial(9.2, 0.1, fall * 0.12), new Partial(15, 0.04, 0.05)),
                    0.3, 0.0035, note);
        }, 0.001, 0.3, 1);
        preset(108, "Kalimba", new int[] {55, 69, 81}, note -> struck(
                note, 34_000, 0.8,
                List.of(new Partial(1, 1, 1.3), new Partial(2.01, 0.16, 0.6), new Partial(5.4, 0.16, 0.16), new Partial(6.27, 0.11, 0.1), new Partial(12.3, 0.04, 0.06)),
                0.34, 0.004, note), 0.001, 0.35, 2);
        preset(92, "Glass bowls", new int[] {55, 67, 79}, note -> looped(
                note, 20_000, 0.6, 1.5, new double[] {1, 0.16, 0.05, 0.17, 0.03, 0.015, 0.05}, 4, note), 0.22, 0.9, 5);
    }

    private static void strings() {
        preset(15, "Hammer dulcimer", new int[] {50, 64, 78}, note -> mixed(
                plucked(note, 30_000, 1.3, 0.35, 2.6, 0.12, 0.5, note),
                // The second string of a course is a hair off.
                struck(note, 30_000, 1.3, stiff(14, 0.0002, 1.3, 1.9, 0.25), 0.25, 0.003, note + 500), 0.18), 0.001, 0.5, 2);
        preset(24, "Guitar", new int[] {43, 57, 71}, note ->
                resonant(plucked(note, 26_000, 1.2, 0.5, 2.8, 0.2, 0.22, note), 190, 2, 0.7), 0.001, 0.15, 1);
        preset(32, "Upright bass", new int[] {29, 40}, note ->
                resonant(plucked(note, 18_000, 1.6, 0.5, 2.6, 0.28, 0.05, note), 95, 1.6, 1.1), 0.003, 0.12, 0);
        preset(46, "Harp", new int[] {40, 56, 73}, note ->
                resonant(plucked(note, 28_000, 1.4, 0.5, 3.4, 0.42, 0.2, note), 260, 1.4, 0.5), 0.001, 0.8, 1);
        double[] bowed = new double[18];
        for (int n = 1; n <= bowed.length; n++) {
            bowed[n - 1] = Math.pow(n, -1.1) * (n % 5 == 0 ? 0.6 : 1);
        }
        preset(48, "Strings", new int[] {45, 62, 79}, note ->
                resonant(looped(note, 26_000, 0.4, 1.3, bowed, 9, note), 620, 1.1, 0.5), 0.09, 0.28, 6);
    }

    private static void winds() {
        preset(70, "Low winds", new int[] {36, 48, 60}, note -> resonant(looped(
                note, 28_000, 0.14, 0.35, new double[] {0.55, 0.8, 1, 0.7, 0.5, 0.3, 0.2, 0.17, 0.12, 0.1, 0.07, 0.05}, 1.2, note), 480, 2.2, 0.9), 0.04, 0.1, 4);
        preset(73, "Flute", new int[] {62, 74, 86}, note -> looped(
                note, 30_000, 0.12, 0.35, new double[] {1, 0.35, 0.22, 0.07, 0.04, 0.02}, 0.8, note), 0.05, 0.1, 5);
    }

    private static SF2LayerRegion key(SF2Layer layer, int key, String name, double[] samples, double rate, double quieter) {
        SF2LayerRegion region = new SF2LayerRegion();
        region.putBytes(SF2Region.GENERATOR_KEYRANGE, new byte[] {(byte) key, (byte) key});
        region.putShort(SF2Region.GENERATOR_SAMPLEMODES, (short) 0);
        region.putShort(SF2Region.GENERATOR_RELEASEVOLENV, timecents(4));
        region.putShort(SF2Region.GENERATOR_INITIALATTENUATION, (short) Math.round(quieter * 10));
        region.setSample(sample(name, Wave.once(samples, rate), key));
        layer.getRegions().add(region);
        return region;
    }

    private static SF2Layer layer(String name) {
        SF2Layer layer = new SF2Layer(BANK);
        layer.setName(name);
        BANK.addResource(layer);
        return layer;
    }

    private static final double[] MEMBRANE = {1, 1.59, 2.14, 2.30, 2.65};
    private static final double[] TUNED = {1, 2.0, 3.01};

    /** From 41 on, as the demo's pads play them. */
    private static void handDrums() {
        SF2Layer kit = layer("Hand drums");
        double rate = 26_000;
        key(kit, 41, "Frame drum, low", drum(rate, 0.8, 72, 0.25, 0.30, MEMBRANE, 0.35, 0.15, 41), rate, 0);
        key(kit, 42, "Frame drum, rim", drum(rate, 0.3, 310, 0.05, 0.05, MEMBRANE, 1.3, 0.5, 42), rate, 4);
        key(kit, 43, "Frame drum", drum(rate, 0.7, 108, 0.2, 0.22, MEMBRANE, 0.5, 0.2, 43), rate, 1);
        key(kit, 44, "Frame drum, damped", drum(rate, 0.3, 122, 0.2, 0.06, MEMBRANE, 0.8, 0.25, 44), rate, 2);
        key(kit, 45, "Goblet drum", drum(rate, 0.7, 128, 0.12, 0.26, TUNED, 0.4, 0.3, 45), rate, 1);
        key(kit, 46, "Goblet, slap", drum(rate, 0.3, 420, 0.03, 0.05, MEMBRANE, 2.2, 0.7, 46), rate, 3);
        key(kit, 47, "Goblet, rim", drum(rate, 0.35, 520, 0.02, 0.08, TUNED, 1.2, 0.8, 47), rate, 4);
        key(kit, 48, "Small drum", drum(rate, 0.45, 215, 0.1, 0.13, MEMBRANE, 0.5, 0.3, 48), rate, 2);
        key(kit, 49, "Small drum, rim", drum(rate, 0.25, 640, 0.02, 0.04, MEMBRANE, 1.6, 0.7, 49), rate, 4);
        key(kit, 50, "Finger drum", drum(rate, 0.35, 330, 0.06, 0.10, TUNED, 0.4, 0.5, 50), rate, 3);
        key(kit, 51, "Finger drum, tap", drum(rate, 0.2, 470, 0.03, 0.04, TUNED, 0.9, 0.7, 51), rate, 5);
        key(kit, 52, "Clay pot", drum(rate, 0.8, 92, -0.25, 0.28, new double[] {1}, 0.15, 0.2, 52), rate, 1);
        key(kit, 53, "Clay pot, tap", drum(rate, 0.3, 880, 0, 0.06, new double[] {1, 2.7}, 0.8, 0.8, 53), rate, 5);
        double high = 36_000;
        key(kit, 54, "Jingles", hiss(high, 0.5, 4200, 14_000, 0.11, 1.4, 54), high, 6);
        key(kit, 55, "Seed shaker", hiss(high, 0.25, 3200, 9000, 0.045, 0, 55), high, 7);
        key(kit, 56, "Finger cymbals", sum(
                struck(96, high, 0.9, List.of(new Partial(1, 1, 1.6), new Partial(1.005, 0.8, 1.5), new Partial(2.73, 0.5, 0.9)), 0.1, 0.002, 56).samples,
                hiss(high, 0.3, 6000, 15_000, 0.03, 0.5, 560), 0.3), high, 7);
        instrument(1, "Hand drums", true, kit);
    }

    private static void standardKit() {
        SF2Layer kit = layer("Standard kit");
        double rate = 26_000;
        double high = 38_000;
        double[] kick = drum(rate, 0.45, 52, 1.6, 0.16, new double[] {1}, 0.9, 0.12, 36);
        double[] snareHead = drum(rate, 0.3, 186, 0.15, 0.09, MEMBRANE, 1.2, 0.5, 38);
        double[] wires = hiss(rate, 0.32, 1400, 9000, 0.085, 0, 380);
        key(kit, 35, "Bass drum 2", drum(rate, 0.5, 46, 1.2, 0.2, new double[] {1}, 0.5, 0.1, 35), rate, 0);
        key(kit, 36, "Bass drum 1", kick, rate, 0);
        key(kit, 37, "Side stick", drum(rate, 0.15, 830, 0, 0.02, new double[] {1, 1.5, 2.6}, 1.6, 0.9, 37), rate, 4);
        key(kit, 38, "Snare drum", sum(snareHead, wires, 1.1), rate, 1);
        key(kit, 39, "Hand clap", clap(rate), rate, 3);
        key(kit, 40, "Snare drum 2", sum(drum(rate, 0.3, 228, 0.1, 0.07, MEMBRANE, 1.3, 0.6, 40), wires, 1.4), rate, 2);
        int[] toms = {41, 43, 45, 47, 48, 50};
        String[] names = {"Low floor tom", "High floor tom", "Low tom", "Low-mid tom", "High-mid tom", "High tom"};
        for (int i = 0; i < toms.length; i++) {
            key(kit, toms[i], names[i], drum(rate, 0.5, 74 * Math.pow(1.19, i), 0.35, 0.24 - 0.02 * i, MEMBRANE, 0.5, 0.2, toms[i]), rate, 1);
        }
        choked(key(kit, 42, "Closed hi-hat", hiss(high, 0.14, 6500, 16_000, 0.032, 1.2, 42), high, 7));
        choked(key(kit, 44, "Pedal hi-hat", hiss(high, 0.16, 5200, 14_000, 0.04, 0.9, 44), high, 8));
        choked(key(kit, 46, "Open hi-hat", hiss(high, 0.8, 6000, 16_000, 0.22, 1.2, 46), high, 7));
        key(kit, 49, "Crash cymbal", hiss(high, 1.3, 2600, 15_000, 0.5, 0.8, 49), high, 4);
        key(kit, 51, "Ride cymbal", sum(hiss(high, 0.9, 4800, 13_000, 0.42, 0.9, 51),
                struck(93, high, 0.8, List.of(new Partial(1, 1, 0.9), new Partial(1.48, 0.6, 0.7)), 0, 0.01, 510).samples, 0.12), high, 7);
        key(kit, 53, "Ride bell", struck(88, high, 0.9, List.of(new Partial(1, 1, 1.2), new Partial(1.52, 0.7, 0.9), new Partial(2.4, 0.5, 0.5)), 0.3, 0.002, 53).samples, high, 6);
        key(kit, 54, "Tambourine", hiss(high, 0.4, 5000, 15_000, 0.09, 1.6, 540), high, 7);
        key(kit, 56, "Cowbell", struck(76, rate, 0.35, List.of(new Partial(1, 1, 0.4), new Partial(1.48, 0.9, 0.35), new Partial(3.1, 0.3, 0.15)), 0.4, 0.002, 561).samples, rate, 5);
        instrument(0, "Standard kit", true, kit);
    }

    private static void choked(SF2LayerRegion region) {
        region.putShort(SF2Region.GENERATOR_EXCLUSIVECLASS, (short) 1);
    }

    /** Several hands, none quite together. */
    private static double[] clap(double rate) {
        double[] out = new double[frames(0.3, rate)];
        double[] at = {0, 0.011, 0.021, 0.032};
        for (int n = 0; n < at.length; n++) {
            double[] one = hiss(rate, n == at.length - 1 ? 0.24 : 0.03, 900, 5500, n == at.length - 1 ? 0.06 : 0.008, 0, 390 + n);
            int from = frames(at[n], rate);
            for (int i = 0; i < one.length && from + i < out.length; i++) {
                out[from + i] += one[i];
            }
        }
        return out;
    }
}
