package dibble.transport;

import dibble.midi.MidiTrack;
import dibble.midi.NeutralValues;
import dibble.midi.ShortMessage;
import dibble.midi.Status;
import dibble.recording.Chase;
import dibble.recording.TrackVoice;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.stream.IntStream;

/**
 * Channel and system exclusive messages of several lanes in the order of their time, in flat arrays. Immutable. A piece
 * of system exclusive that goes on is passed over: only whole messages are played.
 */
public final class Timeline {
    private static final int OWN_CHANNELS = -1;

    private final TempoMap tempo;
    private final long[] nanos;
    private final int[] lanes;
    private final int[] messages;

    /** By event; null where no lane has any. */
    private final byte[][] exclusives;

    private final List<Chase> starts;
    private final long length;

    /**
     * The content of a lane.
     *
     * @param sound messages of its part's sound, on channel 0; empty for several channels
     * @param oneChannel whether all of it is for one channel, so that its messages are on channel 0
     * @param track the track of the events: at equal times, resets of wheels and pedals come first, so that a track
     *     that moves them at that moment prevails; then tracks keep their order, and the events of each theirs
     */
    public record Clip(TrackVoice.Events voice, int[] sound, boolean oneChannel, int track) {
        /** Returns a clip whose events are played as they are. */
        public static Clip of(MidiTrack events, int track) {
            return new Clip(new TrackVoice.Events(events, null), new int[0], false, track);
        }

        /** Returns the clip of a voice. @param sound messages of the sound that its part has */
        public static Clip of(TrackVoice voice, int[] sound, int track) {
            return new Clip(voice.events(), sound, voice.part().isPresent(), track);
        }

        /** Returns true for a clip that is laid out alike: events are compared by identity. */
        public boolean isSame(Clip other) {
            return events() == other.events()
                    && track == other.track
                    && oneChannel == other.oneChannel
                    && Arrays.equals(sound, other.sound);
        }

        private MidiTrack events() {
            return voice.clip();
        }

        private int message(int i) {
            return oneChannel ? ShortMessage.onChannel(events().message(i), 0) : events().message(i);
        }

        private boolean isPlayed(int i) {
            return events().isChannelMessage(i) || isExclusive(i);
        }

        private boolean comesToRest(int i) {
            return events().isChannelMessage(i) && NeutralValues.isAtRest(events().message(i));
        }

        private boolean isExclusive(int i) {
            byte[] data = events().status(i) == Status.EXCLUSIVE ? events().data(i) : null;
            return data != null && Status.endsExclusive(data);
        }

        private Chase start() {
            MidiTrack.Builder played = new MidiTrack.Builder();
            for (int i = 0; i < events().size(); i++) {
                if (events().isChannelMessage(i) && !ShortMessage.isNote(events().message(i))) {
                    played.add(events().tick(i), message(i));
                }
            }
            return Chase.start(played.build(), sound);
        }
    }

    /**
     * Merges clips; the number of a lane is that of its clip.
     *
     * @param tempo how ticks become time
     */
    public Timeline(List<Clip> clips, TempoMap tempo) {
        this.tempo = tempo;
        int[] at = new int[clips.size()];
        int count = 0;
        PriorityQueue<Integer> next = new PriorityQueue<>(Comparator.<Integer>comparingLong(
                        lane -> clips.get(lane).events().tick(at[lane]))
                .thenComparingInt(lane -> clips.get(lane).comesToRest(at[lane]) ? 0 : 1)
                .thenComparingInt(lane -> clips.get(lane).track)
                .thenComparingInt(lane -> clips.get(lane).voice.position(at[lane])));
        for (int lane = 0; lane < at.length; lane++) {
            count += played(clips.get(lane));
            if (find(clips.get(lane), at, lane)) {
                next.add(lane);
            }
        }
        nanos = new long[count];
        lanes = new int[count];
        messages = new int[count];
        byte[][] found = null;
        for (int i = 0; i < count; i++) {
            int lane = next.poll();
            Clip clip = clips.get(lane);
            nanos[i] = tempo.nanos(clip.events().tick(at[lane]));
            lanes[i] = lane;
            if (clip.events().isChannelMessage(at[lane])) {
                messages[i] = clip.message(at[lane]);
            } else {
                found = found == null ? new byte[count][] : found;
                found[i] = whole(clip.events().data(at[lane]));
            }
            at[lane]++;
            if (find(clip, at, lane)) {
                next.add(lane);
            }
        }
        exclusives = found;
        starts = clips.stream().map(Clip::start).toList();
        length = tempo.nanos(
                clips.stream().mapToLong(clip -> clip.events().endTick()).max().orElse(0));
    }

    /** Merges tracks that are played as they are. */
    public static Timeline of(List<MidiTrack> tracks, TempoMap tempo) {
        return new Timeline(
                IntStream.range(0, tracks.size())
                        .mapToObj(track -> Clip.of(tracks.get(track), track))
                        .toList(),
                tempo);
    }

    private static int played(Clip clip) {
        int count = 0;
        for (int i = 0; i < clip.events().size(); i++) {
            count += clip.isPlayed(i) ? 1 : 0;
        }
        return count;
    }

    /** Goes on to the next message of a lane that is played; false where there is none. */
    private static boolean find(Clip clip, int[] at, int lane) {
        while (at[lane] < clip.events().size() && !clip.isPlayed(at[lane])) {
            at[lane]++;
        }
        return at[lane] < clip.events().size();
    }

    private static byte[] whole(byte[] data) {
        byte[] whole = new byte[data.length + 1];
        whole[0] = (byte) Status.EXCLUSIVE;
        System.arraycopy(data, 0, whole, 1, data.length);
        return whole;
    }

    /** Returns the conversion of ticks to its time. */
    public TempoMap tempo() {
        return tempo;
    }

    /** Returns the number of events. */
    public int size() {
        return nanos.length;
    }

    /** Nanoseconds from the start to event {@code i}. */
    public long nanos(int i) {
        return nanos[i];
    }

    /** The number of the lane that event {@code i} is for. */
    public int lane(int i) {
        return lanes[i];
    }

    /** The channel message that event {@code i} is, or 0 where it is system exclusive. */
    public int message(int i) {
        return messages[i];
    }

    /** The system exclusive message that event {@code i} is; null for all others. */
    public byte[] exclusive(int i) {
        return exclusives == null ? null : exclusives[i];
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

    /** Returns the state of a lane before anything is played. */
    Chase start(int lane) {
        return starts.get(lane);
    }

    /** Returns the state by lane at a time: the initial one, and programs, controllers, bend and pressure before it. */
    List<Chase> chase(long time) {
        List<Chase> chases = new ArrayList<>();
        starts.forEach(start -> chases.add(new Chase(start)));
        for (int i = 0; i < nanos.length && nanos[i] < time; i++) {
            chases.get(lanes[i]).add(messages[i]);
        }
        return chases;
    }
}
