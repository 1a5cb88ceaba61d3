package dibble.notes;

import dibble.recording.ClipIndex;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Manual changes of notes, except moves. */
public final class ManualChanges {
    private ManualChanges() {}

    /** Adds notes where the clip's first note has its instrument; nothing else changes. */
    public static NoteFunction draw(List<Note> drawn) {
        return notes -> drawn.forEach(note -> notes.add(note, first(notes), ClipIndex.NONE, 0));
    }

    private static int first(Rewrite notes) {
        return notes.index().noteCount() > 0 ? 0 : ClipIndex.NONE;
    }

    /**
     * Copies the selected notes to so many ticks later, and other keys. A copy is, as it was played, what its original
     * was, there.
     */
    public static NoteFunction copy(long ticks, int semitones) {
        return notes -> notes.each(note -> {
            int key = notes.key(note) + semitones;
            if (key >= 0 && key <= 127 && notes.start(note) + ticks >= 0) {
                Note like = note(notes, note).later(ticks);
                notes.add(
                        new Note(like.channel(), key, like.start(), like.end(), like.velocity(), like.release()),
                        note,
                        note,
                        ticks);
            }
        });
    }

    /** Moves notes to another channel, 0-15; on a track for several instruments the channel selects the part. */
    public static NoteFunction onChannel(int channel) {
        return notes -> notes.each(note -> notes.setChannel(note, channel));
    }

    /** Returns a note of a clip as a value. */
    public static Note note(ClipIndex index, int note) {
        return new Note(
                index.channel(note),
                index.key(note),
                index.start(note),
                Math.max(index.start(note) + 1, index.end(note)),
                index.velocity(note),
                index.releaseVelocity(note));
    }

    private static Note note(Rewrite notes, int note) {
        return note(notes.index(), note);
    }

    /** Cuts notes that sound over a tick in two. */
    public static NoteFunction cut(long tick) {
        return notes -> notes.each(note -> {
            if (notes.start(note) < tick && notes.end(note) > tick) {
                Note whole = note(notes, note);
                notes.place(note, whole.start(), tick);
                notes.add(
                        new Note(whole.channel(), whole.key(), tick, whole.end(), whole.velocity(), whole.release()),
                        note,
                        ClipIndex.NONE,
                        0);
            }
        });
    }

    /** Makes one note of those of a key and channel that are selected: from the first's start to the last's end. */
    public static NoteFunction join() {
        return notes -> {
            ClipIndex index = notes.index();
            Map<Integer, Integer> first = new HashMap<>();
            notes.each(note -> {
                int slot = index.slot(note);
                Integer before = first.putIfAbsent(slot, note);
                if (before != null) {
                    notes.place(before, notes.start(before), Math.max(notes.end(before), notes.end(note)));
                    notes.delete(note);
                }
            });
        };
    }
}
