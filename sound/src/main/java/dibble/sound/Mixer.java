package dibble.sound;

import java.util.Arrays;
import java.util.List;

/**
 * Mixes strips to outputs, block by block; its time is the number of mixed frames. It has no clock, thread or device:
 * live sound and files are made by the same mixer.
 */
final class Mixer {
    /** The number of outputs. */
    static final int OUTPUTS = 64;

    private final AudioSettings settings;
    private final Output[] outputs = new Output[OUTPUTS];
    private long frames;

    /** The sound of one output: a pair of channels. */
    static final class Output {
        final float[] left;
        final float[] right;
        final Meter meter;

        private Output(AudioSettings settings) {
            left = new float[settings.block()];
            right = new float[settings.block()];
            meter = new Meter(settings.rate(), settings.block());
        }

        private void begin() {
            Arrays.fill(left, 0);
            Arrays.fill(right, 0);
        }
    }

    /** Receives the sound of each strip before it is mixed, for stems. */
    interface Tap {
        /** Returns the effects for a strip only; null if they are not requested. */
        EffectBus effects(AudioSource source, ChannelStrip strip);

        /** Takes the next block of a strip, without effects. */
        void take(AudioSource source, ChannelStrip strip);
    }

    Mixer(AudioSettings settings) {
        this.settings = settings;
        output(1);
    }

    AudioSettings settings() {
        return settings;
    }

    /** Returns the number of mixed frames. */
    long frames() {
        return frames;
    }

    /** When the next block ends, in nanoseconds since the first began. */
    long blockEnd() {
        return settings.nanos(frames + settings.block());
    }

    /** An output, from 1; made where it is the first time that it is asked for. */
    Output output(int number) {
        if (outputs[number - 1] == null) {
            outputs[number - 1] = new Output(settings);
        }
        return outputs[number - 1];
    }

    /** The meter of an output, from 1; null where nothing has sounded there. Any thread. */
    Meter meter(int number) {
        Output output = outputs[number - 1];
        return output == null ? null : output.meter;
    }

    /** Nothing sounds for a while. */
    void rest() {
        for (Output output : outputs) {
            if (output != null) {
                output.meter.rest();
            }
        }
    }

    /**
     * Mixes the next block.
     *
     * @param until messages with a stamp before this are played in it
     * @param tap receives the strips; or null
     */
    void mix(List<? extends AudioSource> sources, long until, Tap tap) {
        for (Output output : outputs) {
            if (output != null) {
                output.begin();
            }
        }
        Output main = output(1);
        for (int s = 0; s < sources.size(); s++) {
            AudioSource source = sources.get(s);
            source.render(settings.block(), until);
            List<ChannelStrip> strips = source.strips();
            for (int i = 0; i < strips.size(); i++) {
                ChannelStrip strip = strips.get(i);
                Output to = output(strip.plan().strip().output());
                strip.addTo(to.left, to.right);
                strip.send(source.effects(), tap == null ? null : tap.effects(source, strip));
                if (tap != null) {
                    tap.take(source, strip);
                }
            }
            source.effects().process(main.left, main.right);
        }
        for (Output output : outputs) {
            if (output != null) {
                output.meter.take(output.left, output.right);
            }
        }
        frames += settings.block();
    }

    /**
     * Writes the mixed block for a device with a number of pairs; an output that the device does not have goes to the
     * first pair.
     *
     * @param to interleaved frames with two channels for each pair
     */
    void interleave(int pairs, float[] to) {
        Arrays.fill(to, 0);
        for (int number = 1; number <= OUTPUTS; number++) {
            Output output = outputs[number - 1];
            if (output != null) {
                int at = number <= pairs ? 2 * (number - 1) : 0;
                for (int i = 0; i < settings.block(); i++, at += 2 * pairs) {
                    to[at] += output.left[i];
                    to[at + 1] += output.right[i];
                }
            }
        }
    }
}
