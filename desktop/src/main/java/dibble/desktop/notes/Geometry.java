package dibble.desktop.notes;

import dibble.desktop.ui.TimeScale;

/**
 * Where notes lie. Imports no nodes.
 *
 * @param rowHeight how high a key's row is, in pixels
 * @param scrolled how far the rows are scrolled up, in pixels
 * @param height how much of them is seen, in pixels
 */
record Geometry(TimeScale scale, KeyRows rows, double rowHeight, double scrolled, double height) {
    /** The least height of a row in which its name can be read. */
    static final double ROW = 16;

    private static final double HIGHEST_ROW = 24;

    /** Rows as high as the room has it. */
    static Geometry of(TimeScale scale, KeyRows rows, double scrolled, double height) {
        double row = Math.max(ROW, Math.min(HIGHEST_ROW, Math.floor(height / rows.count())));
        double most = Math.max(0, rows.count() * row - height);
        return new Geometry(scale, rows, row, Math.max(0, Math.min(most, scrolled)), height);
    }

    double top(int row) {
        return row * rowHeight - scrolled;
    }

    int rowAt(double y) {
        return (int) Math.max(0, Math.min(rows.count() - 1, Math.floor((y + scrolled) / rowHeight)));
    }

    /** Whether there is a row at all. */
    boolean hasRowAt(double y) {
        return y + scrolled < rows.count() * rowHeight;
    }

    int keyAt(double y) {
        return rows.keys()[rowAt(y)];
    }

    int firstRow() {
        return rowAt(0);
    }

    int lastRow() {
        return rowAt(height - 1);
    }
}
