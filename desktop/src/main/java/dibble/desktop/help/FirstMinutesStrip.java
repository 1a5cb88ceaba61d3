package dibble.desktop.help;

import static dibble.presentation.UiText.say;

import dibble.demo.FirstMinutes;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.presentation.Subscription;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * The first five minutes, in a strip above the views: the present step, and confirmation of completed ones. It blocks
 * nothing, and can be left and resumed at any time.
 */
public final class FirstMinutesStrip extends HBox {
    private static final Map<FirstMinutes.Step, String> PAGES = Map.of(
            FirstMinutes.Step.PLAY, "KEYS",
            FirstMinutes.Step.SPLIT, "KEYS",
            FirstMinutes.Step.LAYER, "KEYS",
            FirstMinutes.Step.SECOND_KEYBOARD, "GEAR",
            FirstMinutes.Step.RECORD, "TAKES",
            FirstMinutes.Step.ROUTE_AGAIN, "TAKES");

    private final ViewContext desk;
    private final Label place = new Label();
    private final Label title = Cards.strong("");
    private final Label words = new Label();
    private final Button show = new Button(say("first-minutes.show-me-where"));
    private final Button leave;
    private final ViewUpdater watch;
    private FirstMinutes steps = new FirstMinutes();
    private boolean begun;
    private Subscription open = Subscription.NONE;

    /** @param pages shows a view by its name */
    public FirstMinutesStrip(ViewContext desk, Consumer<String> pages) {
        super(12);
        this.desk = desk;
        setId("first-minutes");
        getStyleClass().add("first-minutes");
        setAlignment(Pos.CENTER_LEFT);
        place.getStyleClass().add("step-place");
        place.setMinWidth(Region.USE_PREF_SIZE);
        title.setId("step-title");
        words.setId("step-words");
        words.setWrapText(true);
        words.setMinHeight(Region.USE_PREF_SIZE);
        VBox text = new VBox(2, title, words);
        HBox.setHgrow(text, Priority.ALWAYS);
        show.setId("step-show");
        show.setMinWidth(Region.USE_PREF_SIZE);
        show.setOnAction(event -> pages.accept(PAGES.get(steps.now())));
        leave = Cards.button("step-leave", say("first-minutes.leave"), this::leave);
        leave.setMinWidth(Region.USE_PREF_SIZE);
        getChildren().addAll(place, text, show, leave);
        watch = desk.watch(this::show)
                .with(() -> desk.live().onKey((source, key, velocity) -> {
                    steps.played();
                    watchStale();
                }));
        Cards.show(this, false);
    }

    private void watchStale() {
        watch.stale();
    }

    /** Returns true if they were begun and not ended. */
    public boolean isUnderWay() {
        return begun && steps.now() != null;
    }

    /** Begins with the first step, in the session that is open. */
    public void begin() {
        steps = new FirstMinutes();
        begun = true;
        resume();
    }

    /** Goes on where they were left. */
    public void resume() {
        open.unsubscribe();
        open = watch.open();
        Cards.show(this, true);
    }

    /** Closes the strip; completed steps stay completed. */
    public void leave() {
        open.unsubscribe();
        open = Subscription.NONE;
        Cards.show(this, false);
    }

    private void show() {
        boolean done = steps.look(desk.session());
        FirstMinutes.Step now = steps.now();
        int all = FirstMinutes.Step.values().length;
        if (now == null) {
            place.setText("✓");
            title.setText(say("first-minutes.that-was-all-you-have"));
            words.setText(say("first-minutes.keep-this-session-or-begin"));
            leave.setText(say("common.close"));
        } else {
            place.setText(say("first-minutes.of", steps.place() + 1, all));
            String name = now.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
            title.setText(say("step-title." + name));
            words.setText(say("step-words." + name));
            leave.setText(say("first-minutes.leave"));
        }
        Cards.show(show, now != null);
        setAccessibleText(title.getText() + " " + words.getText());
        if (done) {
            // The next step may be done already.
            watch.stale();
            notifyAccessibleAttributeChanged(javafx.scene.AccessibleAttribute.TEXT);
        }
    }
}
