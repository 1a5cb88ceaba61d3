package dibble.sound;

import java.util.Map;

/** A maker of synthesizers that has some ready. */
interface SynthSupply extends SynthMaker, AutoCloseable {
    /** Begins to make some. */
    void start();

    /** Has some made with the sounds of files, as many as are said. */
    void want(Map<SoundBank, Integer> counts);

    @Override
    void close();
}
