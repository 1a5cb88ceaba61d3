package dibble.studio;

import dibble.transport.Follower;
import dibble.transport.PlaybackTimebase;
import java.util.Set;

/** The actions of {@link TransportState}: on tracks, click, clock output and recorder. */
interface TransportActions {
    /** Returns the nanoseconds of notice that followers need before the music. */
    long readiness();

    /**
     * Starts tracks, click and clock.
     *
     * @param silent the ids of silent tracks
     * @param countIn bars of clicks before the timebase begins
     * @param click whether its beats are clicked
     */
    void play(PlaybackTimebase course, Set<String> silent, int countIn, boolean click);

    /**
     * Plays tracks along an external clock.
     *
     * @param entry the start position
     */
    void playAlong(Follower other, long entry, PlaybackTimebase.Loop loop, Set<String> silent);

    /** Sets the silent tracks. */
    void setSilent(Set<String> silent);

    /** Goes on along another course. */
    void change(PlaybackTimebase course);

    /** Stops tracks, click and clock, and releases their notes. */
    void stop();

    /** Returns true if tracks play, and have not come to their end. */
    boolean isPlaying();

    /** Starts to record; new tracks are made where parts have none. */
    void record(RecordPlan plan, RecordOptions options);

    /** Continues a recording along another course. @param now the time of the change, on the studio's clock */
    void recordAlong(PlaybackTimebase course, long now);

    /** Ends the recording. */
    void stopRecording();
}
