package dibble.presentation.notes;

/**
 * What a hand holds and has not let go yet: where the selected notes are drawn meanwhile.
 *
 * @param ticks by how much they are later
 * @param semitones by how much they are higher
 * @param longer by how much they are longer, in ticks
 */
public record DraggedNotes(long ticks, int semitones, long longer) {
    /** Nothing is held. */
    public static final DraggedNotes NOTHING = new DraggedNotes(0, 0, 0);
}
