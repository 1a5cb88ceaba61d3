package dibble.presentation.notes;

import dibble.recording.ClipIndex;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.IntPredicate;

/** The selected notes of tracks, numbered as in their {@link TrackNotes}. */
public final class NoteSelection {
    private final Map<String, BitSet> notes = new LinkedHashMap<>();

    /** The selected notes of a track. */
    public BitSet of(String track) {
        return notes.getOrDefault(track, new BitSet());
    }

    /** Returns true if a note is selected. */
    public boolean has(String track, int note) {
        return of(track).get(note);
    }

    /** Selects these notes of a track and no others of it. */
    public void set(String track, BitSet selected) {
        if (selected.isEmpty()) {
            notes.remove(track);
        } else {
            notes.put(track, (BitSet) selected.clone());
        }
    }

    /** Selects a note, or deselects it. */
    public void set(String track, int note, boolean on) {
        BitSet of = (BitSet) of(track).clone();
        of.set(note, on);
        set(track, of);
    }

    /** Selects nothing. */
    public void clear() {
        notes.clear();
    }

    /** Returns the number of selected notes. */
    public int count() {
        return notes.values().stream().mapToInt(BitSet::cardinality).sum();
    }

    /** Returns true if nothing is selected. */
    public boolean isEmpty() {
        return notes.isEmpty();
    }

    /** By the ids of tracks. */
    public Map<String, BitSet> byTrack() {
        Map<String, BitSet> copy = new LinkedHashMap<>();
        notes.forEach((track, of) -> copy.put(track, (BitSet) of.clone()));
        return copy;
    }

    /** The notes of a clip of which something is so. */
    static BitSet where(ClipIndex index, IntPredicate is) {
        BitSet found = new BitSet();
        for (int note = 0; note < index.noteCount(); note++) {
            found.set(note, is.test(note));
        }
        return found;
    }
}
