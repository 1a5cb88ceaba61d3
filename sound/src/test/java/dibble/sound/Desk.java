package dibble.sound;

import dibble.gear.PartRef;
import dibble.gear.Strip;
import dibble.gear.StripRef;
import dibble.levels.SoundPlan;
import dibble.levels.StripPlan;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** A mixer with one instrument whose synthesizers are of the tests' own: each sounds a signal of known level. */
final class Desk {
    static final String PORT = "stand-in:sorrel";

    /** A sample by its number since the first note. */
    interface Signal {
        float at(long frame);
    }

    final AudioSettings settings;
    final Mixer mixer;
    final SynthInstrument instrument = new SynthInstrument(PORT, null);

    Desk(AudioSettings settings, Signal signal) {
        this.settings = settings;
        mixer = new Mixer(settings);
        instrument.start(settings, bank -> new Tone(signal));
    }

    /** Plans strips of the parts of channels 1, 2 … */
    void plan(Strip... strips) {
        List<StripPlan> plans = new ArrayList<>();
        for (int i = 0; i < strips.length; i++) {
            plans.add(plan(i + 1, StripRef.ALL, strips[i]));
        }
        instrument.follow(new SoundPlan(plans, Map.of()), Map.of());
    }

    static StripPlan plan(int channel, int key, Strip strip) {
        PartRef part = new PartRef("sorrel", "part-" + channel);
        return new StripPlan(new StripRef(part, key), PORT, channel, "Part " + channel, true, false, null, strip);
    }

    void mix() {
        mixer.mix(List.of(instrument), mixer.blockEnd(), null);
    }

    Mixer.Output out(int number) {
        return mixer.output(number);
    }

    /** The same on both sides, from its first note on. */
    private static final class Tone implements PartSynth {
        private final Signal signal;
        private long frame = -1;

        Tone(Signal signal) {
            this.signal = signal;
        }

        @Override
        public void setDrums(boolean drums) {}

        @Override
        public void play(int packed, int frame) {
            this.frame = Math.max(0, this.frame);
        }

        @Override
        public boolean isSounding() {
            return frame >= 0;
        }

        @Override
        public boolean render(float[] left, float[] right) {
            if (frame < 0) {
                return false;
            }
            for (int i = 0; i < left.length; i++) {
                left[i] = signal.at(frame++);
                right[i] = left[i];
            }
            return true;
        }

        @Override
        public void close() {}
    }
}
