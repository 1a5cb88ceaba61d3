package dibble.recording;

import dibble.midi.MiddleC;
import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/**
 * Recorded notes taken apart into tracks. Offs and key pressure go with their notes; what has no key goes to every track
 * that has notes of its channel, since each of them needs its pedals and wheels. All tracks begin and end together.
 *
 * @param piles what becomes of it, in order
 * @param warning what should be known before it is done; empty for nothing
 */
public record Sorting(List<Pile> piles, String warning) {
    /** What it is sorted by. */
    public enum By {
        CHANNEL,
        KEY,
        CHANNEL_AND_KEY,
        RANGE,
        HAND,
        TRACK;

        /** The word that stands for it in a command: {@code channel-and-key}. */
        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /**
     * How it is sorted.
     *
     * @param splits keys at which another range begins, rising; for {@link By#RANGE}
     * @param names of keys, such as those of drums; other keys have the names of their notes
     */
    public record How(By by, List<Integer> splits, Map<Integer, String> names, MiddleC middleC) {
        public How {
            splits = List.copyOf(splits);
            names = Map.copyOf(names);
            if (by == By.RANGE && splits.isEmpty()) {
                throw new IllegalArgumentException("no key to part at (expected one or more)");
            }
            for (int i = 0; i < splits.size(); i++) {
                if (splits.get(i) < 1 || splits.get(i) > 127 || i > 0 && splits.get(i) <= splits.get(i - 1)) {
                    throw new IllegalArgumentException(
                            "parting at key " + splits.get(i) + " (expected 1 to 127, each higher than the last)");
                }
            }
        }

        public static How by(By by) {
            return new How(by, by == By.RANGE ? List.of(60) : List.of(), Map.of(), MiddleC.C4);
        }
    }

    /** One of the tracks that come of it. */
    public record Pile(String name, MidiTrack track) {
        /** How many notes it has. */
        public int notes() {
            int notes = 0;
            for (int i = 0; i < track.size(); i++) {
                notes += track.isChannelMessage(i) && ShortMessage.startsNote(track.message(i)) ? 1 : 0;
            }
            return notes;
        }
    }

    /** Bits of a pile's number: the higher, the later it stands. */
    private static final int WITHOUT_NOTES = 1 << 24;

    private static final int MANY_CHANNELS = 4;

    public Sorting {
        piles = List.copyOf(piles);
    }

    /** An event of the input in its place. */
    private record Event(MidiTrack track, int number, int at, long tick, int message) {}

    /** Sorts what is on one track. */
    public static Sorting of(MidiTrack track, How how) {
        return of(List.of(track), List.of(""), TempoMap.PPQ, how);
    }

    /** Sorts all that is in a file. */
    public static Sorting of(MidiFile file, How how) {
        List<String> names = new ArrayList<>();
        for (int i = 0; i < file.tracks().size(); i++) {
            names.add(file.tracks().get(i).name().orElse("Track " + (i + 1)));
        }
        return of(file.tracks(), names, file.division() > 0 ? file.division() : TempoMap.PPQ, how);
    }

    private static Sorting of(List<MidiTrack> tracks, List<String> names, long quarter, How how) {
        List<Event> events = merged(tracks);
        MidiTrack whole = how.by() == By.HAND ? whole(events) : null;
        boolean[] ofRight = whole == null ? null : Hands.right(whole, quarter);
        int[] pileOf = new int[events.size()];
        int[] endedIn = new int[events.size()];
        Arrays.fill(endedIn, OpenNotes.NONE);
        Map<Integer, BitSet> channels = new TreeMap<>();
        OpenNotes open = new OpenNotes();
        for (int i = 0; i < events.size(); i++) {
            Event event = events.get(i);
            if (ShortMessage.startsNote(event.message)) {
                pileOf[i] = pile(event, how, ofRight != null && ofRight[i]);
                int before = open.begin(event.number, event.message, pileOf[i]);
                endedIn[i] = before == pileOf[i] ? OpenNotes.NONE : before;
                channels.computeIfAbsent(pileOf[i], pile -> new BitSet())
                        .set(event.number << 4 | ShortMessage.channel(event.message));
            } else if (ShortMessage.endsNote(event.message)) {
                pileOf[i] = open.end(event.number, event.message);
            } else {
                pileOf[i] = ShortMessage.kind(event.message) == ShortMessage.KEY_PRESSURE
                        ? open.at(event.number, event.message)
                        : OpenNotes.NONE;
            }
        }
        return new Sorting(piles(tracks, names, events, pileOf, endedIn, channels, how), warning(events, how));
    }

    private static List<Event> merged(List<MidiTrack> tracks) {
        List<Event> events = new ArrayList<>();
        for (int t = 0; t < tracks.size(); t++) {
            MidiTrack track = tracks.get(t);
            for (int i = 0; i < track.size(); i++) {
                if (track.isChannelMessage(i)) {
                    events.add(new Event(track, t, i, track.tick(i), track.message(i)));
                }
            }
        }
        events.sort(Comparator.comparingLong(Event::tick));
        return events;
    }

    private static MidiTrack whole(List<Event> events) {
        MidiTrack.Builder whole = new MidiTrack.Builder();
        events.forEach(event -> whole.add(event.tick, event.message));
        return whole.build();
    }

    private static int pile(Event event, How how, boolean right) {
        int channel = ShortMessage.channel(event.message);
        int key = ShortMessage.data1(event.message);
        return switch (how.by()) {
            case CHANNEL -> channel;
            case KEY -> key;
            case CHANNEL_AND_KEY -> channel << 7 | key;
            case RANGE ->
                (int) how.splits().stream().filter(split -> split <= key).count();
            case HAND -> right ? 0 : 1;
            case TRACK -> event.number;
        };
    }

    private static List<Pile> piles(
            List<MidiTrack> tracks,
            List<String> names,
            List<Event> events,
            int[] pileOf,
            int[] endedIn,
            Map<Integer, BitSet> channels,
            How how) {
        Map<Integer, MidiTrack.Builder> built = new TreeMap<>();
        channels.keySet().forEach(pile -> built.put(pile, new MidiTrack.Builder()));
        for (int i = 0; i < events.size(); i++) {
            Event event = events.get(i);
            int message = event.message;
            boolean hasKey = ShortMessage.isNote(message) || ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE;
            if (hasKey) {
                if (endedIn[i] >= 0) {
                    // A note of another pile that this one ends has no off of its own.
                    built.get(endedIn[i])
                            .add(
                                    event.tick,
                                    ShortMessage.noteOff(
                                            ShortMessage.channel(message),
                                            ShortMessage.data1(message),
                                            ShortMessage.DEFAULT_RELEASE));
                }
                // An off with no on belongs nowhere.
                if (pileOf[i] >= 0) {
                    built.get(pileOf[i]).add(event.tick, message);
                }
                continue;
            }
            int channel = event.number << 4 | ShortMessage.channel(message);
            boolean needed = false;
            for (Map.Entry<Integer, BitSet> pile : channels.entrySet()) {
                if (pile.getValue().get(channel)) {
                    needed = true;
                    built.get(pile.getKey()).add(event.tick, message);
                }
            }
            if (!needed) {
                built.computeIfAbsent(WITHOUT_NOTES, pile -> new MidiTrack.Builder())
                        .add(event.tick, message);
            }
        }
        long end = tracks.stream().mapToLong(MidiTrack::endTick).max().orElse(0);
        List<Pile> piles = new ArrayList<>();
        built.forEach((pile, track) -> piles.add(new Pile(name(pile, names, how), track.build(end))));
        return piles;
    }

    private static String name(int pile, List<String> names, How how) {
        if (pile == WITHOUT_NOTES) {
            return "Without notes";
        }
        return switch (how.by()) {
            case CHANNEL -> "Channel " + (pile + 1);
            case KEY -> key(pile, how);
            case CHANNEL_AND_KEY -> "Channel " + ((pile >>> 7) + 1) + ", " + key(pile & 0x7F, how);
            case RANGE -> {
                int low = pile == 0 ? 0 : how.splits().get(pile - 1);
                int high = pile == how.splits().size() ? 127 : how.splits().get(pile) - 1;
                yield NoteNames.name(low, how.middleC()) + "–" + NoteNames.name(high, how.middleC());
            }
            case HAND -> pile == 0 ? "Right hand" : "Left hand";
            case TRACK -> names.get(pile);
        };
    }

    private static String key(int key, How how) {
        String note = NoteNames.nameAndNumber(key, how.middleC());
        return how.names().containsKey(key) ? how.names().get(key) + " " + key : note;
    }

    /** One player who has a channel for each note, as some controllers do, would be taken apart note by note. */
    private static String warning(List<Event> events, How how) {
        if (how.by() != By.CHANNEL && how.by() != By.CHANNEL_AND_KEY) {
            return "";
        }
        BitSet used = new BitSet();
        int[] sounding = new int[16];
        int changes = 0;
        int notes = 0;
        int last = -1;
        boolean single = true;
        for (Event event : events) {
            int channel = ShortMessage.channel(event.message);
            if (ShortMessage.startsNote(event.message)) {
                used.set(channel);
                single &= ++sounding[channel] == 1;
                changes += channel != last ? 1 : 0;
                notes++;
                last = channel;
            } else if (ShortMessage.endsNote(event.message)) {
                sounding[channel] = Math.max(0, sounding[channel] - 1);
            }
        }
        return single && used.cardinality() >= MANY_CHANNELS && changes > notes * 0.8
                ? "One player seems to use a channel for each note: sorted by channel, what belongs together is taken"
                        + " apart."
                : "";
    }

    /**
     * The piles as a standard MIDI file of type 1: first a track with the tempo, the meter and the markers of another.
     *
     * @param from what was sorted
     */
    public MidiFile file(MidiFile from) {
        List<MidiTrack> out = new ArrayList<>();
        out.add(from.conductor());
        for (Pile pile : piles) {
            MidiTrack.Builder track = new MidiTrack.Builder();
            track.text(0, MidiTrack.META_TRACK_NAME, pile.name());
            for (int i = 0; i < pile.track().size(); i++) {
                track.copy(pile.track(), i);
            }
            out.add(track.build(pile.track().endTick()));
        }
        return new MidiFile(1, from.division(), out);
    }
}
