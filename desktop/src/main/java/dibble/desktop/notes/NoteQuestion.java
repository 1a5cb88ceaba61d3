package dibble.desktop.notes;

import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Question;
import dibble.presentation.notes.NotesPresenter;
import java.util.function.BiFunction;

/** A question about notes, asked in a line below the names of their tracks. */
abstract class NoteQuestion extends Question {
    /** Those that there are. */
    enum Kind {
        QUANTIZE(QuantizeStrip::new),
        TO_SOUND(SoundStrip::new),
        CHANGE(ChangeStrip::new),
        ARRANGE(ArrangeStrip::new),
        BEAT(BeatStrip::new);

        private final BiFunction<Desk, NotesPresenter, NoteQuestion> maker;

        Kind(BiFunction<Desk, NotesPresenter, NoteQuestion> maker) {
            this.maker = maker;
        }

        NoteQuestion make(Desk desk, NotesPresenter notes) {
            return maker.apply(desk, notes);
        }
    }

    NoteQuestion(String id) {
        super(id);
        getStyleClass().setAll("note-strip");
    }

    /** Asks. */
    abstract void ask();

    /** What it is of may have become another. */
    void show() {}

    /** Follows the music, in every frame. */
    void follow() {}
}
