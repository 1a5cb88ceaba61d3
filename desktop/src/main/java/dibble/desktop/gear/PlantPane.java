package dibble.desktop.gear;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.FocusKeys;
import dibble.edits.Plant;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.routing.Zone;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** Asks for a start and a step, shows what each would get, and plants it in one step. Esc leaves it. */
final class PlantPane extends VBox {
    /** Makes a plan of a start and a step. */
    @FunctionalInterface
    private interface Planner {
        Plant plan(int start, int step);
    }

    private static final int MOST_CHANNEL = 16;
    private static final int MOST_OUTPUT = 64;
    private static final int MOST_NOTE = 127;

    private final GearPresenter presenter;

    PlantPane(GearPresenter presenter) {
        this.presenter = presenter;
        close();
        FocusKeys.escape(this, this::close);
    }

    void close() {
        getChildren().clear();
        getStyleClass().remove("planting");
    }

    void askChannels(List<PartRef> row) {
        ask(
                "Channels from",
                "1",
                1,
                MOST_CHANNEL,
                (start, step) -> Plant.channels(presenter.session(), row, start, step));
    }

    void askOutputs(List<PartRef> row) {
        ask("Outputs from", "1", 1, MOST_OUTPUT, (start, step) -> Plant.outputs(presenter.session(), row, start, step));
    }

    void askLanes(String source) {
        ask(
                "Channels from",
                "1",
                1,
                MOST_CHANNEL,
                (start, step) -> Plant.lanes(presenter.session(), source, start, step));
    }

    /** The notes of pads are those of the first zone that takes them. */
    void askNotes(String id) {
        Source source = presenter.session().source(id).orElse(null);
        Optional<Zone> zone = presenter.zonesOf(id).stream().findFirst();
        if (source == null || zone.isEmpty()) {
            getChildren().setAll(Cards.soft("These pads play nothing yet: lead them to a part first, in Keys."));
            return;
        }
        List<String> pads = IntStream.rangeClosed(
                        source.keys().low(), source.keys().high())
                .mapToObj(key -> "pad " + (key - source.keys().low() + 1))
                .toList();
        ask(
                "Notes from",
                "36",
                0,
                MOST_NOTE,
                (start, step) -> Plant.notes(zone.get().id(), source.keys(), pads, start, step));
    }

    private void ask(String what, String first, int lowest, int highest, Planner planner) {
        TextField start = field("plant-start", "the first", first);
        TextField step = field("plant-step", "step", "1");
        Label preview = new Label();
        preview.setId("plant-preview");
        preview.setWrapText(true);
        Button plant = Cards.button("plant-do", "Plant", () -> {
            plan(start, step, lowest, highest, planner).ifPresent(presenter::plant);
            close();
        });
        Runnable show = () -> {
            Optional<Plant> plan = plan(start, step, lowest, highest, planner);
            preview.setText(plan.map(this::preview)
                    .orElse("Two numbers: the first, " + lowest + " to " + highest + ", and a step from 1."));
            plant.setDisable(plan.isEmpty());
        };
        start.textProperty().subscribe(show);
        step.textProperty().subscribe(show);
        start.setOnAction(event -> plant.fire());
        step.setOnAction(event -> plant.fire());
        FlowPane line = new FlowPane(
                8,
                6,
                new Label(what),
                start,
                new Label("step"),
                step,
                plant,
                Cards.button("plant-cancel", "Cancel", this::close));
        line.getStyleClass().add("card-line");
        if (!getStyleClass().contains("planting")) {
            getStyleClass().add("planting");
        }
        getChildren().setAll(line, preview);
        show.run();
        start.requestFocus();
        start.selectAll();
    }

    private static TextField field(String id, String name, String text) {
        TextField field = new TextField(text);
        field.setId(id);
        field.setAccessibleText(name);
        field.setPrefColumnCount(3);
        return field;
    }

    private static Optional<Plant> plan(TextField start, TextField step, int lowest, int highest, Planner planner) {
        String first = start.getText().strip();
        String by = step.getText().strip();
        if (!first.matches("\\d{1,3}") || !by.matches("\\d{1,3}")) {
            return Optional.empty();
        }
        int from = Integer.parseInt(first);
        return from >= lowest && from <= highest && Integer.parseInt(by) >= 1
                ? Optional.of(planner.plan(from, Integer.parseInt(by)))
                : Optional.empty();
    }

    private String preview(Plant plant) {
        String rows =
                plant.rows().stream().map(row -> row.name() + " " + row.value()).collect(Collectors.joining(", "));
        String taken = plant.taken().isEmpty()
                ? ""
                : " · taken by others on this port: "
                        + plant.taken().stream().map(String::valueOf).collect(Collectors.joining(", "));
        return rows + " · " + plant.rows().size() + " of " + plant.wanted() + taken;
    }
}
