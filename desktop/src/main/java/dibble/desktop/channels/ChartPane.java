package dibble.desktop.channels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.ViewContext;
import dibble.midi.ChannelSet;
import dibble.presentation.Navigator;
import dibble.presentation.Words;
import dibble.presentation.channels.ChannelsPresenter;
import dibble.routing.ControlKind;
import dibble.routing.Zone;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.ChannelChart.Way;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;

/** The chart: channels on the left, parts on the right, ribbons between them; rebuilt only after a change. */
final class ChartPane extends Pane {
    /** The actions of gestures. */
    interface Hands {
        void join(Arrival from, Place to);

        void lead(Way way, Place to);

        void beginAt(Way way, Arrival from);

        void unplug(Way way);

        void choose(Way way);

        void choose(Arrival arrival);

        void choose(Place place);

        void fold(String port, boolean out);
    }

    static final double EDGE = 24;
    private static final double MIN_SIDE = 210;
    private static final double MAX_SIDE = 330;
    private static final long LATELY = TimeUnit.MILLISECONDS.toNanos(300);

    private final ViewContext desk;
    private final ChannelsPresenter presenter;
    private final Hands hands;
    private final Pane ribbonLayer = new Pane();
    private final Pane labelLayer = new Pane();
    private final ChartDrags drags;
    private final ChartLayout layout;
    private final ChartRows rows;
    private final Map<Arrival, ChartRow<Arrival>> arrivals = new LinkedHashMap<>();
    private final Map<Place, ChartRow<Place>> places = new LinkedHashMap<>();
    private final List<Ribbon> ribbons = new ArrayList<>();
    private final List<List<Region>> left = new ArrayList<>();
    private final List<List<Region>> right = new ArrayList<>();
    private ChannelChart chart;
    private List<Object> shown = List.of();
    private Object lit;

    ChartPane(ViewContext desk, ChannelsPresenter presenter, Hands hands) {
        this.desk = desk;
        this.presenter = presenter;
        this.hands = hands;
        setId("channel-chart");
        ribbonLayer.setPickOnBounds(false);
        labelLayer.setMouseTransparent(true);
        drags = new ChartDrags(desk.pointer(), this, hands);
        layout = new ChartLayout(arrivals, places);
        rows = new ChartRows(desk, presenter, hands, this::adopt);
    }

    ChannelChart chart() {
        return chart;
    }

    Map<Arrival, ChartRow<Arrival>> arrivals() {
        return arrivals;
    }

    Map<Place, ChartRow<Place>> places() {
        return places;
    }

    /** Shows the chart; nodes are rebuilt only after a change. */
    void show(ChannelChart next) {
        List<Object> now = List.of(
                next,
                desk.session().sources(),
                desk.session().instruments(),
                desk.session().scenes().stream().map(it -> it.name()).toList(),
                desk.session().middleC());
        if (now.equals(shown)) {
            showSelected();
            return;
        }
        shown = now;
        chart = next;
        arrivals.clear();
        places.clear();
        left.clear();
        right.clear();
        lit = null;
        left.addAll(rows.arrivals(chart, arrivals));
        right.addAll(rows.places(chart, places));
        makeRibbons();
        List<Node> all = new ArrayList<>();
        all.add(ribbonLayer);
        left.forEach(all::addAll);
        arrivals.values().forEach(row -> all.add(row.dot));
        right.forEach(all::addAll);
        places.values().forEach(row -> all.add(row.dot));
        all.add(labelLayer);
        all.add(drags.drawn());
        Cards.rebuild(this, all);
        showSelected();
        requestLayout();
    }

    private void adopt(ChartRow<?> row) {
        hover(row, row.end);
        drags.joinFrom(row);
    }

    private List<MenuItem> context(Way way) {
        hands.choose(way);
        return List.of(
                Cards.item(
                        "context-keys",
                        say("context.show-in-keys"),
                        () -> desk.places()
                                .show(new Navigator.Thing(
                                        Navigator.Kind.ZONE, way.zone().id()))),
                Cards.item(
                        "context-on",
                        way.zone().enabled() ? say("context.switch-off") : say("context.switch-on"),
                        () -> presenter.change(
                                say("edit.switch-on-or-off"), way.zone().id(), it -> it.withEnabled(!it.enabled()))),
                Cards.item("context-disconnect", say("context.disconnect"), () -> hands.unplug(way)));
    }

    private void makeRibbons() {
        ribbons.clear();
        for (Way way : chart.ways()) {
            Ribbon ribbon = new Ribbon(way, presenter.colour(way.to()), presenter.label(way), presenter.sentence(way));
            drags.leadEnds(ribbon);
            FocusKeys.choose(ribbon, event -> hands.choose(way));
            FocusKeys.delete(ribbon, () -> hands.unplug(way));
            ContextItems.on(ribbon, () -> context(way));
            ribbon.focusedProperty().subscribe(on -> light(on ? way : null));
            hover(ribbon, way);
            HoverHighlight.on(
                    desk, ribbon, Navigator.Kind.ZONE, () -> way.zone().id());
            ribbons.add(ribbon);
        }
        // Thin ones lie over wide ones, so that none is hidden.
        List<Ribbon> order = new ArrayList<>(ribbons);
        order.sort(Comparator.comparing(ribbon -> !ribbon.way.whole()));
        ribbonLayer.getChildren().setAll(order);
        labelLayer.getChildren().setAll(ribbons.stream().map(Ribbon::label).toList());
    }

    private void hover(Node node, Object what) {
        node.hoverProperty().subscribe(on -> {
            if (on || Objects.equals(lit, what)) {
                light(on ? what : null);
            }
        });
    }

    /** Lights the ways of a row, or one way; dims the others. */
    private void light(Object what) {
        lit = what;
        for (Ribbon ribbon : ribbons) {
            boolean own = what == null
                    || ribbon.way.equals(what)
                    || ribbon.way.from().equals(what)
                    || ribbon.way.to().equals(what);
            ribbon.dim(!own);
            if (own && what != null) {
                ribbon.toFront();
            }
        }
    }

    void showSelected() {
        String zone = desk.selection().zone().get();
        ribbons.forEach(ribbon -> ribbon.showSelected(ribbon.way.zone().id().equals(zone)));
    }

    void showPicked(Arrival arrival) {
        arrivals.forEach((end, row) -> row.showPicked(end.equals(arrival)));
    }

    /** Updates the received and sounding notes. */
    void follow() {
        long now = System.nanoTime();
        arrivals.forEach((arrival, row) -> {
            int last = arrival.channel() == ChannelChart.EVERY
                    ? 0
                    : desk.live().lastOn(arrival.source(), arrival.channel());
            if (last != 0) {
                row.tell(Words.message(last, desk.session().middleC()));
                row.showHeard(now - desk.live().lastStampOn(arrival.source(), arrival.channel()) < LATELY);
            }
        });
        for (Ribbon ribbon : ribbons) {
            ribbon.showSounding(sounds(ribbon.way));
        }
    }

    private boolean sounds(Way way) {
        Zone zone = way.zone();
        if (!zone.enabled() || way.from().source().equals(Zone.ANY_SOURCE)) {
            return false;
        }
        String source = way.from().source();
        int channel = way.from().channel();
        ChannelSet channels = channel == ChannelChart.EVERY ? zone.channels() : ChannelSet.of(channel);
        for (int key = zone.keys().low(); key <= zone.keys().high(); key++) {
            if (desk.live().isDown(source, key, channels)
                    && zone.velocity().holds(desk.live().value(source, ControlKind.NOTE, key, channels))) {
                return true;
            }
        }
        return false;
    }

    /** Returns the width of a side. */
    double side() {
        return Math.max(MIN_SIDE, Math.min(MAX_SIDE, getWidth() * 0.27));
    }

    @Override
    protected double computePrefHeight(double width) {
        return Math.max(ChartLayout.height(left), ChartLayout.height(right));
    }

    @Override
    protected double computeMinHeight(double width) {
        return computePrefHeight(width);
    }

    @Override
    protected void layoutChildren() {
        double side = side();
        ribbonLayer.resizeRelocate(0, 0, getWidth(), getHeight());
        labelLayer.resizeRelocate(0, 0, getWidth(), getHeight());
        ChartLayout.lay(left, EDGE, side, EDGE + side);
        ChartLayout.lay(right, getWidth() - EDGE - side, side, getWidth() - EDGE - side);
        Map<Ribbon, Double> starts = layout.ends(ribbons, true);
        Map<Ribbon, Double> stops = layout.ends(ribbons, false);
        List<Bounds> taken = new ArrayList<>();
        for (Ribbon ribbon : ribbons) {
            ribbon.lie(EDGE + side, starts.get(ribbon), getWidth() - EDGE - side, stops.get(ribbon));
        }
        ribbons.forEach(ribbon -> ribbon.layLabel(taken));
    }
}
