package dibble.sound;

import dibble.gear.Loudness;

/** The meters of a mixer. Any thread. */
public interface Meters {
    /** Of where nothing sounds. */
    Meters NONE = new Meters() {
        @Override
        public Reading strip(String port, int channel, int key) {
            return Reading.NOTHING;
        }

        @Override
        public Reading output(int number) {
            return Reading.NOTHING;
        }

        @Override
        public Status status() {
            return new Status(true, 0, 1);
        }

        @Override
        public void forgetPeaks() {}
    };

    /**
     * The meters of a strip or an output.
     *
     * @param peak in dB, silence without sound
     * @param highest the highest peak since the last reset, in dB
     * @param loudness momentary, in LUFS (ITU-R BS.1770)
     * @param level of the strip, in dB, as last set; 0 for an output
     * @param pan of the strip, 0-127; 64 for an output
     */
    record Reading(double peak, double highest, double loudness, double level, int pan) {
        /** The reading of a missing strip or output. */
        public static final Reading NOTHING =
                new Reading(Loudness.SILENCE, Loudness.SILENCE, Loudness.SILENCE, Double.NaN, Loudness.MIDDLE);

        static Reading of(Meter meter, double level, int pan) {
            return new Reading(
                    Loudness.ofGain(meter.peak()), Loudness.ofGain(meter.highest()), meter.loudness(), level, pan);
        }

        /** Returns true if there is such a strip or output. */
        public boolean isThere() {
            return !Double.isNaN(level);
        }
    }

    /**
     * The state of the audio device.
     *
     * @param silent whether there is none
     * @param dropouts the late blocks since it was opened
     * @param pairs the number of stereo outputs
     */
    record Status(boolean silent, int dropouts, int pairs) {}

    /**
     * Returns the meters of a strip.
     *
     * @param channel 1-16
     * @param key the key of a strip for a single key, or {@link dibble.gear.StripRef#ALL}
     */
    Reading strip(String port, int channel, int key);

    /** Returns the meters of an output, from 1. */
    Reading output(int number);

    /** Returns the state of the audio device. */
    Status status();

    /** Forgets the highest peaks of all strips and outputs. */
    void forgetPeaks();
}
