package dibble.presentation.notes;

import java.util.Arrays;
import java.util.BitSet;

/**
 * The keys with a row, from the highest at the top.
 *
 * @param keys the keys, descending
 * @param rowOf for each key its row, or {@link #NONE}
 */
public record KeyRows(int[] keys, int[] rowOf) {
    /** No row. */
    public static final int NONE = -1;

    private static final int AIR = 2;
    private static final int MIN = 18;

    /**
     * @param used keys that have notes
     * @param onlyUsed whether only these have rows
     */
    public static KeyRows of(BitSet used, boolean onlyUsed) {
        BitSet shown = new BitSet();
        if (used.isEmpty()) {
            shown.set(48, 73);
        } else if (onlyUsed) {
            shown.or(used);
        } else {
            int low = Math.max(0, used.nextSetBit(0) - AIR);
            int high = Math.min(127, used.length() - 1 + AIR);
            int more = Math.max(0, MIN - (high - low + 1));
            low = Math.max(0, low - more / 2);
            high = Math.min(127, high + more - more / 2);
            shown.set(low, high + 1);
        }
        int[] keys = new int[shown.cardinality()];
        int[] rowOf = new int[128];
        Arrays.fill(rowOf, NONE);
        int row = 0;
        for (int key = 127; key >= 0; key--) {
            if (shown.get(key)) {
                keys[row] = key;
                rowOf[key] = row++;
            }
        }
        return new KeyRows(keys, rowOf);
    }

    /** Returns the number of rows. */
    public int count() {
        return keys.length;
    }

    /** The row of a key, or of the nearest below that has one. */
    public int near(int key) {
        int at = key;
        while (at > 0 && rowOf[at] == NONE) {
            at--;
        }
        return rowOf[at] == NONE ? keys.length - 1 : rowOf[at];
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof KeyRows that && Arrays.equals(keys, that.keys);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(keys);
    }
}
