package dibble.desktop.gear;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.StartAndStep;
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
                1,
                1,
                MOST_CHANNEL,
                (start, step) -> Plant.channels(presenter.session(), row, start, step));
    }

    void askOutputs(List<PartRef> row) {
        ask("Outputs from", 1, 1, MOST_OUTPUT, (start, step) -> Plant.outputs(presenter.session(), row, start, step));
    }

    void askLanes(String source) {
        ask(
                "Channels from",
                1,
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
                36,
                0,
                MOST_NOTE,
                (start, step) -> Plant.notes(zone.get().id(), source.keys(), pads, start, step));
    }

    private void ask(String what, int first, int lowest, int highest, Planner planner) {
        StartAndStep numbers = new StartAndStep("plant", what, first, lowest, highest);
        Label preview = new Label();
        preview.setId("plant-preview");
        preview.setWrapText(true);
        Button plant = Cards.button("plant-do", "Plant", () -> {
            numbers.plan().map(it -> planner.plan(it.start(), it.step())).ifPresent(presenter::plant);
            close();
        });
        Runnable show = () -> {
            Optional<Plant> plan = numbers.plan().map(it -> planner.plan(it.start(), it.step()));
            preview.setText(plan.map(this::preview)
                    .orElse("Two numbers: the first, " + lowest + " to " + highest + ", and a step from 1."));
            plant.setDisable(plan.isEmpty());
        };
        numbers.on(show, plant::fire);
        numbers.getChildren().addAll(plant, Cards.button("plant-cancel", "Cancel", this::close));
        if (!getStyleClass().contains("planting")) {
            getStyleClass().add("planting");
        }
        getChildren().setAll(numbers, preview);
        show.run();
        numbers.begin();
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
