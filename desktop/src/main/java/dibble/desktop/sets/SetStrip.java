package dibble.desktop.sets;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.presentation.Subscription;
import dibble.presentation.sets.SetActions;
import dibble.session.SessionSet;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The position in the set, in a strip above the views: the present session, its remark, and the next one. */
public final class SetStrip extends HBox {
    private final SetActions actions;
    private final Label place = new Label();
    private final Label title = Cards.strong("");
    private final Label notes = new Label();
    private final Button previous;
    private final Button next;

    /** @param edit shows the whole set */
    public SetStrip(SetActions actions, Runnable edit) {
        super(12);
        this.actions = actions;
        setId("set-strip");
        getStyleClass().add("first-minutes");
        setAlignment(Pos.CENTER_LEFT);
        place.getStyleClass().add("step-place");
        place.setMinWidth(Region.USE_PREF_SIZE);
        place.setId("set-place");
        title.setId("set-title");
        notes.setId("set-notes");
        notes.setWrapText(true);
        notes.setMinHeight(Region.USE_PREF_SIZE);
        VBox words = new VBox(2, title, notes);
        words.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(words, Priority.ALWAYS);
        previous = Cards.button("set-previous", say("set-strip.previous"), () -> actions.step(-1));
        next = Cards.button("set-next", say("set-strip.next"), () -> actions.step(1));
        Button all = Cards.button("set-edit", say("set-strip.edit-set"), edit);
        Button leave = Cards.button("set-leave", say("set-strip.leave-set"), actions::leave);
        for (Button button : new Button[] {previous, next, all, leave}) {
            button.setMinWidth(Region.USE_PREF_SIZE);
        }
        getChildren().addAll(place, words, previous, next, all, leave);
        show();
    }

    /** Begins to follow the set. */
    public Subscription open() {
        show();
        return actions.listen(this::show);
    }

    private void show() {
        SessionSet set = actions.set();
        Cards.show(this, set != null);
        if (set == null) {
            return;
        }
        int now = actions.place();
        int count = set.entries().size();
        place.setText(now < 0 ? say("set-strip.not-in-the-set", count) : say("set-strip.of", now + 1, count));
        title.setText(now < 0 ? set.name() : say("set-strip.title", set.name(), actions.name(now)));
        String words = now < 0 ? "" : set.entries().get(now).notes();
        notes.setText(words);
        Cards.show(notes, !words.isEmpty());
        previous.setDisable(now <= 0);
        next.setDisable(now + 1 >= count);
        next.setText(now + 1 < count ? say("set-strip.next-is", actions.name(now + 1)) : say("set-strip.next"));
    }
}
