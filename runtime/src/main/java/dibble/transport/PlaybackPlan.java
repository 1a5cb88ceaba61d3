package dibble.transport;

import java.util.List;
import java.util.function.LongConsumer;

/**
 * What a {@link Player} plays: where the music is, its events, and where each lane of them goes. Immutable; another
 * takes its place while it plays, by one reference.
 *
 * @param lanes for each lane of the timeline, who hears it
 */
public record PlaybackPlan(PlaybackTimebase course, Timeline timeline, List<PlannedTrack> lanes) {
    /** Where messages of a lane go. Called on the player's thread. Two that are equal lead to the same place. */
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
     * Plays all of it at once, from where its course begins; what still sounds at the end is ended there.
     *
     * @param clock told the time of what is played next, on the clock of the course
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
