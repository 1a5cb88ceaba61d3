package dibble.desktop.keys;

import dibble.midi.Range;

/**
 * The one note ruler: which column of the view is which note.
 *
 * @param span the notes that are shown
 * @param width how wide they are together
 */
record NoteScale(Range span, double width) {
    double column() {
        return width / span.size();
    }

    /** Where a note begins. */
    double x(int note) {
        return (note - span.low()) * column();
    }

    /** The note at a place, held inside 0-127. */
    int noteAt(double x) {
        return Math.max(0, Math.min(127, span.low() + (int) Math.floor(x / column())));
    }

    /** How many semitones a way is, to the nearest. */
    int semitones(double way) {
        return (int) Math.round(way / column());
    }
}
