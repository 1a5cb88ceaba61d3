package dibble.desktop.live;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** Everything that passed, and why?, side by side over the live line; each is made when it is first asked for. */
final class LivePanels extends HBox {
    private final ViewContext desk;
    private final ToggleButton showPassed = panelSwitch("show-passed", say("common.event-log"));
    private final ToggleButton showWhy = panelSwitch("show-why", say("window-commands.why"));
    private EventLogPane passed;
    private WhyPane why;

    LivePanels(ViewContext desk) {
        super(18);
        this.desk = desk;
        showWhy.setTooltip(new Tooltip(say("live-panels.shows-what-becomes-of-a")));
        showPassed.setTooltip(new Tooltip(say("live-panels.every-event-that-came-in")));
        showPassed.setOnAction(event -> turn());
        showWhy.setOnAction(event -> turn());
        turn();
    }

    /** A switch on the live line. */
    static ToggleButton panelSwitch(String id, String text) {
        ToggleButton button = new ToggleButton(text);
        button.setId(id);
        button.getStyleClass().add("panel-switch");
        button.setMinWidth(Region.USE_PREF_SIZE);
        return button;
    }

    ToggleButton passedSwitch() {
        return showPassed;
    }

    ToggleButton whySwitch() {
        return showWhy;
    }

    private void turn() {
        if (showPassed.isSelected() && passed == null) {
            passed = new EventLogPane(desk, (source, message) -> {
                openWhy();
                why.ask(source, message);
            });
            add(0, passed, 640);
        }
        if (showWhy.isSelected() && why == null) {
            why = new WhyPane(desk);
            add(getChildren().size(), why, 480);
        }
        if (passed != null) {
            Cards.show(passed, showPassed.isSelected());
        }
        if (why != null) {
            Cards.show(why, showWhy.isSelected());
        }
        Cards.show(this, showPassed.isSelected() || showWhy.isSelected());
        show();
    }

    private void add(int place, Region panel, double width) {
        HBox.setHgrow(panel, Priority.ALWAYS);
        panel.setMinWidth(0);
        panel.setPrefWidth(width);
        getChildren().add(place, panel);
    }

    private void openWhy() {
        showWhy.setSelected(true);
        turn();
    }

    /** Explains the last played event. */
    void why() {
        openWhy();
        why.askLast();
    }

    /** Updates the panels after a change of the session. */
    void show() {
        if (showPassed.isSelected()) {
            passed.show();
        }
        if (showWhy.isSelected()) {
            why.show();
        }
    }

    /** @param now the frame's time in nanoseconds */
    void follow(long now) {
        if (passed != null) {
            passed.lookAtClocks();
        }
        if (showPassed.isSelected()) {
            passed.follow(now);
        }
        if (showWhy.isSelected()) {
            why.follow(now);
        }
    }
}
