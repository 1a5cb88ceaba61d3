package dibble.presentation;

import dibble.midi.NoteNames;
import dibble.midi.Range;

/**
 * The geometry of a keyboard. As <em>columns</em> every key has a column of the same width, so that keyboards align
 * with a note ruler; as a <em>row</em> white keys have the same width, as on an instrument; as <em>pads</em> all keys
 * are equal, with gaps.
 */
public final class Piano {
    /** The height of a black key, of the whole. */
    public static final double BLACK_HEIGHT = 0.6;

    private static final double BLACK_WIDTH = 0.6;
    private static final double PAD_GAP = 3;

    private final Range keys;
    private final double left;
    private final double width;
    private final Shape shape;
    private final int whites;

    private enum Shape {
        COLUMNS,
        ROW,
        PADS
    }

    private Piano(Range keys, double left, double width, Shape shape) {
        this.keys = keys;
        this.left = left;
        this.width = width;
        this.shape = shape;
        int count = 0;
        for (int key = keys.low(); key <= keys.high(); key++) {
            count += NoteNames.isBlack(key) ? 0 : 1;
        }
        whites = Math.max(1, count);
    }

    /** Keys as columns of one width. */
    public static Piano columns(Range keys, double left, double width) {
        return new Piano(keys, left, width, Shape.COLUMNS);
    }

    /** Keys as a row of white keys with black ones between. */
    public static Piano row(Range keys, double left, double width) {
        return new Piano(keys, left, width, Shape.ROW);
    }

    /** Keys as pads of one width. */
    public static Piano pads(Range keys, double left, double width) {
        return new Piano(keys, left, width, Shape.PADS);
    }

    /** Returns true if a key lies above the others, as black ones do. */
    public boolean isRaised(int key) {
        return shape != Shape.PADS && NoteNames.isBlack(key);
    }

    /** Returns true if it is drawn as pads. */
    public boolean isPads() {
        return shape == Shape.PADS;
    }

    /** The keys that are shown. */
    public Range keys() {
        return keys;
    }

    /** Returns the left edge of a key. */
    public double x(int key) {
        if (shape == Shape.PADS) {
            return left + (key - keys.low()) * width / keys.size();
        }
        if (shape == Shape.COLUMNS) {
            double column = width / keys.size();
            double x = left + (key - keys.low()) * column;
            return NoteNames.isBlack(key) || key == keys.low() || !NoteNames.isBlack(key - 1) ? x : x - column / 2;
        }
        double white = width / whites;
        double x = left + whitesBelow(key) * white;
        return NoteNames.isBlack(key) ? x - white * BLACK_WIDTH / 2 : x;
    }

    /** Returns the width of a key. */
    public double width(int key) {
        if (shape == Shape.PADS) {
            return Math.max(1, width / keys.size() - PAD_GAP);
        }
        if (shape == Shape.ROW) {
            return width / whites * (NoteNames.isBlack(key) ? BLACK_WIDTH : 1);
        }
        double column = width / keys.size();
        double end = left + (key - keys.low() + 1) * column;
        if (!NoteNames.isBlack(key) && key < keys.high() && NoteNames.isBlack(key + 1)) {
            end += column / 2;
        }
        return end - x(key);
    }

    private int whitesBelow(int key) {
        int count = 0;
        for (int k = keys.low(); k < key; k++) {
            count += NoteNames.isBlack(k) ? 0 : 1;
        }
        return count;
    }

    /**
     * The key at a place, or -1.
     *
     * @param y 0 at the top to 1 at the bottom
     */
    public int keyAt(double x, double y) {
        if (y < 0 || y > 1) {
            return -1;
        }
        for (int pass = y <= BLACK_HEIGHT ? 0 : 1; pass < 2; pass++) {
            for (int key = keys.low(); key <= keys.high(); key++) {
                boolean black = isRaised(key);
                if (black == (pass == 0) && x >= x(key) && x < x(key) + width(key)) {
                    return key;
                }
            }
        }
        return -1;
    }
}
