package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.presentation.FileKind;
import dibble.presentation.Prompter;
import dibble.presentation.QuestionQueue;
import dibble.presentation.app.PathQuestions;
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
 * The questions and messages of the window, under its top: a bar for the open question, and one for messages. Nothing
 * waits for an answer, least of all the music; Esc cancels a question. A question never replaces an open one ({@link
 * QuestionQueue}), which keeps its typed text; after the last one the focus returns. A message replaces no question,
 * and none is lost: earlier messages are a click away until they are closed, and can be shown again.
 */
public final class AskBar extends VBox implements Prompter {
    private static final int MAX_MESSAGES = 50;

    /** A displayed question: its nodes, with the typed text, and the focused node. */
    private static final class Shown {
        final List<Node> nodes = new ArrayList<>();
        Node focus;
    }

    /** Something that was told. */
    private record Message(String text, Answer answer) {}

    private final HBox question = bar("question");
    private final HBox told = bar("told");

    /** All messages, the newest last; those from {@link #unread} on were not closed. */
    private final List<Message> messages = new ArrayList<>();

    /** True if the system has dialogs for files. */
    private final boolean hasDialogs;

    private int unread;
    private int shown;

    private final QuestionQueue<Shown> questions = new QuestionQueue<>();

    /** True if what runs now comes from background work, rather than from a user's hand. */
    private boolean inBackground;

    /** The node with the focus before the first question; null for none. */
    private Node before;

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
        Cards.show(question, false);
        Cards.show(told, false);
    }

    private static HBox bar(String id) {
        HBox bar = new HBox();
        bar.getStyleClass().add("ask-bar");
        bar.setId("ask-" + id + "-bar");
        return bar;
    }

    /** Runs what background work has come to: its questions wait behind those that are there. */
    public void inBackground(Runnable outcome) {
        boolean was = inBackground;
        inBackground = true;
        try {
            outcome.run();
        } finally {
            inBackground = was;
        }
    }

    /** Takes the question away that is shown. */
    public void leave() {
        questions.shown().ifPresent(this::end);
    }

    private void end(Shown ended) {
        questions.end(ended);
        showFirst();
    }

    /** Shows the question that is first now; where there is none, what had the focus has it again. */
    private void showFirst() {
        Shown first = questions.shown().orElse(null);
        if (first == null) {
            Node focused = getScene() == null ? null : getScene().getFocusOwner();
            boolean isFree = focused == null || question.getChildren().contains(focused);
            question.getChildren().clear();
            Cards.show(question, false);
            if (isFree && before != null && before.getScene() == getScene()) {
                before.requestFocus();
            }
            before = null;
        } else if (!question.getChildren().equals(first.nodes)) {
            question.getChildren().setAll(first.nodes);
            Cards.show(question, true);
            first.focus.requestFocus();
        }
    }

    /** Returns true if a question waits, or something told has not been closed. */
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
        Shown asked = new Shown();
        asked.nodes.add(text(text, "ask-text"));
        for (Answer answer : answers) {
            asked.nodes.add(button(answer.label(), () -> {
                questions.end(asked, answer.action());
                showFirst();
            }));
        }
        asked.nodes.add(button(leaving, () -> end(asked)));
        showQuestion(asked, asked.nodes.get(1));
    }

    /** Asks for a text, such as where a file is. */
    @Override
    public void askText(String text, String given, String verb, List<Answer> more, TextTaker taker) {
        TextField field = new TextField(given);
        field.setId("ask-field");
        field.setAccessibleText(text);
        HBox.setHgrow(field, Priority.ALWAYS);
        Shown asked = new Shown();
        Runnable take = () -> {
            questions.answer(asked);
            taker.take(field.getText().strip(), () -> end(asked));
        };
        field.setOnAction(event -> take.run());
        asked.nodes.addAll(List.of(text(text, "ask-text"), field, button(verb, take)));
        more.forEach(answer -> asked.nodes.add(button(answer.label(), answer.action())));
        asked.nodes.add(button(say("common.cancel"), () -> end(asked)));
        showQuestion(asked, field);
        field.selectAll();
    }

    @Override
    public void askPath(FileKind kind, String text, String given, String verb, boolean saving, TextTaker taker) {
        Answer browse = new Answer(say("path-questions.browse"), () -> browse(kind, saving));
        askText(text, given, verb, hasDialogs ? List.of(browse) : List.of(), taker);
    }

    private void browse(FileKind kind, boolean saving) {
        TextField field = (TextField) lookup("#ask-field");
        Path typed = PathQuestions.parse(field.getText()).orElse(Path.of(""));
        File folder = typed.getParent() == null ? null : typed.getParent().toFile();
        File chosen;
        try {
            chosen = browse(kind, saving, typed, folder);
        } catch (IllegalArgumentException e) {
            // The folder is not there: the dialog begins where the system has it begin.
            chosen = browse(kind, saving, typed, null);
        }
        if (chosen != null) {
            field.setText(chosen.getPath());
        }
    }

    private File browse(FileKind kind, boolean saving, Path typed, File folder) {
        Window window = getScene().getWindow();
        if (kind == FileKind.FOLDER) {
            DirectoryChooser chooser = new DirectoryChooser();
            chooser.setInitialDirectory(folder);
            return chooser.showDialog(window);
        }
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
        return saving ? chooser.showSaveDialog(window) : chooser.showOpenDialog(window);
    }

    private void showQuestion(Shown asked, Node focus) {
        asked.focus = focus;
        if (questions.shown().isEmpty()) {
            before = getScene() == null ? null : getScene().getFocusOwner();
        }
        questions.ask(asked, !inBackground);
        showFirst();
    }

    /** Tells something that went wrong, or was done. */
    @Override
    public void tell(String text) {
        tell(text, null);
    }

    /** Shows a message with an action. Takes the focus from no node, since the user may be playing. */
    @Override
    public void tell(String text, Answer answer) {
        if (messages.size() == MAX_MESSAGES) {
            messages.remove(0);
            unread = Math.max(0, unread - 1);
        }
        messages.add(new Message(text, answer));
        show(messages.size() - 1);
    }

    /** Shows the last message again, with earlier ones. */
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

    /** Marks all messages as read. */
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
