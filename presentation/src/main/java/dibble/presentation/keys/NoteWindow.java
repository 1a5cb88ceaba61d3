package dibble.presentation.keys;

import dibble.midi.Range;
import java.util.function.Supplier;

/** The visible range of the notes that the gear uses: all of them, or a part, enlarged. */
public final class NoteWindow {
    /** The factor of the number of notes for one zoom step. */
    public static final double STEP = 0.75;

    private static final int MIN_SPAN = 18;

    private final Supplier<Range> whole;
    private final Runnable changed;
    private Range view;

    /** @param whole all notes that the gear uses */
    public NoteWindow(Supplier<Range> whole, Runnable changed) {
        this.whole = whole;
        this.changed = changed;
    }

    /** Returns the notes that are seen. */
    public Range notes() {
        return view == null ? whole.get() : view;
    }

    /** Returns true if it is less than all. */
    public boolean isPart() {
        return view != null;
    }

    /** Shows all notes. */
    public void fit() {
        view = null;
        changed.run();
    }

    /** Shows fewer notes (a factor below 1) or more, around one of them; as many as the gear uses is the most. */
    public void zoom(double factor, int around) {
        Range now = notes();
        int size = (int) Math.max(MIN_SPAN, Math.round(now.size() * factor));
        if (size >= whole.get().size()) {
            view = null;
        } else {
            double share = (around - now.low()) / (double) now.size();
            show(around - (int) Math.round(share * size), size);
        }
        changed.run();
    }

    /** Turns to lower or higher notes. */
    public void turn(int notes) {
        if (view != null) {
            show(view.low() + notes, view.size());
            changed.run();
        }
    }

    private void show(int low, int size) {
        Range all = whole.get();
        int from = Math.max(all.low(), Math.min(all.high() - size + 1, low));
        view = new Range(from, from + size - 1);
    }
}
