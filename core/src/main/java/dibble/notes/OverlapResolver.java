package dibble.notes;

import java.util.BitSet;

/** Resolves overlaps of notes of one key by the rules of {@link Rewrite}. */
final class OverlapResolver {
    private final NoteColumns notes;

    /** Notes that can be shortened or restored: selected ones, except those that were restored. */
    private final BitSet yielding;

    private final BitSet stayed = new BitSet();

    /**
     * The requested positions of notes. They are cut again in each round, since a note that cut them may have been
     * restored.
     */
    private final long[] wantedStart;

    private final long[] wantedEnd;

    OverlapResolver(NoteColumns notes, BitSet selected) {
        this.notes = notes;
        yielding = (BitSet) selected.clone();
        wantedStart = notes.start.clone();
        wantedEnd = notes.end.clone();
    }

    /**
     * Resolves all overlaps.
     *
     * @return the notes that kept their previous position for want of space
     */
    BitSet make() {
        // In each round but the last, a note is restored or must wait for a fixed one, so the rounds are few.
        while (round()) {
            System.arraycopy(wantedStart, 0, notes.start, 0, notes.size);
            System.arraycopy(wantedEnd, 0, notes.end, 0, notes.size);
        }
        return stayed;
    }

    private boolean round() {
        int[] ordered = notes.bySlot();
        boolean again = false;
        for (int i = 1; i < ordered.length; i++) {
            int before = ordered[i - 1];
            int note = ordered[i];
            boolean meet = notes.slot[before] == notes.slot[note]
                    && !notes.gone.get(before)
                    && (notes.start[before] == notes.start[note] || notes.end[before] > notes.start[note]);
            if (meet) {
                again |= notes.start[before] == notes.start[note] ? apart(before, note) : inOrder(before, note);
            }
        }
        return again;
    }

    /** Two that would begin together. @return whether one is elsewhere now */
    private boolean apart(int before, int note) {
        if (notes.isAdded(note)) {
            // A drawn or pasted note replaces the note under it.
            notes.gone.set(before);
            return false;
        }
        return stay(note) || stay(before);
    }

    /** One that would sound into a later one. @return whether one is elsewhere now */
    private boolean inOrder(int before, int note) {
        if (!yielding.get(note) || yielding.get(before) || notes.isAdded(before)) {
            notes.end[before] = notes.start[note];
            return false;
        }
        if (notes.end[before] >= notes.end[note]) {
            return stay(note);
        }
        wantedStart[note] = notes.end[before];
        return true;
    }

    private boolean stay(int note) {
        boolean moved = !notes.isAdded(note)
                && (notes.start[note] != notes.index.start(note) || notes.slot[note] != notes.slotBefore(note));
        if (!moved || !yielding.get(note)) {
            return false;
        }
        notes.reset(note);
        wantedStart[note] = notes.start[note];
        wantedEnd[note] = notes.end[note];
        yielding.clear(note);
        stayed.set(note);
        return true;
    }
}
