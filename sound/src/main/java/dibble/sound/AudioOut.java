package dibble.sound;

/** The output of the mix: an audio device, ports for other applications, or none. */
public interface AudioOut extends AutoCloseable {
    /** Returns the number of stereo pairs, 1 or more. */
    default int pairs() {
        return 1;
    }

    /**
     * Takes one block of interleaved frames with two channels for each pair, and waits until the next is due.
     *
     * @param frames samples from -1 to 1
     * @return false if the output has gone
     */
    boolean write(float[] frames);

    /** The rate at which it must be given frames, a second; 0 where any will do. */
    default int rate() {
        return 0;
    }

    /** Returns true if it also takes each strip separately. */
    default boolean takesStrips() {
        return false;
    }

    /**
     * Takes a strip's part of the next block, before {@link #write} takes the mix; not called where it is silent.
     *
     * @param port the port of its instrument
     * @param channel 1-16
     * @param key its key, or {@link dibble.gear.StripRef#ALL}
     * @param left as many samples as the block has frames, with the strip's level; not to be kept or changed
     */
    default void takeStrip(String port, int channel, int key, float[] left, float[] right) {}

    /** Returns the number of blocks that came too late. */
    default int dropouts() {
        return 0;
    }

    /** Returns true if it is inaudible and needs no blocks. */
    default boolean isSilent() {
        return false;
    }

    @Override
    void close();
}
