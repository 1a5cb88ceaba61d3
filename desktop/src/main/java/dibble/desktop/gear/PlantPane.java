package dibble.desktop.gear;

import static dibble.desktop.ui.UiText.say;

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
import javafx.scene.control.Tooltip;
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
                say("plant-pane.channels-from"),
                1,
                1,
                MOST_CHANNEL,
                (start, step) -> Plant.channels(presenter.session(), row, start, step));
    }

    void askOutputs(List<PartRef> row) {
        ask(
                say("plant-pane.outputs-from"),
                1,
                1,
                MOST_OUTPUT,
                (start, step) -> Plant.outputs(presenter.session(), row, start, step));
    }

    void askLanes(String source) {
        ask(
                say("plant-pane.channels-from"),
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
            getChildren().setAll(Cards.soft(say("plant-pane.these-pads-have-no-sound")));
            return;
        }
        List<String> pads = IntStream.rangeClosed(
                        source.keys().low(), source.keys().high())
                .mapToObj(key -> say("plant-pane.pad", key - source.keys().low() + 1))
                .toList();
        ask(
                say("common.notes-from"),
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
        Button plant = Cards.button("plant-do", say("common.plant"), () -> {
            numbers.plan().map(it -> planner.plan(it.start(), it.step())).ifPresent(presenter::plant);
            close();
        });
        Runnable show = () -> {
            Optional<Plant> plan = numbers.plan().map(it -> planner.plan(it.start(), it.step()));
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

    private String preview(Plant plant) {
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
