package dibble.desktop.notes;

/**
 * What a hand holds and has not let go yet: where the selected notes are drawn meanwhile. Imports no nodes.
 *
 * @param ticks by how much they are later
 * @param semitones by how much they are higher
 * @param longer by how much they are longer, in ticks
 */
record Held(long ticks, int semitones, long longer) {
    static final Held NOTHING = new Held(0, 0, 0);
}
