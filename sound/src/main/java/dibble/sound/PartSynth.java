package dibble.sound;

/** The sound generator of a strip. Confined to the mixer's thread. */
interface PartSynth extends AutoCloseable {
    /** Sets whether each key is a separate sound. */
    void setDrums(boolean drums);

    /**
     * Takes a packed channel message, on whatever channel it is.
     *
     * @param frame the frame of the next block at which a note starts; others count from the beginning of the block
     */
    void play(int packed, int frame);

    /** Returns true if anything is to be heard of it, now or soon. */
    boolean isSounding();

    /** Renders the next block; false where it rests, and nothing was rendered. */
    boolean render(float[] left, float[] right);

    /** Leaves it alone for good: it did not return to the thread that it belongs to. Any thread. */
    default void abandon() {}

    @Override
    void close();
}
