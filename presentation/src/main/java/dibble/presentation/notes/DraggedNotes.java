package dibble.presentation.notes;

/**
 * The offsets of selected notes during a drag.
 *
 * @param ticks the change of the start
 * @param semitones the change of the key
 * @param longer the change of the length, in ticks
 */
public record DraggedNotes(long ticks, int semitones, long longer) {
    /** Nothing is held. */
    public static final DraggedNotes NOTHING = new DraggedNotes(0, 0, 0);
}
