package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Commands;
import dibble.desktop.ui.ViewContext;
import dibble.presentation.app.SessionFiles;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The session's name, and whether it is saved; the menus; undo and redo. */
final class SessionBox extends VBox {
    private static final double WIDEST = 300;

    private final ViewContext desk;
    private final SessionFiles files;
    private final Label name = new Label();
    private final Label state = new Label();
    private final Button undo;
    private final Button redo;

    SessionBox(ViewContext desk, SessionFiles files) {
        this.desk = desk;
        this.files = files;
        undo = arrow("undo");
        redo = arrow("redo");
        name.getStyleClass().add("session-name");
        name.setId("session-name");
        name.setMinWidth(60);
        name.setTooltip(new Tooltip());
        state.getStyleClass().add("state-line");
        state.setId("session-state");
        state.setMinWidth(USE_PREF_SIZE);
        HBox first = new HBox(6, name, state);
        first.setAlignment(Pos.BASELINE_LEFT);
        MenuStrip menus = new MenuStrip(desk, files);
        HBox second = new HBox(2, menus, undo, redo);
        second.setAlignment(Pos.CENTER_LEFT);
        setAlignment(Pos.CENTER_LEFT);
        second.setMinWidth(USE_PREF_SIZE);
        setMaxWidth(WIDEST);
        first.maxWidthProperty().bind(second.widthProperty());
        getChildren().addAll(first, second);
    }

    private Button arrow(String id) {
        Button button = desk.commands().on(id, new Button());
        button.setId(id);
        Region shape = new Region();
        shape.getStyleClass().addAll("arrow-shape", id + "-shape");
        button.setGraphic(shape);
        button.getStyleClass().add("icon-button");
        button.setMinWidth(USE_PREF_SIZE);
        return button;
    }

    /** Undo and redo are in the menu too. */
    void setNarrow(boolean narrow) {
        Cards.show(undo, !narrow);
        Cards.show(redo, !narrow);
    }

    void show() {
        name.setText(desk.session().name());
        boolean changed = desk.document().isChanged();
        String saved = files.file() == null ? say("session-box.not-saved-yet") : say("session-box.saved");
        String told = changed ? say("session-box.changed") : saved;
        state.setText(changed ? "●" : files.file() == null ? "○" : "");
        state.setAccessibleText(told);
        name.getTooltip()
                .setText(
                        files.file() == null
                                ? say("session-box.text", desk.session().name(), told)
                                : say("session-box.text", files.file(), told));
        show(undo, desk.document().undoName());
        show(redo, desk.document().redoName());
    }

    private void show(Button button, Optional<String> what) {
        button.setDisable(what.isEmpty());
        String words = desk.commands().get(button.getId()).words();
        String told = what.map(it -> say("session-box.text", words, it)).orElse(words);
        button.setAccessibleText(told);
        button.getTooltip()
                .setText(say(
                        "session-box.text-2",
                        told,
                        Commands.sign(desk.commands().get(button.getId()))));
    }
}
