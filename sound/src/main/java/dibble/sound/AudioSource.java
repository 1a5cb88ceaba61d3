package dibble.sound;

import java.util.List;

/** What a mixer pulls sound from, block by block. Called on the mixer's thread alone. */
interface AudioSource {
    /**
     * Renders the next block of all its strips.
     *
     * @param frames how many frames that is: always the same
     * @param until what has a time stamp before this, in nanoseconds, is played in it
     */
    void render(int frames, long until);

    /** Its strips, as they are in this block. */
    List<ChannelStrip> strips();

    /** What its strips send to. */
    EffectBus effects();

    /** Returns true if anything is to be heard of it. */
    boolean isSounding();
}
