package dibble.desktop.channels;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.PartColours;
import javafx.css.PseudoClass;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;

/** One end that ribbons can have: a channel that arrives, or a part that plays. Its dot is where they begin or end. */
final class ChartRow<T> extends HBox {
    static final double HEIGHT = 30;
    private static final PseudoClass PICKED = PseudoClass.getPseudoClass("picked");
    private static final PseudoClass HEARD = PseudoClass.getPseudoClass("heard");
    private static final PseudoClass AIMED = PseudoClass.getPseudoClass("aimed");
    private static final double DOT = 8;

    final T end;
    final Circle dot = new Circle(DOT);
    private final Label note = Cards.soft("");

    private ChartRow(T end, String id, String name) {
        super(10);
        this.end = end;
        setId(id);
        getStyleClass().add("end-row");
        setFocusTraversable(true);
        setAccessibleText(name);
        dot.getStyleClass().add("end-dot");
    }

    /** A channel that arrives. */
    static <T> ChartRow<T> arrival(T end, String id, String number, String name, boolean letIn) {
        ChartRow<T> row = new ChartRow<>(end, id, name);
        Label channel = Cards.strong(number);
        channel.getStyleClass().add("end-number");
        row.fill(channel, letIn ? new Label(name) : Cards.soft(name));
        return row;
    }

    /** Creates a row for a playing channel. */
    static <T> ChartRow<T> place(T end, String id, int colour, String channel, String name, String word) {
        ChartRow<T> row = new ChartRow<>(end, id, name);
        row.dot.setStyle(PartColours.css(colour));
        row.dot.getStyleClass().add("part-dot");
        row.fill(new PartBadge().show(colour, channel), colour == 0 ? Cards.soft(name) : Cards.strong(name));
        row.tell(word);
        return row;
    }

    private void fill(Label mark, Label name) {
        mark.setMinWidth(Region.USE_PREF_SIZE);
        note.setMinWidth(Region.USE_PREF_SIZE);
        HBox.setHgrow(name, Priority.ALWAYS);
        name.setMaxWidth(Double.MAX_VALUE);
        name.setMinWidth(30);
        getChildren().addAll(mark, name, note);
    }

    /** Sets the action of Enter, Space and a click. */
    ChartRow<T> onChosen(Runnable chosen) {
        FocusKeys.choose(this, event -> chosen.run());
        Cards.onClick(this, event -> {
            if (event.isStillSincePress()) {
                requestFocus();
                chosen.run();
            }
        });
        return this;
    }

    /** Shows a few words at its right end: the last received event, or the origin of a channel. */
    void tell(String words) {
        if (!note.getText().equals(words)) {
            note.setText(words);
        }
    }

    void showPicked(boolean on) {
        pseudoClassStateChanged(PICKED, on);
    }

    void showAimed(boolean on) {
        pseudoClassStateChanged(AIMED, on);
    }

    void showHeard(boolean on) {
        pseudoClassStateChanged(HEARD, on);
    }
}
