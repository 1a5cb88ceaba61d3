package dibble.desktop.app;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Commands;
import dibble.desktop.ui.Desk;
import dibble.edits.StartingPoint;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The session's name with its menu; whether it is saved; undo and redo. */
final class SessionBox extends VBox {
    private static final double WIDEST = 300;

    private final Desk desk;
    private final SessionFiles files;
    private final MenuButton menu = new MenuButton();
    private final Label state = new Label();
    private final Button undo;
    private final Button redo;

    SessionBox(Desk desk, SessionFiles files) {
        super(-2);
        this.desk = desk;
        this.files = files;
        undo = link("undo");
        redo = link("redo");
        menu.getStyleClass().add("session-menu");
        menu.setId("session-menu");
        menu.setMaxWidth(WIDEST);
        group("new-session");
        menu.getItems().add(startingPoints());
        group(
                "open",
                "save",
                "save-as",
                "bring-in-a-midi-file",
                "export-tracks",
                "export-on-one-track",
                "export-a-file-for-each-track");
        menu.getItems().add(new SeparatorMenuItem());
        group("scenes", "scene-large", "checks");
        menu.getItems().add(new SeparatorMenuItem());
        group("messages", "day-or-night", "settings", "keys-and-commands");
        menu.getItems().add(new SeparatorMenuItem());
        group("close");
        state.getStyleClass().add("state-line");
        state.setMinWidth(USE_PREF_SIZE);
        HBox stateLine = new HBox(2, state, undo, redo);
        stateLine.setAlignment(Pos.CENTER_LEFT);
        setAlignment(Pos.CENTER_LEFT);
        setMinWidth(132);
        setMaxWidth(WIDEST);
        setFillWidth(false);
        getChildren().addAll(menu, stateLine);
    }

    private Button link(String id) {
        Button button = desk.commands().on(id, new Button(id));
        button.setId(id);
        button.getStyleClass().add("link");
        button.setMinWidth(USE_PREF_SIZE);
        return button;
    }

    private void group(String... ids) {
        Commands commands = desk.commands();
        Stream.of(ids).map(commands::item).forEach(menu.getItems()::add);
    }

    private Menu startingPoints() {
        Menu points = new Menu(say("session-box.new-from-a-starting-point"));
        points.setId("menu-starting-points");
        for (StartingPoint point : StartingPoint.values()) {
            String id = "start-" + point.name().toLowerCase(Locale.ROOT);
            points.getItems().add(Cards.item(id, point.title(), () -> files.begin(point)));
        }
        return points;
    }

    void show() {
        menu.setText(desk.session().name());
        String saved = files.file() == null ? say("session-box.not-saved-yet") : say("session-box.saved");
        state.setText(desk.document().isChanged() ? say("session-box.changed") : saved);
        show(undo, desk.document().undoName());
        show(redo, desk.document().redoName());
    }

    private void show(Button button, Optional<String> what) {
        button.setDisable(what.isEmpty());
        String told = what.isPresent()
                ? say("session-box.back", button.getText(), what.get())
                : say("session-box.nothing-back", button.getText());
        button.setAccessibleText(told);
        button.getTooltip()
                .setText(say(
                        "session-box.with-its-key",
                        told,
                        desk.commands().get(button.getId()).sign()));
    }
}
