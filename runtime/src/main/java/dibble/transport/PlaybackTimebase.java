package dibble.transport;

import static dibble.text.CoreText.say;

import dibble.text.UserException;
import dibble.time.TempoMap;

/**
 * The mapping from clock time to musical position: a tempo map, possibly with a loop. Everything that moves with the
 * transport (tracks, click, clock) reads the same timebase. Immutable.
 *
 * @param place the start in the music, in nanoseconds of the tempo map
 * @param at the time of the start on the clock, which may be in the future
 * @param loop the repeated range, or null
 */
public record PlaybackTimebase(TempoMap tempo, long place, long at, Loop loop) {
    /**
     * A stretch that is repeated.
     *
     * @param from its first tick
     * @param to the tick behind it
     */
    public record Loop(long from, long to) {
        public Loop {
            if (from < 0 || to <= from) {
                throw new UserException(say("course.loop-from-tick-to-expected", from, to));
            }
        }
    }

    /** One that does not loop. */
    public static PlaybackTimebase of(TempoMap tempo, long place, long at) {
        return new PlaybackTimebase(tempo, place, at, null);
    }

    /** Returns true if another course continues this one at its own beginning, with another tempo or loop. */
    public boolean leadsOn(PlaybackTimebase next) {
        long here = tempo.ticks(position(next.at));
        long apart = Math.abs(next.place - next.tempo.nanos(here));
        return apart <= tempo.nanos(here + 1) - tempo.nanos(here) + next.tempo.nanos(here + 1) - next.tempo.nanos(here);
    }

    /** Returns the start of the loop, in nanoseconds of the tempo map. */
    public long loopFrom() {
        return tempo.nanos(loop.from());
    }

    /** Returns the end of the loop. */
    public long loopTo() {
        return tempo.nanos(loop.to());
    }

    /** Returns the number of completed passes at a time of the clock. */
    public int pass(long now) {
        long over = loop == null ? -1 : place + now - at - loopTo();
        return over < 0 ? 0 : 1 + (int) (over / (loopTo() - loopFrom()));
    }

    /**
     * Returns the position at a time of the clock, in nanoseconds of the tempo map; the start position before the
     * start.
     */
    public long position(long now) {
        int pass = pass(now);
        return now <= at ? place : pass == 0 ? place + now - at : loopFrom() + now - startOf(pass);
    }

    /** When a pass begins, on the clock; pass 0 at {@link #at}. */
    public long startOf(int pass) {
        return pass == 0 ? at : at + loopTo() - place + (pass - 1) * (loopTo() - loopFrom());
    }

    /** When it comes to a place in one of its passes, on the clock. */
    public long time(long nanos, int pass) {
        return pass == 0 ? at + nanos - place : startOf(pass) + nanos - loopFrom();
    }

    /**
     * Returns the course that goes on from here with another tempo map, which holds from the last whole tick on: as in a
     * take, where a tempo begins at a tick.
     */
    public PlaybackTimebase withTempo(TempoMap other, long now) {
        long position = position(now);
        long tick = tempo.tickAtOrBefore(position);
        long next = other.nanos(tick) + position - tempo.nanos(tick);
        // In the last tick of a loop, it stays in its pass.
        boolean isInLoop = loop != null && position < loopTo();
        return new PlaybackTimebase(
                other, isInLoop ? Math.min(next, other.nanos(loop.to()) - 1) : next, Math.max(now, at), loop);
    }
}
