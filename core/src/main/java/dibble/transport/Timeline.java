package dibble.transport;

import dibble.midi.MidiTrack;
import dibble.recording.Chase;
import dibble.time.TempoMap;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.stream.Stream;

/** Channel messages of several lanes in the order of their time, in flat arrays. Immutable. */
public final class Timeline {
    private final long[] nanos;
    private final int[] lanes;
    private final int[] messages;
    private final long length;

    private Timeline(long[] nanos, int[] lanes, int[] messages, long length) {
        this.nanos = nanos;
        this.lanes = lanes;
        this.messages = messages;
        this.length = length;
    }

    /**
     * Merges tracks; the number of a lane is that of its track. Equal times keep the order of the tracks.
     *
     * @param tempo how ticks become time
     */
    public static Timeline of(List<MidiTrack> tracks, TempoMap tempo) {
        int[] at = new int[tracks.size()];
        int count = 0;
        PriorityQueue<Integer> next = new PriorityQueue<>(
                Comparator.<Integer>comparingLong(lane -> tracks.get(lane).tick(at[lane]))
                        .thenComparing(lane -> lane));
        for (int lane = 0; lane < at.length; lane++) {
            count += channelMessages(tracks.get(lane));
            if (findMessage(tracks.get(lane), at, lane)) {
                next.add(lane);
            }
        }
        long[] nanos = new long[count];
        int[] lanes = new int[count];
        int[] messages = new int[count];
        for (int i = 0; i < count; i++) {
            int lane = next.poll();
            MidiTrack track = tracks.get(lane);
            nanos[i] = tempo.nanos(track.tick(at[lane]));
            lanes[i] = lane;
            messages[i] = track.message(at[lane]);
            at[lane]++;
            if (findMessage(track, at, lane)) {
                next.add(lane);
            }
        }
        long end = tracks.stream().mapToLong(MidiTrack::endTick).max().orElse(0);
        return new Timeline(nanos, lanes, messages, tempo.nanos(end));
    }

    private static int channelMessages(MidiTrack track) {
        int count = 0;
        for (int i = 0; i < track.size(); i++) {
            count += track.isChannelMessage(i) ? 1 : 0;
        }
        return count;
    }

    /** Goes on to the next channel message of a lane; false where there is none. */
    private static boolean findMessage(MidiTrack track, int[] at, int lane) {
        while (at[lane] < track.size() && !track.isChannelMessage(at[lane])) {
            at[lane]++;
        }
        return at[lane] < track.size();
    }

    /**
     * One lane of messages at given times, which rise.
     *
     * @param length nanoseconds from the start to the end
     */
    public static Timeline of(long[] nanos, int[] messages, long length) {
        return new Timeline(nanos.clone(), new int[nanos.length], messages.clone(), length);
    }

    public int size() {
        return nanos.length;
    }

    /**
     * What holds at a time in each lane: programs, controllers, bend and pressure that came before it.
     *
     * @return by lane, the messages in their order
     */
    public List<List<Integer>> chase(long time, int laneCount) {
        List<Chase> chases = Stream.generate(Chase::new).limit(laneCount).toList();
        for (int i = 0; i < nanos.length && nanos[i] < time; i++) {
            chases.get(lanes[i]).add(messages[i]);
        }
        return chases.stream().map(Chase::messages).toList();
    }

    /** Nanoseconds from the start to event {@code i}. */
    public long nanos(int i) {
        return nanos[i];
    }

    public int lane(int i) {
        return lanes[i];
    }

    public int message(int i) {
        return messages[i];
    }

    /** Nanoseconds from the start to the end of the longest track. */
    public long length() {
        return length;
    }

    /** The number of the first event at or after a time. */
    public int firstAt(long time) {
        int low = 0;
        int high = nanos.length;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (nanos[middle] < time) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }
}
