package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;

/** The fields of a number series: the first number and a step. */
public final class StartAndStep extends FlowPane {
    /** The first number and the step. */
    public record Plan(int start, int step) {}

    private final Function<String, OptionalInt> reader;
    private final int lowest;
    private final int highest;
    private final TextField start;
    private final TextField step;

    /**
     * @param id the prefix of both fields' ids
     * @param words the name of the values
     * @param lowest the lowest first number; a step is at least 1
     */
    public StartAndStep(String id, String words, int first, int lowest, int highest) {
        this(id, words, first, lowest, highest, StartAndStep::number);
    }

    /** @param reader reads the first number, which may have a name */
    public StartAndStep(
            String id, String words, int first, int lowest, int highest, Function<String, OptionalInt> reader) {
        super(8, 6);
        this.reader = reader;
        this.lowest = lowest;
        this.highest = highest;
        start = field(id + "-start", say("start-and-step.start"), first);
        step = field(id + "-step", say("start-and-step.step"), 1);
        NumberScrubber.text(start, lowest, highest);
        NumberScrubber.text(step, 1, highest);
        getStyleClass().add("card-line");
        getChildren().addAll(Cards.soft(words), start, Cards.soft(say("start-and-step.step")), step);
    }

    private static TextField field(String id, String name, int number) {
        TextField field = new TextField(String.valueOf(number));
        field.setId(id);
        field.setAccessibleText(name);
        field.setPrefColumnCount(3);
        return field;
    }

    /** Sets the actions for a changed number and for Enter. */
    public void on(Runnable changed, Runnable enter) {
        start.textProperty().subscribe(changed);
        step.textProperty().subscribe(changed);
        start.setOnAction(event -> enter.run());
        step.setOnAction(event -> enter.run());
    }

    /** The two numbers; empty where there are none, or none in range. */
    public Optional<Plan> plan() {
        OptionalInt from = reader.apply(start.getText().strip());
        OptionalInt by = number(step.getText().strip());
        return from.isPresent() && from.getAsInt() >= lowest && from.getAsInt() <= highest && by.orElse(0) >= 1
                ? Optional.of(new Plan(from.getAsInt(), by.getAsInt()))
                : Optional.empty();
    }

    private static OptionalInt number(String text) {
        return text.matches("\\d{1,3}") ? OptionalInt.of(Integer.parseInt(text)) : OptionalInt.empty();
    }

    /** Focuses the first field. */
    public void begin() {
        start.requestFocus();
        start.selectAll();
    }
}
