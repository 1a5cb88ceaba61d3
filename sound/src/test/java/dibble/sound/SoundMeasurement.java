package dibble.sound;

import dibble.demo.LamplightersRound;
import dibble.edits.TrackEdits;
import dibble.gear.PartRef;
import dibble.gear.StripRef;
import dibble.levels.OfflinePlayback;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import dibble.midi.ShortMessage;
import dibble.session.Session;
import dibble.work.Progress;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * How long rendering and mixing take beside the music: the demo's 24 bars as a mix and as stems, and sixteen parts of eight
 * voices each in blocks as they are mixed live. Run by {@code ./dibble bench sound}.
 */
class SoundMeasurement {
    private static final AudioSettings SETTINGS = AudioSettings.USUAL;
    private static final String PORT = "stand-in:sorrel";
    private static final int TIMES = 5;
    private final PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8);

    @TempDir
    Path folder;

    @Test
    void render() throws IOException {
        Session session = TrackEdits.readyToRecord(LamplightersRound.session());
        String[] sources = {null, "larkspur", "tansy", "sedge", "fern", "teasel"};
        OfflinePlayback music =
                OfflinePlayback.ofFile(session, LamplightersRound.performance(), LamplightersRound.played(), sources);
        SoundPlan plan = SoundPlan.of(session, LamplightersRound.performance());
        for (boolean mixOnly : new boolean[] {true, false}) {
            double[] ratios = new double[TIMES];
            for (int i = 0; i < TIMES; i++) {
                long before = System.nanoTime();
                Bounce.Made made = Bounce.render(
                        music,
                        plan,
                        Map.of(),
                        new Bounce.Wanted(44_100, Bounce.Bits.PCM_24, 2, Set.of(), mixOnly),
                        folder.resolve("r" + i + mixOnly),
                        Progress.NONE);
                ratios[i] = made.seconds() / ((System.nanoTime() - before) / 1e9);
            }
            Arrays.sort(ratios);
            out.printf(
                    "%s: %.1f times real time (%.1f to %.1f)%n",
                    mixOnly ? "the mix" : "stems and mix", ratios[TIMES / 2], ratios[0], ratios[TIMES - 1]);
        }
    }

    @Test
    void mixSixteenPartsOfEightVoices() {
        // Sounds that last: eight voices of each part sound all the time, and no more.
        int[] programs = {16, 20, 48, 70, 73, 92};
        List<StripPlan> plans = new ArrayList<>();
        for (int part = 0; part < 16; part++) {
            PartRef ref = new PartRef("sorrel", "part-" + part);
            StripPlan plan = Desk.plan(
                    part + 1,
                    StripRef.ALL,
                    dibble.gear.Strip.PLAIN.withLevel(-6.0).withReverb(40));
            plans.add(new StripPlan(StripRef.of(ref), PORT, part + 1, "", true, false, null, plan.strip()));
        }
        SynthInstrument instrument = new SynthInstrument(PORT, null);
        instrument.follow(new SoundPlan(plans, Map.of()), Map.of());
        instrument.start(SETTINGS, bank -> new JdkSynth(SETTINGS, bank));
        for (int part = 0; part < 16; part++) {
            instrument.playNow(ShortMessage.programChange(part, programs[part % programs.length]), 0);
        }
        for (int part = 0; part < 16; part++) {
            for (int voice = 0; voice < 8; voice++) {
                instrument.playNow(ShortMessage.noteOn(part, 48 + 3 * voice, 90), 0);
            }
        }
        Mixer mixer = new Mixer(SETTINGS);
        float[] frames = new float[SETTINGS.block() * 2];
        double[] shares = new double[TIMES];
        int blocks = 5 * SETTINGS.rate() / SETTINGS.block();
        for (int i = -2; i < TIMES; i++) {
            long spent = 0;
            for (int block = 0; block < blocks; block++) {
                long before = System.nanoTime();
                mixer.mix(List.of(instrument), mixer.blockEnd(), null);
                mixer.interleave(1, frames);
                spent += System.nanoTime() - before;
            }
            if (i >= 0) {
                shares[i] = spent / (double) SETTINGS.nanos((long) blocks * SETTINGS.block());
            }
        }
        Arrays.sort(shares);
        out.printf(
                "16 parts of 8 voices: %.1f %% of a core (%.1f to %.1f)%n",
                100 * shares[TIMES / 2], 100 * shares[0], 100 * shares[TIMES - 1]);
        instrument.end();
    }
}
