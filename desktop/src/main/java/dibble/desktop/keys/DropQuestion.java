package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.NoteField;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.presentation.keys.KeysPresenter;
import dibble.session.Session;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** A question next to a dropped part: whether to split the keys of the source, or to layer the part over them. */
final class DropQuestion extends VBox {
    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final Label title = new Label();
    private final NoteField at = new NoteField(say("drop-question.lowest-key-of-the-upper"));
    private final Button above = new Button(say("drop-question.split-new-sound-above"));
    private final Button below = new Button(say("drop-question.split-new-sound-below"));
    private final Button onTop = new Button(say("drop-question.layer-with-it"));
    private final Runnable done;
    private String source;
    private PartRef part;
    private Session asked;

    /** @param done runs when the question is over */
    DropQuestion(ViewContext desk, KeysPresenter presenter, Runnable done) {
        this.desk = desk;
        this.presenter = presenter;
        this.done = done;
        getStyleClass().add("question");
        setId("drop-question");
        title.getStyleClass().add("strong");
        at.setId("split-at");
        above.setId("beside-above");
        below.setId("beside-below");
        onTop.setId("on-top");
        above.setOnAction(event -> beside(false));
        below.setOnAction(event -> beside(true));
        onTop.setOnAction(event -> answer(presenter.layer(source, part)));
        at.setOnNote(note -> showAnswers());
        Label hint = new Label(say("drop-question.split-at-key"));
        hint.setMinWidth(USE_PREF_SIZE);
        Label or = new Label(say("drop-question.or-press-it-on-the"));
        or.getStyleClass().add("soft");
        HBox split = new HBox(8, hint, at, or);
        split.getStyleClass().add("line");
        getChildren().addAll(title, split, new HBox(8, below, above, onTop));
        FocusKeys.escape(this, this::leave);
    }

    /** Asks about a part on a source. */
    void ask(String sourceId, PartRef dropped, int key) {
        source = sourceId;
        part = dropped;
        asked = desk.session();
        Source keyboard = desk.session().source(sourceId).orElseThrow();
        String name = desk.session().part(dropped).map(Part::name).orElse(dropped.part());
        title.setText(say("drop-question.add-to", name, keyboard.name()));
        int low = keyboard.keys().low() + 1;
        at.setNote(
                Math.max(low, Math.min(keyboard.keys().high(), key)),
                desk.session().middleC());
        showAnswers();
    }

    private void showAnswers() {
        boolean possible = presenter.canSplit(source, at.note());
        above.setDisable(!possible);
        below.setDisable(!possible);
    }

    /** A key was pressed on a source: the split goes there. */
    void pressed(String sourceId, int key) {
        if (sourceId.equals(source) && isVisible()) {
            at.take(key);
            showAnswers();
        }
    }

    /** Leaves a question about a session that has changed since: undone, or another one opened. */
    void leaveIfOutdated() {
        if (source != null && asked != desk.session()) {
            leave();
        }
    }

    private void beside(boolean isBelow) {
        answer(presenter.beside(source, part, at.note(), isBelow));
    }

    private void answer(String zone) {
        String playedBy = source;
        leave();
        desk.selection().source().set(playedBy);
        desk.selection().zone().set(zone);
    }

    private void leave() {
        source = null;
        done.run();
    }

    void focusFirst() {
        at.requestFocus();
    }
}
