package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.recording.ClipIndex;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;

/** The notes of a clip as they are to be, in columns: those that were there by their numbers, behind them added ones. */
final class NoteColumns {
    final MidiTrack clip;
    final ClipIndex index;

    /** The number of notes before the change. */
    final int there;

    final BitSet gone = new BitSet();
    long[] start;
    long[] end;

    /** Destinations that the clip does not have; their numbers follow those of the index. */
    private final List<String> addedDestinations = new ArrayList<>();

    /** As {@link ClipIndex#slot} has it: where one note sounds at a time. */
    int[] slot;

    int[] velocity;
    int[] release;

    /** Of added notes: the note that they are when they are asked for as they were played, and how far from there. */
    int[] from;

    long[] shift;
    int size;

    NoteColumns(MidiTrack clip, ClipIndex index) {
        this.clip = clip;
        this.index = index;
        there = index.noteCount();
        size = there;
        start = new long[there];
        end = new long[there];
        slot = new int[there];
        velocity = new int[there];
        release = new int[there];
        from = new int[0];
        shift = new long[0];
        for (int note = 0; note < there; note++) {
            reset(note);
            velocity[note] = index.velocity(note);
            release[note] = index.releaseVelocity(note);
        }
    }

    /** Restores the position of a note. */
    void reset(int note) {
        start[note] = index.start(note);
        end[note] = index.end(note);
        slot[note] = slotBefore(note);
    }

    int slotBefore(int note) {
        return index.slot(note);
    }

    boolean isAdded(int note) {
        return note >= there;
    }

    int key(int note) {
        return slot[note] & 0x7F;
    }

    int channel(int note) {
        return slot[note] >>> 7 & 0xF;
    }

    int destination(int note) {
        return slot[note] >>> 11;
    }

    void setKey(int note, int key) {
        slot[note] = slot[note] & ~0x7F | key;
    }

    void setChannel(int note, int channel) {
        slot[note] = slot[note] & ~0x780 | channel << 7;
    }

    String destinationName(int note) {
        int number = destination(note);
        int added = number - index.destinationCount();
        return added < 0 ? index.destinationName(number) : addedDestinations.get(added);
    }

    void setDestination(int note, String name) {
        if (!name.equals(destinationName(note))) {
            slot[note] = slot[note] & 0x7FF | destinationNumber(name) << 11;
        }
    }

    private int destinationNumber(String name) {
        for (int number = 0; number < index.destinationCount(); number++) {
            if (index.destinationName(number).equals(name)) {
                return number;
            }
        }
        if (!addedDestinations.contains(name)) {
            addedDestinations.add(name);
        }
        return index.destinationCount() + addedDestinations.indexOf(name);
    }

    void add(Note note, int destination, int origin, long shiftOfOrigin) {
        if (size == start.length) {
            int more = Math.max(8, size * 2);
            start = Arrays.copyOf(start, more);
            end = Arrays.copyOf(end, more);
            slot = Arrays.copyOf(slot, more);
            velocity = Arrays.copyOf(velocity, more);
            release = Arrays.copyOf(release, more);
        }
        if (size - there == from.length) {
            from = Arrays.copyOf(from, Math.max(8, from.length * 2));
            shift = Arrays.copyOf(shift, from.length);
        }
        start[size] = note.start();
        end[size] = note.end();
        slot[size] = destination << 11 | note.channel() << 7 | note.key();
        velocity[size] = note.velocity();
        release[size] = note.release();
        from[size - there] = origin;
        shift[size - there] = shiftOfOrigin;
        size++;
    }

    /** Returns true if the message with which a note begins is another. */
    boolean isOnChanged(int note) {
        return slot[note] != slotBefore(note) || velocity[note] != index.velocity(note);
    }

    boolean isUnchanged(int note) {
        return !gone.get(note)
                && release[note] == index.releaseVelocity(note)
                && start[note] == index.start(note)
                && end[note] == index.end(note)
                && !isOnChanged(note);
    }

    boolean isUnchanged() {
        if (size > there) {
            return false;
        }
        for (int note = 0; note < there; note++) {
            if (!isUnchanged(note)) {
                return false;
            }
        }
        return true;
    }

    /** The notes that are not gone, slot by slot, in each by their starts, those that were there before added ones. */
    int[] bySlot() {
        int slots = 0;
        for (int note = 0; note < size; note++) {
            slots = Math.max(slots, slot[note] + 1);
        }
        int[] first = new int[slots + 1];
        int left = 0;
        for (int note = 0; note < size; note++) {
            if (!gone.get(note)) {
                first[slot[note] + 1]++;
                left++;
            }
        }
        for (int i = 0; i < slots; i++) {
            first[i + 1] += first[i];
        }
        int[] next = Arrays.copyOf(first, slots);
        int[] ordered = new int[left];
        for (int note = 0; note < size; note++) {
            if (!gone.get(note)) {
                ordered[next[slot[note]]++] = note;
            }
        }
        for (int i = 0; i < slots; i++) {
            sort(ordered, first[i], first[i + 1]);
        }
        return ordered;
    }

    /** Most are in order already: then nothing is sorted. */
    private void sort(int[] notes, int begin, int behind) {
        boolean inOrder = true;
        for (int i = begin + 1; i < behind && inOrder; i++) {
            inOrder = start[notes[i - 1]] <= start[notes[i]];
        }
        if (inOrder) {
            return;
        }
        int count = behind - begin;
        Integer[] sorted = new Integer[count];
        for (int i = 0; i < count; i++) {
            sorted[i] = notes[begin + i];
        }
        // A stable sort of runs: notes that moved a little are nearly in order.
        Arrays.sort(sorted, (a, b) -> Long.compare(start[a], start[b]));
        for (int i = 0; i < count; i++) {
            notes[begin + i] = sorted[i];
        }
    }
}
