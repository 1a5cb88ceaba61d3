package dibble.desktop.notes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.edits.NoteEdits.Edited;
import dibble.notes.ChangeResult;
import dibble.presentation.Jobs;
import dibble.presentation.notes.NotesPresenter;
import dibble.session.Session;
import dibble.text.UserException;
import dibble.time.TempoMap;
import java.util.Objects;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;

/**
 * A question for a change of notes, in a line below the names. Its effect is previewed at once, then applied or
 * cancelled. The preview restarts after a change of its input.
 */
abstract class AskStrip extends NoteQuestion {
    /** As many notes as are changed within a frame. */
    private static final int AT_ONCE = 4000;

    final ViewContext desk;
    final NotesPresenter notes;
    final FlowPane line = Cards.flow();
    final Button keep;
    private final Label title = Cards.strong("");
    private final Label effect = Cards.soft("");

    /** The input of the preview: the session, and the request. */
    private Session of;

    private Object wish;
    private Jobs.Job job;

    AskStrip(String id, ViewContext desk, NotesPresenter notes) {
        super(id);
        this.desk = desk;
        this.notes = notes;
        title.setMinWidth(Region.USE_PREF_SIZE);
        keep = Cards.button(id + "-keep", say("ask-strip.keep"), this::keep);
        keep.getStyleClass().add("strip-keep");
        getChildren().add(line);
    }

    /** Lays the line out: title, fields, the buttons to apply and cancel, and the effect. */
    final void setAsked(Node... asked) {
        line.getChildren().setAll(title);
        line.getChildren().addAll(asked);
        line.getChildren().addAll(effect, keep, Cards.button(getId() + "-leave", say("common.cancel"), this::close));
    }

    /** More that is asked, in a second line, with the effect behind it. */
    final void setMore(Node... asked) {
        line.getChildren().remove(effect);
        FlowPane more = Cards.flow(asked);
        more.getChildren().add(effect);
        getChildren().add(more);
    }

    /** Returns the title, with the number of notes. */
    abstract String title(int count);

    /** Returns the name of the edit for undo. */
    abstract String name();

    /** Returns the present request, which is previewed once; null for none. */
    abstract Object wish();

    /** Returns the edit for the present request. Any thread. */
    abstract Function<Session, Edited> edit();

    final void ask(Node focus) {
        of = null;
        wish = null;
        open(focus);
        show();
    }

    /** Previews the present request. */
    @Override
    void show() {
        if (!isOpen()) {
            return;
        }
        if (!notes.isOpen()) {
            close();
            return;
        }
        if (notes.hasToWait()) {
            return;
        }
        title.setText(title(notes.chosenCount()));
        Object next = wish();
        boolean same = of == notes.kept() && Objects.equals(next, wish) && (notes.isPreviewing() || job != null);
        if (!same) {
            of = notes.kept();
            wish = next;
            look();
        }
    }

    private void look() {
        dropJob();
        notes.cancel();
        keep.setDisable(true);
        effect.setText("");
        if (wish == null) {
            return;
        }
        Session now = of;
        Function<Session, Edited> edit = edit();
        if (!isLong() && notes.chosenCount() <= AT_ONCE) {
            shown(now, outcome(edit, now));
            return;
        }
        effect.setText(say("ask-strip.working"));
        job = desk.jobs()
                .start(name(), progress -> outcome(edit, now), done -> {
                    job = null;
                    shown(now, done);
                })
                .onCancel(this::close);
    }

    /** Returns true if it takes longer than a frame may, however few the notes are. */
    boolean isLong() {
        return false;
    }

    /** The result of a preview, or the reason for its failure. */
    private record Outcome(Edited edited, String wrong) {}

    private static Outcome outcome(Function<Session, Edited> edit, Session now) {
        try {
            return new Outcome(edit.apply(now), "");
        } catch (UserException e) {
            return new Outcome(null, e.getMessage());
        }
    }

    private void shown(Session now, Outcome outcome) {
        if (outcome.edited == null) {
            effect.setText(outcome.wrong);
            return;
        }
        Edited edited = outcome.edited;
        notes.preview(now, edited, this::close);
        boolean changes = edited.session() != now && !edited.session().tracks().equals(now.tracks());
        keep.setDisable(!changes);
        effect.setText(changes ? effect(edited) : say("ask-strip.nothing-changes"));
    }

    /** Returns the description of the effect. */
    String effect(Edited edited) {
        ChangeResult.Effect done = edited.effect();
        double ms = 60_000.0 / desk.session().tempo().bpm(0) / TempoMap.PPQ;
        String what = done.moved() > 0
                ? say("ask-strip.moves", done.moved(), Math.round(done.most() * ms), Math.round(done.mean() * ms))
                : say("ask-strip.changes", done.changed());
        return say("ask-strip.effect", what, done.gone(), done.stayed());
    }

    private void keep() {
        if (!keep.isDisabled()) {
            notes.keep(name());
            close();
        }
    }

    private void dropJob() {
        if (job != null) {
            job.drop();
            job = null;
        }
    }

    @Override
    public void close() {
        boolean was = isOpen();
        super.close();
        dropJob();
        if (was) {
            notes.cancel();
        }
    }
}
