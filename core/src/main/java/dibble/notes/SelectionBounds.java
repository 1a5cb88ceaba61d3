package dibble.notes;

/** The time range of selected notes. */
final class SelectionBounds {
    private SelectionBounds() {}

    /** The first start, the last start and the last end of the selected notes; zeros where none is selected. */
    static long[] of(Rewrite notes) {
        long[] span = {Long.MAX_VALUE, 0, 0};
        notes.each(note -> {
            span[0] = Math.min(span[0], notes.start(note));
            span[1] = Math.max(span[1], notes.start(note));
            span[2] = Math.max(span[2], notes.end(note));
        });
        return notes.selected().isEmpty() ? new long[3] : span;
    }
}
