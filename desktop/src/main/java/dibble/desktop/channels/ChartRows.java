package dibble.desktop.channels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.presentation.Navigator;
import dibble.presentation.channels.ChannelsPresenter;
import dibble.routing.Zone;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.ChannelChart.PortChart;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.scene.control.Button;
import javafx.scene.layout.Region;

/** Makes the rows of a chart: received channels on the left, parts on the right. */
final class ChartRows {
    private final ViewContext desk;
    private final ChannelsPresenter presenter;
    private final ChartPane.Hands hands;
    private final Consumer<ChartRow<?>> adopter;

    /** @param adopter is given each row that is made */
    ChartRows(ViewContext desk, ChannelsPresenter presenter, ChartPane.Hands hands, Consumer<ChartRow<?>> adopter) {
        this.desk = desk;
        this.presenter = presenter;
        this.hands = hands;
        this.adopter = adopter;
    }

    /** Returns groups of rows, one for each source, and adds each row to a map by its channel. */
    List<List<Region>> arrivals(ChannelChart chart, Map<Arrival, ChartRow<Arrival>> arrivals) {
        List<List<Region>> left = new ArrayList<>();
        Map<String, List<Arrival>> bySource = chart.arrivals().stream()
                .collect(Collectors.groupingBy(Arrival::source, LinkedHashMap::new, Collectors.toList()));
        bySource.forEach((source, own) -> {
            String name = source.equals(Zone.ANY_SOURCE)
                    ? say("common.all-sources")
                    : SessionFormatter.source(source, desk.session());
            List<Region> group = new ArrayList<>(List.of(Cards.strong(name)));
            for (Arrival arrival : own) {
                String channel = arrival.channel() == ChannelChart.EVERY ? "all" : String.valueOf(arrival.channel());
                String id = source.equals(Zone.ANY_SOURCE) ? "any" : source;
                ChartRow<Arrival> row = ChartRow.arrival(
                                arrival,
                                "arrival-" + id + "-" + channel,
                                channel,
                                presenter.arrivalName(arrival),
                                arrival.letIn())
                        .onChosen(() -> hands.choose(arrival));
                row.setAccessibleText(presenter.from(arrival) + ", " + presenter.arrivalName(arrival));
                adopter.accept(row);
                arrivals.put(arrival, row);
                group.add(row);
            }
            left.add(group);
        });
        return left;
    }

    /** Groups of rows, one a port. */
    List<List<Region>> places(ChannelChart chart, Map<Place, ChartRow<Place>> places) {
        List<List<Region>> right = new ArrayList<>();
        for (PortChart port : chart.ports()) {
            String name = port.instruments().stream()
                    .map(id ->
                            desk.session().instrument(id).map(Instrument::name).orElse(id))
                    .collect(Collectors.joining(", "));
            String note = port.instruments().size() > 1
                    ? say("chart-rows.on-one-port")
                    : say("chart-rows.sixteen-channels-of-its-own");
            List<Region> group = new ArrayList<>(List.of(Cards.line(Cards.strong(name), Cards.soft(note))));
            boolean several = port.instruments().size() > 1;
            for (Place place : port.places()) {
                if (place.target().isEmpty()) {
                    group.add(free(port, place));
                    continue;
                }
                String label = presenter.placeName(place);
                String word = several && place.part() != null
                        ? desk.session()
                                .instrument(place.instrument())
                                .map(Instrument::name)
                                .orElse("")
                        : presenter.channelWord(place);
                String channel = place.low() > 0 ? String.valueOf(place.low()) : place.low() == 0 ? "=" : "–";
                ChartRow<Place> row = ChartRow.place(place, id(place), presenter.colour(place), channel, label, word)
                        .onChosen(() -> hands.choose(place));
                row.setAccessibleText(label + ", " + presenter.address(place));
                adopter.accept(row);
                if (place.part() != null) {
                    HoverHighlight.on(
                            desk, row, Navigator.Kind.PART, () -> place.part().toString());
                }
                places.put(place, row);
                group.add(row);
            }
            if (presenter.isUnfolded(port.port())) {
                group.add(folder(
                        "fold-" + port.instruments().get(0),
                        say("chart-rows.collapse-the-free-channels"),
                        port,
                        false));
            }
            right.add(group);
        }
        return right;
    }

    private static String id(Place place) {
        return place.part() == null
                ? "place-" + place.instrument() + "-channel-" + place.low()
                : "place-" + place.part().instrument() + "-" + place.part().part();
    }

    private Region free(PortChart port, Place place) {
        String text = place.low() == place.high()
                ? say("chart-rows.free", place.low())
                : say("chart-rows.free-2", place.low(), place.high());
        return folder("free-" + place.instrument() + "-" + place.low(), text, port, true);
    }

    private Button folder(String id, String text, PortChart port, boolean out) {
        Button button = Cards.button(id, text, () -> hands.fold(port.port(), out));
        button.getStyleClass().add("free-channels");
        button.setAccessibleText(out ? say("chart-rows.channels-show-each", text) : text);
        return button;
    }
}
