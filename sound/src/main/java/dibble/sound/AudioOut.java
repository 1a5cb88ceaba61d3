package dibble.sound;

/** Where the mix goes: an audio device, ports among other programs, or nowhere. */
public interface AudioOut extends AutoCloseable {
    /** How many stereo pairs it has, 1 or more. */
    default int pairs() {
        return 1;
    }

    /**
     * Takes one block of interleaved frames with two channels for each pair, and waits until it is time for the next.
     *
     * @param frames samples from -1 to 1
     * @return false where it has gone away, and takes no more
     */
    boolean write(float[] frames);

    /** The rate at which it must be given frames, a second; 0 where any will do. */
    default int rate() {
        return 0;
    }

    /** Returns true if it wants each strip by itself, too. */
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

    /** How often it had nothing to sound because a block came too late. */
    default int dropouts() {
        return 0;
    }

    /** Returns true if nobody hears it: then it need not be given anything. */
    default boolean isSilent() {
        return false;
    }

    @Override
    void close();
}
