package dibble.desktop.app;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Commands;
import dibble.desktop.ui.FocusKeys;
import dibble.presentation.Command;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Keys and commands: all that can be done now, with its key; typing a part of its name finds it, Enter does it. */
final class CommandList extends VBox {
    private static final double WIDTH = 520;
    private static final double HEIGHT = 420;

    private final Commands commands;
    private final TextField search = new TextField();
    private final ListView<Command> list = new ListView<>();

    /** The node that had the focus before. */
    private Node before;

    CommandList(Commands commands) {
        super(8);
        this.commands = commands;
        setId("command-list");
        getStyleClass().add("command-list");
        setMaxSize(WIDTH, HEIGHT);
        search.setId("command-search");
        search.setPromptText(say("command-list.find-a-command"));
        search.setAccessibleText(say("command-list.part-of-a-commands-name"));
        search.textProperty().subscribe(this::find);
        search.addEventFilter(KeyEvent.KEY_PRESSED, this::step);
        search.setOnAction(event -> run());
        list.setId("commands");
        list.setAccessibleText(say("command-list.commands"));
        list.setFocusTraversable(false);
        list.setCellFactory(view -> new Row());
        Cards.onClick(list, event -> run());
        VBox.setVgrow(list, Priority.ALWAYS);
        getChildren().addAll(Cards.heading(say("command-list.keys-and-commands")), search, list);
        FocusKeys.escape(this, this::close);
        Cards.show(this, false);
    }

    void open() {
        before = getScene().getFocusOwner();
        search.clear();
        find("");
        Cards.show(this, true);
        search.requestFocus();
    }

    private void close() {
        Cards.show(this, false);
        if (before != null) {
            before.requestFocus();
        }
    }

    private void find(String text) {
        String wanted = text.strip().toLowerCase(Locale.ROOT);
        list.getItems()
                .setAll(commands.all().stream()
                        .filter(it -> (it.words() + " " + it.about())
                                .toLowerCase(Locale.ROOT)
                                .contains(wanted))
                        .toList());
        list.getSelectionModel().selectFirst();
    }

    private void step(KeyEvent event) {
        int by = event.getCode() == KeyCode.DOWN ? 1 : event.getCode() == KeyCode.UP ? -1 : 0;
        if (by != 0) {
            int next = list.getSelectionModel().getSelectedIndex() + by;
            list.getSelectionModel().select(Math.max(0, Math.min(list.getItems().size() - 1, next)));
            list.scrollTo(list.getSelectionModel().getSelectedIndex());
            event.consume();
        }
    }

    private void run() {
        Command chosen = list.getSelectionModel().getSelectedItem();
        if (chosen != null && chosen.applies().getAsBoolean()) {
            close();
            chosen.action().run();
        }
    }

    /** A command with its key; one that does not apply now is soft. */
    private static final class Row extends ListCell<Command> {
        @Override
        protected void updateItem(Command command, boolean empty) {
            super.updateItem(command, empty);
            if (empty || command == null) {
                setGraphic(null);
                setAccessibleText("");
                return;
            }
            boolean applies = command.applies().getAsBoolean();
            Label words = applies ? new Label(command.words()) : Cards.soft(command.words());
            Label about = Cards.soft(command.about());
            about.setMinWidth(0);
            HBox what = new HBox(10, words, about);
            what.setAlignment(Pos.CENTER_LEFT);
            setGraphic(Cards.line(what, Cards.soft(Commands.sign(command))));
            setAccessibleText(say("command-list.text", command.words(), Commands.sign(command), applies));
        }
    }
}
