package dibble.transport;

import java.util.List;
import java.util.function.LongConsumer;

/**
 * The input of a {@link Player}: the timebase, the events, and the destination of each lane. Immutable; another plan
 * replaces it during playback, by one reference.
 *
 * @param lanes for each lane of the timeline its receiver
 */
public record PlaybackPlan(PlaybackTimebase course, Timeline timeline, List<PlannedTrack> lanes) {
    /** The destination of a lane's messages. Called on the player's thread. Equal ones are the same destination. */
    @FunctionalInterface
    public interface Out {
        void play(int message);

        /** Takes a whole system exclusive message. */
        default void exclusive(byte[] message) {}
    }

    /**
     * A lane.
     *
     * @param name by which it is known in the program that follows
     * @param out where it goes; null where it is not heard
     */
    public record PlannedTrack(String name, Out out) {}

    public PlaybackPlan {
        lanes = List.copyOf(lanes);
    }

    /**
     * Plays everything at once, from the start of the timebase, and ends sounding notes at the end.
     *
     * @param clock receives the time of the next event, on the clock of the timebase
     */
    public void run(LongConsumer clock) {
        clock.accept(course.at());
        PlaybackState playing = new PlaybackState(this, course.at());
        while (!playing.isOver()) {
            clock.accept(playing.due());
            playing.act();
        }
        playing.end();
    }

    /** The same music along another course. */
    public PlaybackPlan along(PlaybackTimebase other) {
        return new PlaybackPlan(other, timeline, lanes);
    }
}
