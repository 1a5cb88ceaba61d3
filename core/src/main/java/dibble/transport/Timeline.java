package dibble.transport;

import dibble.midi.MidiTrack;
import dibble.recording.Chase;
import dibble.time.TempoMap;
import java.util.List;
import java.util.stream.IntStream;
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
        int[] offsets = new int[tracks.size() + 1];
        for (int i = 0; i < tracks.size(); i++) {
            offsets[i + 1] = offsets[i] + tracks.get(i).size();
        }
        int[] laneOf = new int[offsets[tracks.size()]];
        for (int i = 0; i < tracks.size(); i++) {
            java.util.Arrays.fill(laneOf, offsets[i], offsets[i + 1], i);
        }
        int[] order = IntStream.range(0, laneOf.length)
                .filter(e -> tracks.get(laneOf[e]).isChannelMessage(e - offsets[laneOf[e]]))
                .boxed()
                .sorted((a, b) -> Long.compare(
                        tracks.get(laneOf[a]).tick(a - offsets[laneOf[a]]),
                        tracks.get(laneOf[b]).tick(b - offsets[laneOf[b]])))
                .mapToInt(Integer::intValue)
                .toArray();
        long[] nanos = new long[order.length];
        int[] lanes = new int[order.length];
        int[] messages = new int[order.length];
        long end = tracks.stream().mapToLong(MidiTrack::endTick).max().orElse(0);
        for (int i = 0; i < order.length; i++) {
            lanes[i] = laneOf[order[i]];
            MidiTrack track = tracks.get(lanes[i]);
            int at = order[i] - offsets[lanes[i]];
            nanos[i] = tempo.nanos(track.tick(at));
            messages[i] = track.message(at);
        }
        return new Timeline(nanos, lanes, messages, tempo.nanos(end));
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
