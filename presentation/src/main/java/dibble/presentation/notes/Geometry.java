package dibble.presentation.notes;

import dibble.presentation.TimeScale;

/**
 * The positions of notes.
 *
 * @param rowHeight the height of a key's row, in pixels
 * @param scrolled the scroll offset of the rows, in pixels
 * @param height the visible height, in pixels
 */
public record Geometry(TimeScale scale, KeyRows rows, double rowHeight, double scrolled, double height) {
    /** The least height of a row in which its name can be read. */
    public static final double ROW = 16;

    private static final double HIGHEST_ROW = 24;

    /** Rows as high as the room has it. */
    public static Geometry of(TimeScale scale, KeyRows rows, double scrolled, double height) {
        double row = Math.max(ROW, Math.min(HIGHEST_ROW, Math.floor(height / rows.count())));
        double most = Math.max(0, rows.count() * row - height);
        return new Geometry(scale, rows, row, Math.max(0, Math.min(most, scrolled)), height);
    }

    /** Returns the top of a row. */
    public double top(int row) {
        return row * rowHeight - scrolled;
    }

    int rowAt(double y) {
        return (int) Math.max(0, Math.min(rows.count() - 1, Math.floor((y + scrolled) / rowHeight)));
    }

    /** Returns true if there is a row at all. */
    public boolean hasRowAt(double y) {
        return y + scrolled < rows.count() * rowHeight;
    }

    /** Returns the key at a height. */
    public int keyAt(double y) {
        return rows.keys()[rowAt(y)];
    }

    /** Returns the first row that is seen. */
    public int firstRow() {
        return rowAt(0);
    }

    /** Returns the last row that is seen. */
    public int lastRow() {
        return rowAt(height - 1);
    }
}
