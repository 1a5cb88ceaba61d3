package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.presentation.FileKind;
import dibble.presentation.Prompter;
import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/**
 * Where the window asks and tells, under its top: a bar for the question that waits, and one for what was told. Nothing
 * waits for the answer, the music least of all; Esc leaves the question. The newest question takes the place of an older
 * one. What is told takes the place of no question, and nothing that was told is lost: earlier messages are a click away
 * until they are closed, and can be shown again.
 */
public final class AskBar extends VBox implements Prompter {
    private static final int MOST_MESSAGES = 50;

    /** Something that was told. */
    private record Message(String text, Answer answer) {}

    private final HBox question = bar("question");
    private final HBox told = bar("told");

    /** All that was told, the newest last; those from {@link #unread} on were not closed. */
    private final List<Message> messages = new ArrayList<>();

    /** Whether the system has dialogs for files. */
    private final boolean hasDialogs;

    private int unread;
    private int shown;

    /** How many questions were asked so far: an answer may ask the next one. */
    private int asked;

    /**
     * Nothing is asked yet, and it takes no room.
     *
     * @param hasDialogs whether the system has dialogs for files
     */
    public AskBar(boolean hasDialogs) {
        this.hasDialogs = hasDialogs;
        setId("ask");
        getChildren().addAll(question, told);
        FocusKeys.escape(question, this::leave);
        FocusKeys.escape(told, this::close);
        leave();
        Cards.show(told, false);
    }

    private static HBox bar(String id) {
        HBox bar = new HBox();
        bar.getStyleClass().add("ask-bar");
        bar.setId("ask-" + id + "-bar");
        return bar;
    }

    /** Takes the question away. */
    public void leave() {
        question.getChildren().clear();
        Cards.show(question, false);
    }

    /** Whether a question waits, or something told has not been closed. */
    public boolean isAsking() {
        return question.isVisible() || told.isVisible();
    }

    /** Asks; each answer ends the question, and so does Esc. */
    @Override
    public void ask(String text, List<Answer> answers) {
        ask(text, answers, say("ask-bar.cancel"));
    }

    /** @param leaving the words for leaving the question */
    @Override
    public void ask(String text, List<Answer> answers, String leaving) {
        List<Node> nodes = new ArrayList<>();
        nodes.add(text(text, "ask-text"));
        for (Answer answer : answers) {
            nodes.add(button(answer.label(), () -> {
                leave();
                answer.action().run();
            }));
        }
        nodes.add(button(leaving, this::leave));
        showQuestion(nodes, nodes.get(1));
    }

    /** Asks for a text, such as where a file is. */
    @Override
    public void askText(String text, String given, String verb, List<Answer> more, TextTaker taker) {
        TextField field = new TextField(given);
        field.setId("ask-field");
        field.setAccessibleText(text);
        HBox.setHgrow(field, Priority.ALWAYS);
        int number = asked + 1;
        Runnable leaveThis = () -> {
            if (asked == number) {
                leave();
            }
        };
        Runnable take = () -> taker.take(field.getText().strip(), leaveThis);
        field.setOnAction(event -> take.run());
        List<Node> nodes = new ArrayList<>(List.of(text(text, "ask-text"), field, button(verb, take)));
        more.forEach(answer -> nodes.add(button(answer.label(), answer.action())));
        nodes.add(button(say("common.cancel"), this::leave));
        showQuestion(nodes, field);
        field.selectAll();
    }

    @Override
    public void askPath(FileKind kind, String text, String given, String verb, boolean saving, TextTaker taker) {
        Answer browse = new Answer(say("path-questions.browse"), () -> browse(kind, saving));
        askText(text, given, verb, hasDialogs ? List.of(browse) : List.of(), taker);
    }

    private void browse(FileKind kind, boolean saving) {
        TextField field = (TextField) lookup("#ask-field");
        Path typed = Path.of(field.getText());
        File parent = typed.getParent() == null ? null : typed.getParent().toFile();
        File folder = parent != null && parent.isDirectory() ? parent : null;
        Window window = getScene().getWindow();
        File chosen;
        if (kind == FileKind.FOLDER) {
            DirectoryChooser chooser = new DirectoryChooser();
            chooser.setInitialDirectory(folder);
            chosen = chooser.showDialog(window);
        } else {
            FileChooser chooser = new FileChooser();
            chooser.setInitialDirectory(folder);
            chooser.getExtensionFilters()
                    .setAll(
                            new FileChooser.ExtensionFilter(kind.words(), kind.patterns()),
                            new FileChooser.ExtensionFilter(say("path-questions.all-files"), "*"));
            if (saving) {
                chooser.setInitialFileName(
                        typed.getFileName() == null ? "" : typed.getFileName().toString());
            }
            chosen = saving ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window);
        }
        if (chosen != null) {
            field.setText(chosen.getPath());
        }
    }

    private void showQuestion(List<Node> nodes, Node focus) {
        asked++;
        question.getChildren().setAll(nodes);
        Cards.show(question, true);
        focus.requestFocus();
    }

    /** Tells something that went wrong, or was done. */
    @Override
    public void tell(String text) {
        tell(text, null);
    }

    /** The same with something that can be done about it; takes the focus from nobody, since hands may be playing. */
    @Override
    public void tell(String text, Answer answer) {
        if (messages.size() == MOST_MESSAGES) {
            messages.remove(0);
            unread = Math.max(0, unread - 1);
        }
        messages.add(new Message(text, answer));
        show(messages.size() - 1);
    }

    /** Shows again what was told last, with what was told before. */
    public void tellAgain() {
        if (messages.isEmpty()) {
            tell(say("ask-bar.no-messages-yet"));
            return;
        }
        unread = 0;
        show(messages.size() - 1);
    }

    private void show(int number) {
        shown = number;
        Message message = messages.get(number);
        told.getChildren().setAll(text(message.text, "ask-told"));
        int earlier = number - unread;
        if (earlier > 0) {
            Button before = button(say("ask-bar.earlier", earlier), () -> show(shown - 1));
            before.getStyleClass().add("link");
            before.setAccessibleText(say("ask-bar.show-the-previous-message"));
            told.getChildren().add(before);
        }
        if (number < messages.size() - 1) {
            Button next = button(say("common.later"), () -> show(shown + 1));
            next.getStyleClass().add("link");
            told.getChildren().add(next);
        }
        if (message.answer != null) {
            told.getChildren().add(button(message.answer.label(), () -> {
                close();
                message.answer.action().run();
            }));
        }
        told.getChildren().add(button(say("common.close"), this::close));
        Cards.show(told, true);
    }

    /** All that is there has been seen. */
    private void close() {
        unread = messages.size();
        told.getChildren().clear();
        Cards.show(told, false);
    }

    private static Label text(String message, String id) {
        Label label = new Label(message);
        label.setId(id);
        label.setWrapText(true);
        HBox.setHgrow(label, Priority.SOMETIMES);
        return label;
    }

    private static Button button(String label, Runnable action) {
        Button button = new Button(label);
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }
}
