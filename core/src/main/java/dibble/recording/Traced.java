package dibble.recording;

import dibble.midi.MidiTrack;
import java.util.Arrays;

/**
 * A clip and, for each of its events, the event of an original clip that it copies. Cutting and merging traced clips
 * keeps the link, so notes keep their identity although their numbers and places change. Immutable.
 */
final class Traced {
    /** The original of an event that was made during cutting or merging. */
    static final int NONE = -1;

    private final MidiTrack clip;

    /** By event: which original it copies, or {@link #NONE}. */
    private final int[] originals;

    /** By event: the number of the event of the original that it copies. */
    private final int[] numbers;

    Traced(MidiTrack clip, int[] originals, int[] numbers) {
        this.clip = clip;
        this.originals = originals;
        this.numbers = numbers;
    }

    /**
     * Traces a clip to itself.
     *
     * @param original the caller's number for this clip, 0 or more
     */
    static Traced of(MidiTrack clip, int original) {
        int[] originals = new int[clip.size()];
        Arrays.fill(originals, original);
        int[] numbers = new int[clip.size()];
        Arrays.setAll(numbers, i -> i);
        return new Traced(clip, originals, numbers);
    }

    MidiTrack clip() {
        return clip;
    }

    /** Returns the number of the original clip that event {@code i} is from, or {@link #NONE}. */
    int original(int i) {
        return originals[i];
    }

    /** Returns the number of event {@code i} in its original clip. */
    int number(int i) {
        return numbers[i];
    }
}
