package dibble.notes;

import dibble.midi.MidiTrack;
import dibble.midi.ShortMessage;
import dibble.recording.ClipIndex;

/** Changes of when notes are played, in ticks. */
public final class TimeChanges {
    private TimeChanges() {}

    /** All so much later, or earlier; not before tick 0. */
    public static NoteFunction shift(long ticks) {
        return notes -> {
            long by = Math.max(ticks, -SelectionBounds.of(notes)[0]);
            notes.each(note -> notes.move(note, notes.start(note) + by));
        };
    }

    /** All so much later, and on other keys: as a hand drags them. */
    public static NoteFunction drag(long ticks, int semitones) {
        return notes -> {
            shift(ticks).on(notes);
            Pitches.transpose(semitones).on(notes);
        };
    }

    /**
     * Stretches from where the first begins. Where all that sounds there is selected, controllers go with the notes.
     *
     * @param times how many times as long, over how many parts
     */
    public static NoteFunction stretch(long times, long parts) {
        return notes -> stretch(notes, times, parts);
    }

    /**
     * Stretches so that the last note ends with a number of bars.
     *
     * @param bars as long as the notes are to be together, in ticks
     */
    public static NoteFunction fit(long bars) {
        return notes -> {
            long[] span = SelectionBounds.of(notes);
            stretch(notes, bars, Math.max(1, span[2] - span[0]));
        };
    }

    private static void stretch(Rewrite notes, long times, long parts) {
        long[] span = SelectionBounds.of(notes);
        ClipIndex index = notes.index();
        MidiTrack clip = notes.clip();
        notes.each(note -> notes.place(
                note,
                stretched(index.start(note), span[0], times, parts),
                stretched(index.end(note), span[0], times, parts)));
        if (!isAlone(notes, span)) {
            return;
        }
        for (int i = 0; i < clip.size(); i++) {
            boolean within = clip.tick(i) > span[0] && clip.tick(i) <= span[2];
            // An off without its note stays: it ends nothing at any position.
            if (within
                    && clip.isChannelMessage(i)
                    && index.noteOf(i) == ClipIndex.NONE
                    && !ShortMessage.isNote(clip.message(i))) {
                notes.remove(i);
                notes.add(stretched(clip.tick(i), span[0], times, parts), clip.message(i), index.destination(i));
            }
        }
    }

    private static long stretched(long tick, long from, long times, long parts) {
        return from + Math.round((double) (tick - from) * times / parts);
    }

    /** Returns true if no other notes sound where the selected ones do: then its controllers are theirs. */
    private static boolean isAlone(Rewrite notes, long[] span) {
        ClipIndex index = notes.index();
        for (int note = 0; note < index.noteCount(); note++) {
            if (!notes.selected().get(note) && index.start(note) < span[2] && index.end(note) > span[0]) {
                return false;
            }
        }
        return true;
    }

    /** The last first: each note as long as it is, and all together where they are. */
    public static NoteFunction reverse() {
        return notes -> {
            long[] span = SelectionBounds.of(notes);
            ClipIndex index = notes.index();
            notes.each(note -> {
                long start = span[0] + span[2] - Math.max(index.end(note), index.start(note) + 1);
                notes.move(note, start);
            });
        };
    }
}
