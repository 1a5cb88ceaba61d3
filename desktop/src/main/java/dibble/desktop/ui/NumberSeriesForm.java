package dibble.desktop.ui;

import static dibble.presentation.UiText.say;

import dibble.edits.NumberSeries;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.VBox;

/** A question for a start and a step, with a preview of the values. Applying it is one step; Esc cancels it. */
public class NumberSeriesForm extends VBox {
    /** Makes a plan of a start and a step. */
    @FunctionalInterface
    public interface Planner {
        NumberSeries plan(int start, int step);
    }

    private final Consumer<NumberSeries> planter;

    /** @param planter applies the series */
    public NumberSeriesForm(Consumer<NumberSeries> planter) {
        this.planter = planter;
        close();
        FocusKeys.escape(this, this::close);
    }

    /** Leaves it. */
    public void close() {
        getChildren().clear();
        getStyleClass().remove("planting");
    }

    /**
     * Opens the question.
     *
     * @param what the name of the values
     * @param lowest the lowest first number
     */
    public void ask(String what, int first, int lowest, int highest, Planner planner) {
        StartAndStep numbers = new StartAndStep("plant", what, first, lowest, highest);
        Label preview = new Label();
        preview.setId("plant-preview");
        preview.setWrapText(true);
        Button plant = Cards.button("plant-do", say("common.plant"), () -> {
            numbers.plan().map(it -> planner.plan(it.start(), it.step())).ifPresent(planter);
            close();
        });
        Runnable show = () -> {
            Optional<NumberSeries> plan = numbers.plan().map(it -> planner.plan(it.start(), it.step()));
            preview.setText(plan.map(this::preview).orElse(say("plant-pane.enter-a-start-to-and", lowest, highest)));
            plant.setDisable(plan.isEmpty());
        };
        numbers.on(show, plant::fire);
        plant.setTooltip(new Tooltip(say("about.plant")));
        numbers.getChildren().addAll(plant, Cards.button("plant-cancel", say("common.cancel"), this::close));
        if (!getStyleClass().contains("planting")) {
            getStyleClass().add("planting");
        }
        getChildren().setAll(numbers, preview);
        show.run();
        numbers.begin();
    }

    private String preview(NumberSeries plant) {
        String rows =
                plant.rows().stream().map(row -> row.name() + " " + row.value()).collect(Collectors.joining(", "));
        String plan = say("plant-pane.of", rows, plant.rows().size(), plant.wanted());
        return plant.taken().isEmpty()
                ? plan
                : plan + " · "
                        + say(
                                "plant-pane.used-by-others-on-this",
                                plant.taken().stream().map(String::valueOf).collect(Collectors.joining(", ")));
    }
}
