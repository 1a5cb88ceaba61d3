package dibble.midi;

import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.function.IntPredicate;

/**
 * Goes through the events of several tracks in the order of time; equal ticks keep the order of the tracks, and within a
 * track that of the file.
 */
public final class TrackMerge {
    /** A place in a track. */
    private static final class Reading {
        final MidiTrack track;
        final int number;
        int at;

        Reading(MidiTrack track, int number) {
            this.track = track;
            this.number = number;
        }

        long tick() {
            return track.tick(at);
        }

        boolean comesBefore(Reading other) {
            return tick() < other.tick() || tick() == other.tick() && number < other.number;
        }
    }

    private final PriorityQueue<Reading> waiting =
            new PriorityQueue<>(Comparator.comparingLong(Reading::tick).thenComparingInt(reading -> reading.number));
    private Reading now;

    /** All tracks. */
    public TrackMerge(List<MidiTrack> tracks) {
        this(tracks, track -> true);
    }

    /** @param taken which tracks take part, by their numbers from 0 */
    public TrackMerge(List<MidiTrack> tracks, IntPredicate taken) {
        for (int i = 0; i < tracks.size(); i++) {
            if (taken.test(i) && tracks.get(i).size() > 0) {
                waiting.add(new Reading(tracks.get(i), i));
            }
        }
    }

    /** Goes to the next event, at first to the first one; false where there is none. */
    public boolean next() {
        if (now != null && ++now.at < now.track.size()) {
            Reading other = waiting.peek();
            if (other == null || now.comesBefore(other)) {
                return true;
            }
            waiting.add(now);
        }
        now = waiting.poll();
        return now != null;
    }

    /** The number of the track, from 0. */
    public int track() {
        return now.number;
    }

    /** The number of the event in its track. */
    public int at() {
        return now.at;
    }

    /** The tick of the event. */
    public long tick() {
        return now.tick();
    }
}
