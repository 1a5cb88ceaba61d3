package dibble.desktop.ui;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/**
 * Where the window asks and tells: a bar under its top. Nothing waits for the answer, the music least of all; Esc
 * leaves the question. The newest question takes the place of an older one.
 */
public final class AskBar extends HBox {
    /** Takes a text that was typed; true where it is done with it, false where the question stays. */
    @FunctionalInterface
    public interface TextTaker {
        boolean take(String text);
    }

    /** An answer that can be given. */
    public record Answer(String label, Runnable action) {}

    public AskBar() {
        getStyleClass().add("ask-bar");
        setId("ask");
        addEventHandler(javafx.scene.input.KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                leave();
                event.consume();
            }
        });
        leave();
    }

    /** Takes the question away. */
    public void leave() {
        getChildren().clear();
        setVisible(false);
        setManaged(false);
    }

    public boolean isAsking() {
        return isVisible();
    }

    /** Asks; each answer ends the question, and so does Esc. */
    public void ask(String question, List<Answer> answers) {
        ask(question, answers, "Stay");
    }

    /** @param leaving the words for leaving the question */
    public void ask(String question, List<Answer> answers, String leaving) {
        List<Node> nodes = new ArrayList<>();
        nodes.add(text(question, "ask-text"));
        for (Answer answer : answers) {
            nodes.add(button(answer.label(), () -> {
                leave();
                answer.action().run();
            }));
        }
        nodes.add(button(leaving, this::leave));
        show(nodes, nodes.get(1));
    }

    /** Asks for a text, such as where a file is. */
    public void askText(String question, String text, String verb, List<Answer> more, TextTaker taker) {
        TextField field = new TextField(text);
        field.setId("ask-field");
        field.setAccessibleText(question);
        HBox.setHgrow(field, Priority.ALWAYS);
        Runnable done = () -> {
            if (taker.take(field.getText().strip())) {
                leave();
            }
        };
        field.setOnAction(event -> done.run());
        List<Node> nodes = new ArrayList<>(List.of(text(question, "ask-text"), field, button(verb, done)));
        more.forEach(answer -> nodes.add(button(answer.label(), answer.action())));
        nodes.add(button("Cancel", this::leave));
        show(nodes, field);
        field.selectAll();
    }

    /** Tells something that went wrong, or was done. */
    public void tell(String message) {
        show(List.of(text(message, "ask-told"), button("Close", this::leave)), null);
    }

    /** The same with something that can be done about it; takes the focus from nobody, since hands may be playing. */
    public void tell(String message, Answer answer) {
        Button button = button(answer.label(), () -> {
            leave();
            answer.action().run();
        });
        show(List.of(text(message, "ask-told"), button, button("Close", this::leave)), null);
    }

    private void show(List<Node> nodes, Node focus) {
        getChildren().setAll(nodes);
        setVisible(true);
        setManaged(true);
        if (focus != null) {
            focus.requestFocus();
        }
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
