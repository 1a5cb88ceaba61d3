package dibble.sound;

/** What sounds on a strip. Belongs to the mixer's thread. */
interface PartSynth extends AutoCloseable {
    /** Says whether its keys are sounds of their own. */
    void setDrums(boolean drums);

    /** Takes a packed channel message, on whatever channel it is. */
    void play(int packed);

    /** Whether anything is to be heard of it, now or soon. */
    boolean isSounding();

    /** Renders the next block; false where it rests, and nothing was rendered. */
    boolean render(float[] left, float[] right);

    @Override
    void close();
}
