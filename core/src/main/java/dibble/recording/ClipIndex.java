package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * An index of a clip: its notes as pairs of on and off, and its controllers, wheels, programs and parameters as lanes.
 * Notes are numbered in the order of their ons. A note that another on of the same key ends has no off; an unended one
 * extends to the end of the clip. Notes and lanes of different destinations are separate. Immutable.
 */
public final class ClipIndex {
    /** No event, or no note. */
    public static final int NONE = OpenNotes.NONE;

    /**
     * The events of one controller, wheel, program or parameter of a channel, in their order.
     *
     * @param destination the number of its destination, as {@link ClipIndex#destination} counts them
     * @param channel 0-15
     * @param events the numbers of its events on the clip
     */
    public record Lane(int destination, int channel, int[] events) {}

    private final MidiTrack clip;
    private final int[] destinations;
    private int[] ons = new int[64];
    private int[] offs = new int[64];
    private long[] ends = new long[64];
    private int count;
    private final int[] noteOf;
    private final List<Lane> lanes = new ArrayList<>();
    private final DestinationNumbers destinationNumbers = new DestinationNumbers();

    private ClipIndex(MidiTrack clip) {
        this.clip = clip;
        destinations = numberDestinations(clip);
        noteOf = new int[clip.size()];
        Arrays.fill(noteOf, NONE);
        OpenNotes open = new OpenNotes();
        List<ControllerLanes> assigning = new ArrayList<>();
        Map<Long, List<Integer>> laneEvents = new LinkedHashMap<>();
        for (int i = 0; i < clip.size(); i++) {
            if (!clip.isChannelMessage(i)) {
                continue;
            }
            int message = clip.message(i);
            int destination = destinations[i];
            if (ShortMessage.isNote(message)) {
                pair(open, destination, message, i);
            } else if (ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE) {
                noteOf[i] = open.at(destination, message);
            } else {
                while (assigning.size() <= destination) {
                    assigning.add(new ControllerLanes());
                }
                int lane = assigning.get(destination).lane(message);
                if (lane != ControllerLanes.NONE) {
                    laneEvents
                            .computeIfAbsent((long) destination << 32 | lane, key -> new ArrayList<>())
                            .add(i);
                }
            }
        }
        open.forEach(note -> ends[note] = clip.endTick());
        laneEvents.forEach((key, events) -> lanes.add(new Lane(
                (int) (key >>> 32),
                ShortMessage.channel(clip.message(events.get(0))),
                events.stream().mapToInt(Integer::intValue).toArray())));
    }

    /** Indexes a clip. */
    public static ClipIndex of(MidiTrack clip) {
        return new ClipIndex(clip);
    }

    /** Numbers destinations in the order of their first channel messages; those of other events follow. */
    private int[] numberDestinations(MidiTrack events) {
        int[] numbered = new int[events.size()];
        for (boolean ofMessages : new boolean[] {true, false}) {
            for (int i = 0; i < events.size(); i++) {
                if (events.isChannelMessage(i) == ofMessages) {
                    numbered[i] = destinationNumbers.number(events.destination(i));
                }
            }
        }
        if (destinationNumbers.count() == 0) {
            destinationNumbers.number(MidiTrack.NO_DESTINATION);
        }
        return numbered;
    }

    private void pair(OpenNotes open, int destination, int message, int event) {
        boolean starts = ShortMessage.startsNote(message);
        int ended = starts ? open.begin(destination, message, count) : open.end(destination, message);
        if (ended != NONE) {
            ends[ended] = clip.tick(event);
        }
        if (starts) {
            if (count == ons.length) {
                ons = Arrays.copyOf(ons, count * 2);
                offs = Arrays.copyOf(offs, count * 2);
                ends = Arrays.copyOf(ends, count * 2);
            }
            ons[count] = event;
            offs[count] = NONE;
            noteOf[event] = count++;
        } else if (ended != NONE) {
            offs[ended] = event;
            noteOf[event] = ended;
        }
    }

    /** Returns the number of notes. */
    public int noteCount() {
        return count;
    }

    /** The number of the event that begins a note. */
    public int on(int note) {
        return ons[note];
    }

    /** Returns the event that ends a note, or {@link #NONE} if the note has no off. */
    public int off(int note) {
        return offs[note];
    }

    /** The tick at which a note begins. */
    public long start(int note) {
        return clip.tick(ons[note]);
    }

    /** The tick at which a note ends. */
    public long end(int note) {
        return ends[note];
    }

    /** The key of a note, 0-127. */
    public int key(int note) {
        return ShortMessage.data1(clip.message(ons[note]));
    }

    /** The channel of a note, 0-15. */
    public int channel(int note) {
        return ShortMessage.channel(clip.message(ons[note]));
    }

    /** Returns the slot of a note, in which one note sounds at a time: {@code destination << 11 | channel << 7 | key}. */
    public int slot(int note) {
        return destinations[ons[note]] << 11 | channel(note) << 7 | key(note);
    }

    /** The velocity with which a note begins, 1-127. */
    public int velocity(int note) {
        return ShortMessage.data2(clip.message(ons[note]));
    }

    /** The velocity with which a note is let go, 0-127. */
    public int releaseVelocity(int note) {
        int off = offs[note] == NONE ? 0 : clip.message(offs[note]);
        return ShortMessage.kind(off) == ShortMessage.NOTE_OFF ? ShortMessage.data2(off) : ShortMessage.DEFAULT_RELEASE;
    }

    /** The note that an event begins, ends or presses, or {@link #NONE}. */
    public int noteOf(int event) {
        return noteOf[event];
    }

    /** Returns the number of the destination of an event, in the order of their first channel messages. */
    public int destination(int event) {
        return destinations[event];
    }

    /** Returns how many destinations the clip has; an empty clip has the track's. */
    public int destinationCount() {
        return destinationNumbers.count();
    }

    /** Returns the destination of a number, as events name it. */
    public String destinationName(int destination) {
        return destinationNumbers.name(destination);
    }

    /** The lanes, in the order of their first events. */
    public List<Lane> lanes() {
        return List.copyOf(lanes);
    }
}
