package dibble.sound;

import java.util.List;

/** A source of sound for a mixer, block by block. Called on the mixer's thread only. */
interface AudioSource {
    /**
     * Renders the next block of all its strips.
     *
     * @param frames the frames of a block, always the same
     * @param until messages with a stamp before this, in nanoseconds, are played in it
     */
    void render(int frames, long until);

    /** Its strips, as they are in this block. */
    List<ChannelStrip> strips();

    /** Returns the effects that its strips send to. */
    EffectBus effects();

    /** Returns true if anything is to be heard of it. */
    boolean isSounding();
}
