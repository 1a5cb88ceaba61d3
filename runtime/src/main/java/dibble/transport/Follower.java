package dibble.transport;

import dibble.time.Clock;
import dibble.time.TempoMap;

/**
 * The time of somebody else who leads: a clock that is at the session's nanosecond when the other is. It stands still
 * where the other does, and never runs on far beyond what the other has said last. Any thread reads it.
 */
public interface Follower extends Clock {
    /** Gives it the tempo of a session that was changed; while the other runs it keeps what it has. */
    void setTempo(TempoMap next);

    /** The tempo by which beats of the other are places. */
    TempoMap tempo();

    /** Returns true if the other runs. */
    boolean isRunning();

    /** Returns true if it stopped so lately that it may only be going to another place, as at the end of a loop. */
    boolean mayJump();

    /** When it started, or went to another place, on the clock here. */
    long startedAt();

    /** How often it has started, or gone to another place. */
    int jumps();

    /** Where it went when it started or jumped last, in nanoseconds of the session. */
    long jumpedTo();

    /** The tempo of the other now, in quarter notes a minute; 0 where it is not known. */
    double bpm();
}
