package dibble.sound;

import com.sun.media.sound.ModelByteBufferWavetable;
import com.sun.media.sound.ModelConnectionBlock;
import com.sun.media.sound.ModelDestination;
import com.sun.media.sound.ModelInstrument;
import com.sun.media.sound.ModelOscillator;
import com.sun.media.sound.ModelPatch;
import com.sun.media.sound.ModelPerformer;
import com.sun.media.sound.ModelWavetable;
import com.sun.media.sound.SimpleSoundbank;
import java.util.List;
import javax.sound.midi.Instrument;
import javax.sound.midi.Patch;
import javax.sound.midi.Soundbank;
import javax.sound.sampled.AudioFormat;

/**
 * Sounds of a file as a synthesizer may have them, whatever the file's format: without samples that cannot be played, loops
 * that never end, and pitches that no voice can reach. The JDK's synthesizer trusts all of these, and does not return from a
 * block otherwise.
 */
final class SafeSounds {
    private static final int SHORTEST_LOOP = 4;
    private static final float LOWEST_RATE = 400;
    private static final float HIGHEST_RATE = 400_000;

    /** Twice the octaves of all keys, in cents. */
    private static final float MAX_CENTS = 25_600;

    private static final float MAX_CENTIBELS = 10_000;

    /** The largest number of generators and modulators of one voice. */
    private static final int MAX_CONNECTIONS = 1024;

    private SafeSounds() {}

    /**
     * Returns the same instruments, safe to play.
     *
     * @throws RuntimeException where the JDK's reader has let damage through that shows only now
     */
    static Soundbank of(Soundbank sounds) {
        SimpleSoundbank safe = new SimpleSoundbank();
        safe.setName(sounds.getName());
        for (Instrument instrument : sounds.getInstruments()) {
            if (instrument instanceof ModelInstrument model) {
                safe.addInstrument(new Safe(safe, model));
            }
        }
        return safe;
    }

    /** An instrument with its performers made once. */
    private static final class Safe extends ModelInstrument {
        private final ModelPerformer[] performers;

        Safe(Soundbank bank, ModelInstrument from) {
            super(bank, patch(from), from.getName(), from.getDataClass());
            performers = from.getPerformers();
            for (ModelPerformer performer : performers) {
                mend(performer);
            }
        }

        private static Patch patch(ModelInstrument from) {
            Patch patch = from.getPatch();
            return new ModelPatch(
                    patch.getBank(), patch.getProgram(), patch instanceof ModelPatch model && model.isPercussion());
        }

        @Override
        public ModelPerformer[] getPerformers() {
            return performers.clone();
        }

        @Override
        public Object getData() {
            return null;
        }
    }

    private static void mend(ModelPerformer performer) {
        performer.getOscillators().removeIf(it -> !isPlayable(it));
        for (ModelOscillator oscillator : performer.getOscillators()) {
            mend((ModelByteBufferWavetable) oscillator);
        }
        List<ModelConnectionBlock> connections = performer.getConnectionBlocks();
        if (connections.size() > MAX_CONNECTIONS) {
            connections.subList(MAX_CONNECTIONS, connections.size()).clear();
        }
        for (ModelConnectionBlock connection : connections) {
            if (reachesPitch(connection.getDestination()) || Double.isNaN(connection.getScale())) {
                connection.setScale(limited(connection.getScale(), MAX_CENTS));
            }
        }
    }

    private static boolean isPlayable(ModelOscillator oscillator) {
        if (!(oscillator instanceof ModelByteBufferWavetable sample)
                || sample.getBuffer() == null
                || sample.getFormat() == null) {
            return false;
        }
        AudioFormat format = sample.getFormat();
        return format.getSampleRate() >= LOWEST_RATE
                && format.getSampleRate() <= HIGHEST_RATE
                && format.getFrameSize() > 0
                && frames(sample) > SHORTEST_LOOP;
    }

    private static long frames(ModelByteBufferWavetable sample) {
        return sample.getBuffer().capacity() / sample.getFormat().getFrameSize();
    }

    private static void mend(ModelByteBufferWavetable sample) {
        float start = sample.getLoopStart();
        float length = sample.getLoopLength();
        boolean loops = start >= 0 && length >= SHORTEST_LOOP && (double) start + length <= frames(sample);
        if (!loops) {
            sample.setLoopType(ModelWavetable.LOOP_TYPE_OFF);
        }
        sample.setPitchcorrection((float) limited(sample.getPitchcorrection(), MAX_CENTS));
        sample.setAttenuation((float) limited(sample.getAttenuation(), MAX_CENTIBELS));
    }

    private static boolean reachesPitch(ModelDestination destination) {
        return destination != null && ModelDestination.DESTINATION_PITCH.equals(destination.getIdentifier());
    }

    private static double limited(double value, double limit) {
        return Double.isNaN(value) ? 0 : Math.max(-limit, Math.min(limit, value));
    }
}
