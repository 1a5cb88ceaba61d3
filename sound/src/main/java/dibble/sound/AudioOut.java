package dibble.sound;

/** Where the mix goes: an audio device, or none. */
interface AudioOut extends AutoCloseable {
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

    /** How often it had nothing to sound because a block came too late. */
    default int dropouts() {
        return 0;
    }

    /** Whether nobody hears it: then it need not be given anything. */
    default boolean isSilent() {
        return false;
    }

    @Override
    void close();
}
