package dibble.sound;

import dibble.gear.Loudness;

/** What can be read of a mixer while it sounds. Any thread. */
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
     * What a strip or an output sounds like now.
     *
     * @param peak in dB, silence where nothing is heard
     * @param highest the highest peak since it was forgotten, in dB
     * @param loudness momentary, in LUFS (ITU-R BS.1770)
     * @param level of the strip, in dB: what it was last moved to; 0 of an output
     * @param pan of the strip, 0-127; 64 of an output
     */
    record Reading(double peak, double highest, double loudness, double level, int pan) {
        /** Of what is not there. */
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
     * How it is with the audio device.
     *
     * @param silent whether there is none
     * @param dropouts how often sound came too late since it was opened
     * @param pairs how many stereo outputs it has
     */
    record Status(boolean silent, int dropouts, int pairs) {}

    /**
     * What a strip sounds like now.
     *
     * @param channel 1-16
     * @param key of a strip for a single key, or {@link dibble.gear.StripRef#ALL}
     */
    Reading strip(String port, int channel, int key);

    /** What an output sounds like now, from 1. */
    Reading output(int number);

    /** How it is with the audio device. */
    Status status();

    /** Forgets the highest peaks of all strips and outputs. */
    void forgetPeaks();
}
