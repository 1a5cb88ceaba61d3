package dibble.presentation.keys;

import dibble.midi.Range;

/**
 * The one note ruler: which column of the view is which note.
 *
 * @param span the notes that are shown
 * @param width how wide they are together
 */
public record NoteScale(Range span, double width) {
    /** Returns the width of a key. */
    public double column() {
        return width / span.size();
    }

    /** Returns the left edge of a note. */
    public double x(int note) {
        return (note - span.low()) * column();
    }

    /** The note at a place, held inside 0-127. */
    public int noteAt(double x) {
        return Math.max(0, Math.min(127, span.low() + (int) Math.floor(x / column())));
    }

    /** Returns the semitones of a distance, rounded. */
    public int semitones(double way) {
        return (int) Math.round(way / column());
    }
}
