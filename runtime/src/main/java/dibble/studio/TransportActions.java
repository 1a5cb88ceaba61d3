package dibble.studio;

import dibble.transport.Follower;
import dibble.transport.PlaybackTimebase;
import java.util.Set;

/** What {@link TransportState} moves: tracks that play, a click, a clock that others follow, a recorder. */
interface TransportActions {
    /** How long before the music those need to be told who follow, in nanoseconds. */
    long readiness();

    /**
     * Has tracks, click and clock begin.
     *
     * @param silent the ids of tracks that are not heard
     * @param countIn bars of clicks before the course begins
     * @param click whether its beats are clicked
     */
    void play(PlaybackTimebase course, Set<String> silent, int countIn, boolean click);

    /** Plays tracks along somebody else's clock. @param entry the position at which they begin */
    void playAlong(Follower other, long entry, PlaybackTimebase.Loop loop, Set<String> silent);

    /** Has other tracks be silent from now on. */
    void setSilent(Set<String> silent);

    /** Goes on along another course. */
    void change(PlaybackTimebase course);

    /** Stops tracks, click and clock; what they hold is let go. */
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
