package dibble.desktop.notes;

import dibble.desktop.ui.Question;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.notes.NoteQuestionKind;
import dibble.presentation.notes.NotesPresenter;

/** A question about notes, asked in a line below the names of their tracks. */
abstract class NoteQuestion extends Question {
    /** Makes the question of a kind. */
    static NoteQuestion make(NoteQuestionKind kind, ViewContext desk, NotesPresenter notes) {
        return switch (kind) {
            case QUANTIZE -> new QuantizeStrip(desk, notes);
            case TO_SOUND -> new SoundStrip(desk, notes);
            case CHANGE -> new ChangeStrip(desk, notes);
            case ARRANGE -> new ArrangeStrip(desk, notes);
            case BEAT -> new BeatStrip(desk, notes);
        };
    }

    NoteQuestion(String id) {
        super(id);
        getStyleClass().setAll("note-strip");
    }

    /** Asks. */
    abstract void ask();

    /** Called after a change of its input. */
    void show() {}

    /** Follows the music, in every frame. */
    void follow() {}
}
