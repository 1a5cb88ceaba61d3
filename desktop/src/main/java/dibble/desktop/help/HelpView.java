package dibble.desktop.help;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Commands;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.Subscription;
import dibble.presentation.help.HelpTopic;
import dibble.text.Parts;
import dibble.text.Version;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCombination;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** Help: a page for each view, what to do where nothing sounds, our words, and what this is. */
public final class HelpView extends BorderPane implements View {
    private static final String KEY = "key:";
    private static final String SHORTCUT = "Shortcut+";

    private final ViewContext desk;
    private final Map<HelpTopic, ToggleButton> topics = new EnumMap<>(HelpTopic.class);
    private final ScrollPane page = Cards.scroll(null);
    private final Runnable showsLog;

    /** @param showsLog opens the log of unexpected errors */
    public HelpView(ViewContext desk, Runnable showsLog) {
        this.desk = desk;
        this.showsLog = showsLog;
        setId("help");
        VBox list = new VBox(4, Cards.heading(say("menu-strip.help")));
        list.getStyleClass().add("help-topics");
        ToggleGroup group = new ToggleGroup();
        for (HelpTopic topic : HelpTopic.values()) {
            ToggleButton button = new ToggleButton(topic.title());
            button.setId("help-" + topic.id());
            button.setMaxWidth(Double.MAX_VALUE);
            button.setMinWidth(USE_PREF_SIZE);
            button.getStyleClass().add("help-topic");
            button.setToggleGroup(group);
            button.setOnAction(event -> show(topic));
            topics.put(topic, button);
            list.getChildren().add(button);
        }
        page.setId("help-content");
        setLeft(list);
        setCenter(page);
        show(HelpTopic.GEAR);
    }

    /** Shows a page. */
    public void show(HelpTopic topic) {
        topics.get(topic).setSelected(true);
        VBox content = MarkdownPage.of(topic.text(), this::follow, this::code);
        if (topic == HelpTopic.ABOUT) {
            content.getChildren()
                    .addAll(
                            2,
                            List.of(
                                    new Label(say("help.version", Version.NUMBER)),
                                    Cards.soft(say(
                                            "settings-view.settings-and-gear-shelf-are",
                                            desk.preferences().folder())),
                                    Cards.button("show-log", say("help.show-log"), showsLog)));
            content.getChildren().add(parts());
        }
        page.setContent(content);
        page.setVvalue(0);
    }

    private static GridPane parts() {
        GridPane grid = new GridPane(16, 4);
        grid.setId("parts");
        int row = 0;
        for (Parts.Part part : Parts.all()) {
            grid.addRow(
                    row++,
                    new Label(part.name()),
                    Cards.soft(part.version()),
                    Cards.soft(String.join(", ", part.licences())));
        }
        return grid;
    }

    private void follow(String link) {
        HelpTopic.ofLink(link).ifPresent(this::show);
    }

    /**
     * Returns the key of a command for {@code key:record}, and a key in the platform's notation for {@code Shortcut+C}.
     */
    private String code(String text) {
        if (text.startsWith(SHORTCUT)) {
            return KeyCombination.keyCombination(text).getDisplayText();
        }
        return text.startsWith(KEY)
                ? desk.commands()
                        .find(text.substring(KEY.length()))
                        .map(Commands::sign)
                        .orElse(text)
                : text;
    }

    @Override
    public Subscription open() {
        return Subscription.NONE;
    }
}
