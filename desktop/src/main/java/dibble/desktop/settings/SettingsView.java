package dibble.desktop.settings;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.View;
import dibble.desktop.ui.Watch;
import dibble.desktop.ui.Words;
import dibble.midi.MiddleC;
import dibble.user.Settings;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;

/** What is set once for all sessions; each choice holds at once. */
public final class SettingsView extends BorderPane implements View {
    private final Desk desk;
    private final VBox column = new VBox(18);
    private final SettingsPresenter presenter;
    private final Watch watch;

    /** One of several that can be chosen. */
    private record Option(String id, String words, boolean chosen, Runnable choose) {}

    public SettingsView(Desk desk) {
        this.desk = desk;
        presenter = new SettingsPresenter(desk.document(), desk.preferences());
        watch = desk.watch(this::show);
        setId("settings");
        setCenter(Cards.scroll(column));
        column.getStyleClass().add("settings");
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private void show() {
        Settings now = desk.preferences().get();
        Label title = new Label(say("common.settings"));
        title.getStyleClass().add("heading");
        List<Node> nodes = new ArrayList<>(List.of(title));
        nodes.add(choice(
                say("settings-view.octaves"),
                say("settings-view.note-60-is-called-so"),
                options(
                        MiddleC.values(),
                        "middle-c-",
                        Enum::name,
                        desk.session().middleC(),
                        presenter::name)));
        nodes.add(choice(
                say("settings-view.light"),
                "",
                List.of(
                        option("day", say("settings-view.day"), !now.night(), settings -> settings.withNight(false)),
                        option(
                                "night",
                                say("settings-view.night"),
                                now.night(),
                                settings -> settings.withNight(true)))));
        nodes.add(choice(
                say("settings-view.size"),
                say("settings-view.large-can-be-read-and"),
                List.of(
                        option(
                                "size-plain",
                                say("settings-view.plain"),
                                !now.large(),
                                settings -> settings.withLarge(false)),
                        option(
                                "size-large",
                                say("settings-view.large"),
                                now.large(),
                                settings -> settings.withLarge(true)))));
        nodes.add(choice(
                say("settings-view.letters"),
                say("settings-view.where-the-letters-are-on"),
                options(
                        Settings.Letters.values(),
                        "letters-",
                        Enum::name,
                        now.letters(),
                        layout -> desk.preferences().change(settings -> settings.withLetters(layout)))));
        nodes.add(hidden(now));
        Label where = soft(say(
                "settings-view.settings-and-gear-shelf-are", desk.preferences().folder()));
        nodes.add(where);
        Cards.rebuild(column, nodes);
    }

    private Option option(String id, String words, boolean chosen, UnaryOperator<Settings> change) {
        return new Option(id, words, chosen, () -> desk.preferences().change(change));
    }

    private static <E extends Enum<E>> List<Option> options(
            E[] values, String prefix, Function<E, String> words, E chosen, java.util.function.Consumer<E> taker) {
        List<Option> options = new ArrayList<>();
        for (E value : values) {
            String id = prefix + value.name().toLowerCase(java.util.Locale.ROOT);
            options.add(new Option(id, words.apply(value), value == chosen, () -> taker.accept(value)));
        }
        return options;
    }

    private static Label soft(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("soft");
        label.setWrapText(true);
        return label;
    }

    private static VBox choice(String name, String about, List<Option> options) {
        Label title = new Label(name);
        title.getStyleClass().add("strong");
        HBox buttons = new HBox(6);
        for (Option option : options) {
            ToggleButton button = new ToggleButton(option.words());
            button.setId(option.id());
            button.setAccessibleText(name + ": " + option.words());
            button.setSelected(option.chosen());
            button.setMinWidth(72);
            button.setOnAction(event -> {
                // One is always chosen.
                button.setSelected(true);
                option.choose().run();
            });
            buttons.getChildren().add(button);
        }
        VBox box = new VBox(6, title, buttons);
        if (!about.isEmpty()) {
            box.getChildren().add(soft(about));
        }
        return box;
    }

    private VBox hidden(Settings now) {
        Label title = new Label(say("settings-view.hidden-ports"));
        title.getStyleClass().add("strong");
        VBox box = new VBox(6, title);
        if (now.hiddenPorts().isEmpty()) {
            box.getChildren().add(soft(say("settings-view.none-a-port-of-this")));
        }
        for (String port : now.hiddenPorts().stream().sorted().toList()) {
            Label name = new Label(Words.port(port, desk.session()));
            name.setMinWidth(180);
            Button show = new Button(say("common.show-2"));
            show.getStyleClass().add("link");
            show.setAccessibleText(say("common.show", name.getText()));
            show.setOnAction(event -> desk.preferences().change(settings -> settings.withHidden(port, false)));
            box.getChildren().add(new HBox(8, name, show));
        }
        return box;
    }
}
