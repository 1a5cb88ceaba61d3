package dibble.desktop.notes;

import dibble.recording.ClipIndex;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.IntPredicate;

/** Which notes of which tracks are selected; notes are numbered as on their sheets. Imports no nodes. */
final class Selected {
    private final Map<String, BitSet> notes = new LinkedHashMap<>();

    /** The selected notes of a track. */
    BitSet of(String track) {
        return notes.getOrDefault(track, new BitSet());
    }

    boolean has(String track, int note) {
        return of(track).get(note);
    }

    void set(String track, BitSet selected) {
        if (selected.isEmpty()) {
            notes.remove(track);
        } else {
            notes.put(track, (BitSet) selected.clone());
        }
    }

    void set(String track, int note, boolean on) {
        BitSet of = (BitSet) of(track).clone();
        of.set(note, on);
        set(track, of);
    }

    void clear() {
        notes.clear();
    }

    int count() {
        return notes.values().stream().mapToInt(BitSet::cardinality).sum();
    }

    boolean isEmpty() {
        return notes.isEmpty();
    }

    /** By the ids of tracks. */
    Map<String, BitSet> byTrack() {
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
