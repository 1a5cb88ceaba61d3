package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.NumberSeriesForm;
import dibble.edits.NumberSeries;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.gear.StripRef;
import dibble.presentation.gear.GearPresenter;
import dibble.routing.Zone;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/** Plants channels, outputs and notes of gear. */
final class PlantPane extends NumberSeriesForm {
    private static final int MAX_CHANNEL = 16;
    private static final int MAX_OUTPUT = 64;
    private static final int MAX_NOTE = 127;

    private final GearPresenter presenter;

    PlantPane(GearPresenter presenter) {
        super(presenter::plant);
        this.presenter = presenter;
    }

    void askChannels(List<PartRef> row) {
        ask(
                say("plant-pane.channels-from"),
                1,
                1,
                MAX_CHANNEL,
                (start, step) -> NumberSeries.channels(presenter.session(), row, start, step));
    }

    void askOutputs(List<PartRef> row) {
        ask(
                say("plant-pane.outputs-from"),
                1,
                1,
                MAX_OUTPUT,
                (start, step) -> NumberSeries.outputs(
                        presenter.session(), row.stream().map(StripRef::of).toList(), start, step));
    }

    void askLanes(String source) {
        ask(
                say("plant-pane.channels-from"),
                1,
                1,
                MAX_CHANNEL,
                (start, step) -> NumberSeries.lanes(presenter.session(), source, start, step));
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
                MAX_NOTE,
                (start, step) -> NumberSeries.notes(zone.get().id(), source.keys(), pads, start, step));
    }
}
