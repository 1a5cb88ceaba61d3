package dibble.transport;

import dibble.time.Clock;
import dibble.time.TempoMap;

/**
 * The time of an external leader: a clock at the session's nanosecond of the leader. It stops with the leader, and
 * never runs far ahead of its last message. Any thread reads it.
 */
public interface Follower extends Clock {
    /** Sets the tempo of a changed session; ignored while the leader runs. */
    void setTempo(TempoMap next);

    /** The tempo by which beats of the other are places. */
    TempoMap tempo();

    /** Returns true if the other runs. */
    boolean isRunning();

    /** Returns true if it stopped so lately that it may only be going to another place, as at the end of a loop. */
    boolean mayJump();

    /** When it started, or went to another place, on the clock here. */
    long startedAt();

    /** Returns the number of starts and jumps. */
    int jumps();

    /** Returns the position of the last start or jump, in nanoseconds of the session. */
    long jumpedTo();

    /** The tempo of the other now, in quarter notes a minute; 0 where it is not known. */
    double bpm();
}
