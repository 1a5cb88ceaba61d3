package dibble.recording;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What is on a clip, found once: its notes as pairs of on and off, and its controllers, wheels, programs and parameters
 * as lanes. Notes are numbered in the order of their ons. A note that another on of the same key ends has no off of its
 * own; one that nothing ends reaches to the clip's end. Where a clip is for several instruments, those of each are apart.
 * Immutable.
 */
public final class ClipIndex {
    /** Stands for no event, or no note. */
    public static final int NONE = OpenNotes.NONE;

    /**
     * The events of one controller, wheel, program or parameter of a channel, in their order.
     *
     * @param device which of the clip's instruments it is for, in the order of their first events
     * @param channel 0-15
     * @param events the numbers of its events on the clip
     */
    public record Lane(int device, int channel, int[] events) {}

    private final MidiTrack clip;
    private final int[] devices;
    private int[] ons = new int[64];
    private int[] offs = new int[64];
    private long[] ends = new long[64];
    private int count;
    private final int[] noteOf;
    private final List<Lane> lanes = new ArrayList<>();
    private final List<String> deviceNames = new ArrayList<>();

    private ClipIndex(MidiTrack clip) {
        this.clip = clip;
        devices = new int[clip.size()];
        noteOf = new int[clip.size()];
        Arrays.fill(noteOf, NONE);
        OpenNotes open = new OpenNotes();
        Map<String, Integer> named = new HashMap<>();
        List<ControllerLanes> assigning = new ArrayList<>();
        Map<Long, List<Integer>> laneEvents = new LinkedHashMap<>();
        int device = 0;
        for (int i = 0; i < clip.size(); i++) {
            if (clip.isMeta(i, MidiTrack.META_DEVICE)) {
                device = named.computeIfAbsent(clip.text(i), name -> named.size());
                if (deviceNames.size() < named.size()) {
                    deviceNames.add(clip.text(i));
                }
            }
            devices[i] = device;
            if (!clip.isChannelMessage(i)) {
                continue;
            }
            int message = clip.message(i);
            if (ShortMessage.isNote(message)) {
                pair(open, device, message, i);
            } else if (ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE) {
                noteOf[i] = open.at(device, message);
            } else {
                while (assigning.size() <= device) {
                    assigning.add(new ControllerLanes());
                }
                int lane = assigning.get(device).lane(message);
                if (lane != ControllerLanes.NONE) {
                    laneEvents
                            .computeIfAbsent((long) device << 32 | lane, key -> new ArrayList<>())
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

    /** Finds what is on a clip. */
    public static ClipIndex of(MidiTrack clip) {
        return new ClipIndex(clip);
    }

    private void pair(OpenNotes open, int device, int message, int event) {
        boolean starts = ShortMessage.startsNote(message);
        int ended = starts ? open.begin(device, message, count) : open.end(device, message);
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

    /** How many notes there are. */
    public int noteCount() {
        return count;
    }

    /** The number of the event that begins a note. */
    public int on(int note) {
        return ons[note];
    }

    /** The number of the event that ends a note, or {@link #NONE} where that is no off of its own. */
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

    /** Where a note sounds, and one at a time does: {@code device << 11 | channel << 7 | key}. */
    public int slot(int note) {
        return devices[ons[note]] << 11 | channel(note) << 7 | key(note);
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

    /** Which of the clip's instruments an event is for, in the order of their first events. */
    public int device(int event) {
        return devices[event];
    }

    /** How many instruments the clip is for, as far as it names them; 0 where it names none. */
    public int devices() {
        return deviceNames.size();
    }

    /** The id of one of the clip's instruments; empty where it names none. */
    public String deviceName(int device) {
        return device < deviceNames.size() ? deviceNames.get(device) : "";
    }

    /** The lanes, in the order of their first events. */
    public List<Lane> lanes() {
        return List.copyOf(lanes);
    }
}
