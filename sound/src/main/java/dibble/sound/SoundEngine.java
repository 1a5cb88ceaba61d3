package dibble.sound;

import dibble.levels.SoundPlan;
import dibble.ports.OutputPort;
import java.util.Map;
import java.util.function.Function;

/** The sound of the built-in instruments. */
public interface SoundEngine extends Meters, AutoCloseable {
    /** Opens the port of an instrument, which sounds until it is closed. */
    OutputPort open(String port);

    /** Returns true if instruments sound here; where not, nothing else below has an effect. */
    default boolean isHere() {
        return true;
    }

    /** Starts preparing the first notes. */
    void start();

    /** Changes over to other settings at once. */
    void choose(AudioSettings chosen);

    /** Chooses among audio devices again: another one has come. */
    void lookAgain();

    /**
     * Makes the strips as a plan says.
     *
     * @param files the sound files that are open, by their ids in the session
     */
    void follow(SoundPlan plan, Map<String, SoundBank> files);

    /** Returns a problem while playing as a sentence; null for none. Any thread. */
    default String trouble() {
        return null;
    }

    /** Returns true if anything is heard now. Any thread. */
    boolean isSounding();

    @Override
    void close();

    /** Returns an engine whose instruments send to a port each. */
    static SoundEngine elsewhere(Function<String, OutputPort> ports) {
        return new SoundsElsewhere(ports);
    }
}
