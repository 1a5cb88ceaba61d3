package dibble.desktop.channels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.Question;
import dibble.edits.NumberSeries;
import dibble.gear.PartRef;
import dibble.presentation.Choice;
import dibble.presentation.channels.ChannelsPresenter;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** Leads a row of channels to a row of parts: asks for the firsts and a step, shows the outcome, then does it. */
final class ConnectSeriesPane extends Question {
    private final ChannelsPresenter presenter;
    private final ComboBox<Choice<Arrival>> from = Cards.box("join-plant-from", say("join-plant-pane.first-channel"));
    private final ComboBox<Choice<PartRef>> first = Cards.box("join-plant-first", say("join-plant-pane.first-sound"));
    private final ComboBox<Choice<Integer>> step =
            Cards.box("join-plant-step", say("join-plant-pane.step-in-sounds-per-channel"));
    private final Label preview = new Label();
    private final Button plant;
    private List<Arrival> arrivals = List.of();

    ConnectSeriesPane(ChannelsPresenter presenter) {
        super("join-plant");
        this.presenter = presenter;
        preview.setId("join-plant-preview");
        preview.setWrapText(true);
        step.getItems().setAll(Form.CHANNELS);
        plant = Cards.button("join-plant-do", say("common.plant"), () -> {
            presenter.plant(plan());
            close();
        });
        for (ComboBox<?> box : List.of(from, first, step)) {
            box.setOnAction(event -> showPreview());
        }
        HBox line = new HBox(
                8,
                new Label(say("common.from")),
                from,
                new Label(say("common.to")),
                first,
                new Label(say("join-plant-pane.step")),
                step,
                plant,
                Cards.button("join-plant-cancel", say("common.cancel"), this::close));
        line.getStyleClass().add("card-line");
        getChildren().addAll(line, preview);
    }

    void ask(ChannelChart chart) {
        arrivals = chart.arrivals().stream()
                .filter(it -> it.channel() != ChannelChart.EVERY)
                .toList();
        from.getItems()
                .setAll(arrivals.stream()
                        .map(it -> new Choice<>(it, presenter.from(it)))
                        .toList());
        first.getItems()
                .setAll(presenter.parts().stream()
                        .map(it -> new Choice<>(
                                it, presenter.session().part(it).orElseThrow().name()))
                        .toList());
        from.getSelectionModel().selectFirst();
        first.getSelectionModel().selectFirst();
        step.getSelectionModel().selectFirst();
        open(from);
        showPreview();
    }

    private NumberSeries plan() {
        int at = arrivals.indexOf(from.getValue().value());
        return presenter.plan(
                arrivals.subList(at, arrivals.size()),
                first.getValue().value(),
                step.getValue().value());
    }

    private void showPreview() {
        boolean ready = from.getValue() != null && first.getValue() != null && step.getValue() != null;
        plant.setDisable(!ready);
        if (!ready) {
            preview.setText(say("join-plant-pane.there-is-no-channel-or"));
            return;
        }
        NumberSeries plan = plan();
        preview.setText(say(
                "join-plant-pane.of",
                plan.rows().stream().map(NumberSeries.Row::name).collect(Collectors.joining(" · ")),
                plan.rows().size(),
                plan.wanted()));
    }
}
