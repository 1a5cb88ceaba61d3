package dibble.presentation.notes;

/** The questions about notes, each asked in a line below the names of their tracks. */
public enum NoteQuestionKind {
    QUANTIZE,
    TO_SOUND,
    CHANGE,
    ARRANGE,
    BEAT
}
