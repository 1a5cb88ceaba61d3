package dibble.recording;

import static dibble.text.CoreText.say;

import dibble.midi.MidiFile;
import dibble.midi.MidiTrack;
import dibble.midi.NoteNames;
import dibble.midi.ShortMessage;
import dibble.midi.TrackMerge;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** Sorts tracks in two passes: first the pile of each note, then the events that go with it. */
final class Sorter {
    /** Numbers of piles: the higher, the later they stand. */
    private static final int WITHOUT_NOTES = 1 << 24;

    /** The key of events without key or channel, by their track. */
    private static final int OTHERS = 1 << 25;

    private static final int MANY_CHANNELS = 4;

    private final List<MidiTrack> tracks;
    private final List<String> names;
    private final Sorting.How how;
    private final boolean others;
    private final boolean[] ofRight;

    /** The pile of each channel message with a key, by its number in order of time. */
    private final int[] pileOf;

    /** The pile of a note that another one ends, where that is another pile. */
    private final int[] endedIn;

    /** By the numbers of notes that strike a key of another track again: the off that goes before them. */
    private final Map<Integer, Integer> offsBefore = new HashMap<>();

    /** The offs of keys that another track still holds, or that went before a note. */
    private final BitSet leftOut = new BitSet();

    /** By pile, channel and key. */
    private final Map<List<Integer>, Key> keysDown = new HashMap<>();

    /** A key that sounds until all tracks that hold it have released it. */
    private static final class Key {
        final Set<Integer> heldBy = new HashSet<>();
        int struckBy;
        long struckAt;
    }

    /** By track and channel: the piles that have notes of it. */
    private final Map<Integer, int[]> pilesOf = new HashMap<>();

    private final Map<Integer, MidiTrack.Builder> built = new TreeMap<>();

    Sorter(List<MidiTrack> tracks, List<String> names, long quarter, Sorting.How how, boolean others) {
        this.tracks = tracks.stream().map(Clips::closed).toList();
        this.names = names;
        this.how = how;
        this.others = others;
        int count = 0;
        for (MidiTrack track : this.tracks) {
            for (int i = 0; i < track.size(); i++) {
                count += track.isChannelMessage(i) ? 1 : 0;
            }
        }
        pileOf = new int[count];
        endedIn = new int[count];
        ofRight = how.by() == Sorting.By.HAND ? Hands.right(whole(), quarter) : null;
    }

    /** Goes through all events. */
    private interface Taker {
        /** @param number of a channel message in the order of time; else that of the next one */
        void take(TrackMerge event, MidiTrack track, int number);
    }

    private void each(Taker taker) {
        int number = 0;
        for (TrackMerge events = new TrackMerge(tracks); events.next(); ) {
            MidiTrack track = tracks.get(events.track());
            taker.take(events, track, number);
            number += track.isChannelMessage(events.at()) ? 1 : 0;
        }
    }

    private MidiTrack whole() {
        MidiTrack.Builder whole = new MidiTrack.Builder();
        each((event, track, number) -> {
            if (track.isChannelMessage(event.at())) {
                whole.copy(track, event.at());
            }
        });
        return whole.build();
    }

    Sorting sorting() {
        OpenNotes open = new OpenNotes();
        each((event, track, number) -> {
            if (track.isChannelMessage(event.at())) {
                choose(open, event, track.message(event.at()), number);
            }
        });
        each((event, track, number) -> {
            if (track.isChannelMessage(event.at())) {
                put(event, track.message(event.at()), number);
            } else if (others) {
                putOther(event.track(), track, event.at());
            }
        });
        long end = tracks.stream().mapToLong(MidiTrack::endTick).max().orElse(0);
        List<Sorting.Pile> piles = new ArrayList<>();
        built.forEach((pile, track) -> piles.add(new Sorting.Pile(name(pile, names, how), track.build(end))));
        return new Sorting(piles, warning());
    }

    private void choose(OpenNotes open, TrackMerge event, int message, int number) {
        int track = event.track();
        endedIn[number] = OpenNotes.NONE;
        if (ShortMessage.startsNote(message)) {
            int pile = pile(track, message, ofRight != null && ofRight[number]);
            pileOf[number] = pile;
            int before = open.begin(track, message, pile);
            if (before != OpenNotes.NONE && before != pile && release(track, before, message)) {
                endedIn[number] = before;
            }
            strike(track, pile, message, event.tick(), number);
            built.computeIfAbsent(pile, key -> new MidiTrack.Builder());
            pilesOf.merge(track << 4 | ShortMessage.channel(message), new int[] {pile}, (all, one) -> with(all, pile));
        } else if (ShortMessage.endsNote(message)) {
            pileOf[number] = open.end(track, message);
            if (pileOf[number] != OpenNotes.NONE && !release(track, pileOf[number], message)) {
                leftOut.set(number);
                Key key = keysDown.get(sound(pileOf[number], message));
                if (key.struckAt == event.tick()) {
                    // It ends where the other begins, and comes later only because it is on a later track.
                    offsBefore.replace(key.struckBy, message);
                }
            }
        } else {
            pileOf[number] =
                    ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE ? open.at(track, message) : OpenNotes.NONE;
        }
    }

    private void strike(int track, int pile, int message, long tick, int number) {
        Key key = keysDown.computeIfAbsent(sound(pile, message), none -> new Key());
        key.heldBy.add(track);
        if (key.heldBy.size() > 1) {
            offsBefore.put(number, OpenNotes.off(message));
        }
        key.struckBy = number;
        key.struckAt = tick;
    }

    /** A track releases a key; true if it was the last that held it. */
    private boolean release(int track, int pile, int message) {
        Key key = keysDown.get(sound(pile, message));
        key.heldBy.remove(track);
        return key.heldBy.isEmpty();
    }

    private static List<Integer> sound(int pile, int message) {
        return List.of(pile, ShortMessage.channel(message), ShortMessage.data1(message));
    }

    private static int[] with(int[] all, int pile) {
        for (int one : all) {
            if (one == pile) {
                return all;
            }
        }
        int[] more = Arrays.copyOf(all, all.length + 1);
        more[all.length] = pile;
        return more;
    }

    private int pile(int track, int message, boolean right) {
        int channel = ShortMessage.channel(message);
        int key = ShortMessage.data1(message);
        return switch (how.by()) {
            case CHANNEL -> channel;
            case KEY -> key;
            case CHANNEL_AND_KEY -> channel << 7 | key;
            case RANGE ->
                (int) how.splits().stream().filter(split -> split <= key).count();
            case HAND -> right ? 0 : 1;
            case TRACK -> track;
        };
    }

    private void put(TrackMerge event, int message, int number) {
        if (ShortMessage.isNote(message) || ShortMessage.kind(message) == ShortMessage.KEY_PRESSURE) {
            if (endedIn[number] >= 0) {
                // A note of another pile that this on ends has no off.
                built.get(endedIn[number])
                        .add(
                                event.tick(),
                                ShortMessage.noteOff(
                                        ShortMessage.channel(message),
                                        ShortMessage.data1(message),
                                        ShortMessage.DEFAULT_RELEASE));
            }
            // An off with no on belongs nowhere.
            if (pileOf[number] >= 0 && !leftOut.get(number)) {
                Integer off = offsBefore.get(number);
                if (off != null) {
                    built.get(pileOf[number]).add(event.tick(), off);
                }
                built.get(pileOf[number]).add(event.tick(), message);
            }
            return;
        }
        int[] needed = pilesOf.get(event.track() << 4 | ShortMessage.channel(message));
        if (needed == null) {
            built.computeIfAbsent(WITHOUT_NOTES, pile -> new MidiTrack.Builder())
                    .add(event.tick(), message);
        } else {
            for (int pile : needed) {
                built.get(pile).add(event.tick(), message);
            }
        }
    }

    /**
     * Adds lyrics, texts, system exclusive and other events to the pile of all notes of their track, or to a separate
     * pile.
     */
    private void putOther(int number, MidiTrack track, int at) {
        if (MidiFile.isConducted(track, at) || track.isMeta(at, MidiTrack.META_TRACK_NAME)) {
            return;
        }
        int only = OpenNotes.NONE;
        for (int channel = 0; channel < 16; channel++) {
            for (int pile : pilesOf.getOrDefault(number << 4 | channel, new int[0])) {
                only = only == OpenNotes.NONE || only == pile ? pile : OTHERS | number;
            }
        }
        built.computeIfAbsent(only == OpenNotes.NONE ? OTHERS | number : only, pile -> new MidiTrack.Builder())
                .copy(track, at);
    }

    /**
     * Warns about a player with a channel for each note, as some controllers send: sorting would separate the notes.
     */
    private String warning() {
        if (how.by() != Sorting.By.CHANNEL && how.by() != Sorting.By.CHANNEL_AND_KEY) {
            return "";
        }
        ChannelUse use = new ChannelUse();
        each((event, track, number) -> {
            if (track.isChannelMessage(event.at())) {
                use.take(track.message(event.at()));
            }
        });
        return use.isOneANote() ? say("sorter.one-player-seems-to-use") : "";
    }

    /** The use of channels by a player. */
    private static final class ChannelUse {
        private final BitSet used = new BitSet();
        private final int[] sounding = new int[16];
        private int changes;
        private int notes;
        private int last = -1;
        private boolean single = true;

        void take(int message) {
            int channel = ShortMessage.channel(message);
            if (ShortMessage.startsNote(message)) {
                used.set(channel);
                single &= ++sounding[channel] == 1;
                changes += channel != last ? 1 : 0;
                notes++;
                last = channel;
            } else if (ShortMessage.endsNote(message)) {
                sounding[channel] = Math.max(0, sounding[channel] - 1);
            }
        }

        boolean isOneANote() {
            return single && used.cardinality() >= MANY_CHANNELS && changes > notes * 0.8;
        }
    }

    private static String name(int pile, List<String> names, Sorting.How how) {
        if (pile == WITHOUT_NOTES) {
            return say("sorter.without-notes");
        }
        if ((pile & OTHERS) != 0) {
            return say("sorter.other-events", names.get(pile & ~OTHERS));
        }
        return switch (how.by()) {
            case CHANNEL -> say("sorter.channel", pile + 1);
            case KEY -> key(pile, how);
            case CHANNEL_AND_KEY -> say("sorter.channel-2", (pile >>> 7) + 1, key(pile & 0x7F, how));
            case RANGE -> {
                int low = pile == 0 ? 0 : how.splits().get(pile - 1);
                int high = pile == how.splits().size() ? 127 : how.splits().get(pile) - 1;
                yield NoteNames.name(low, how.middleC()) + "–" + NoteNames.name(high, how.middleC());
            }
            case HAND -> pile == 0 ? say("common.right-hand") : say("common.left-hand");
            case TRACK -> names.get(pile);
        };
    }

    private static String key(int key, Sorting.How how) {
        String note = NoteNames.nameAndNumber(key, how.middleC());
        return how.names().containsKey(key) ? how.names().get(key) + " " + key : note;
    }
}
