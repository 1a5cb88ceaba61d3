package dibble.notes;

import dibble.recording.ClipIndex;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * When something begins to sound, and how much of a beat it sounds like: notes that begin together are one, and weigh
 * more, as loud, low and long ones do.
 *
 * @param nanos since the start, rising
 * @param weights above 0
 */
record Onsets(long[] nanos, double[] weights) {
    /** The most nanoseconds between notes that two hands play as one chord. */
    private static final long TOGETHER = 35_000_000;

    private static final double LONG = 600e6;

    private record Note(long nanos, double weight) {}

    static Onsets of(List<ClipIndex> clips, TempoMap tempo) {
        List<Note> notes = new ArrayList<>();
        for (ClipIndex clip : clips) {
            for (int note = 0; note < clip.noteCount(); note++) {
                long start = tempo.nanos(clip.start(note));
                double length = Math.min(1, (tempo.nanos(clip.end(note)) - start) / LONG);
                double low = clip.key(note) < 52 ? 0.5 : 0;
                notes.add(new Note(start, clip.velocity(note) / 127.0 * (0.5 + length / 2 + low)));
            }
        }
        notes.sort(Comparator.comparingLong(Note::nanos));
        List<Note> together = new ArrayList<>();
        int first = 0;
        for (int i = 1; i <= notes.size(); i++) {
            if (i == notes.size() || notes.get(i).nanos - notes.get(first).nanos > TOGETHER) {
                together.add(one(notes.subList(first, i)));
                first = i;
            }
        }
        return new Onsets(
                together.stream().mapToLong(Note::nanos).toArray(),
                together.stream().mapToDouble(Note::weight).toArray());
    }

    private static Note one(List<Note> notes) {
        double weight = 0;
        double sum = 0;
        for (Note note : notes) {
            weight += note.weight;
            sum += note.nanos * note.weight;
        }
        return new Note(Math.round(sum / weight), Math.sqrt(weight));
    }

    int size() {
        return nanos.length;
    }
}
