package dibble.desktop.channels;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.Words;
import dibble.gear.Instrument;
import dibble.midi.ChannelSet;
import dibble.routing.ControlKind;
import dibble.routing.Zone;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.ChannelChart.PortChart;
import dibble.session.ChannelChart.Way;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.CubicCurve;

/** Channels on the left, parts on the right, ribbons between; drawn anew where the chart changed. */
final class ChartPane extends Pane {
    /** What hands do here. */
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

    private static final double EDGE = 24;
    private static final double BELOW = 12;
    private static final double GAP = 4;
    private static final double GROUP = 7;
    private static final double HEAD = 22;
    private static final double FREE = 22;
    private static final double SPREAD = 3.5;
    private static final double MOST_SPREAD = 10;
    private static final double LEAST_SIDE = 210;
    private static final double MOST_SIDE = 330;
    private static final double DRAGGED_OFF = 24;
    private static final long LATELY = TimeUnit.MILLISECONDS.toNanos(300);

    private final Desk desk;
    private final ChannelsPresenter presenter;
    private final Hands hands;
    private final Pane ribbonLayer = new Pane();
    private final Pane labelLayer = new Pane();
    private final CubicCurve drawn = new CubicCurve();
    private final Map<Arrival, EndRow<Arrival>> arrivals = new LinkedHashMap<>();
    private final Map<Place, EndRow<Place>> places = new LinkedHashMap<>();
    private final List<Ribbon> ribbons = new ArrayList<>();
    private final List<List<Region>> left = new ArrayList<>();
    private final List<List<Region>> right = new ArrayList<>();
    private ChannelChart chart;
    private List<Object> shown = List.of();
    private Object lit;
    private Point2D pressed;

    ChartPane(Desk desk, ChannelsPresenter presenter, Hands hands) {
        this.desk = desk;
        this.presenter = presenter;
        this.hands = hands;
        setId("channel-chart");
        ribbonLayer.setPickOnBounds(false);
        labelLayer.setMouseTransparent(true);
        drawn.setFill(null);
        drawn.getStyleClass().add("ribbon-drawn");
        drawn.setMouseTransparent(true);
        drawn.setVisible(false);
        drawn.setManaged(false);
    }

    ChannelChart chart() {
        return chart;
    }

    /** Shows the chart; nodes are made anew only where it changed. */
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
        Node focused = getScene() == null ? null : getScene().getFocusOwner();
        String focusedId = focused == null ? null : focused.getId();
        arrivals.clear();
        places.clear();
        left.clear();
        right.clear();
        lit = null;
        makeArrivals();
        makePlaces();
        makeRibbons();
        List<Node> all = new ArrayList<>();
        all.add(ribbonLayer);
        left.forEach(all::addAll);
        arrivals.values().forEach(row -> all.add(row.dot));
        right.forEach(all::addAll);
        places.values().forEach(row -> all.add(row.dot));
        all.add(labelLayer);
        all.add(drawn);
        getChildren().setAll(all);
        showSelected();
        requestLayout();
        if (focusedId != null) {
            all.stream()
                    .filter(node -> focusedId.equals(node.getId()))
                    .findFirst()
                    .ifPresent(Node::requestFocus);
        }
    }

    private void makeArrivals() {
        Map<String, List<Arrival>> bySource = chart.arrivals().stream()
                .collect(Collectors.groupingBy(Arrival::source, LinkedHashMap::new, Collectors.toList()));
        bySource.forEach((source, own) -> {
            String name = source.equals(Zone.ANY_SOURCE) ? "All sources" : Words.source(source, desk.session());
            List<Region> group = new ArrayList<>(List.of(Cards.strong(name)));
            for (Arrival arrival : own) {
                String channel = arrival.channel() == ChannelChart.EVERY ? "all" : String.valueOf(arrival.channel());
                String id = source.equals(Zone.ANY_SOURCE) ? "any" : source;
                EndRow<Arrival> row = EndRow.arrival(
                                arrival,
                                "arrival-" + id + "-" + channel,
                                channel,
                                presenter.arrivalName(arrival),
                                arrival.letIn())
                        .onChosen(() -> hands.choose(arrival));
                row.setAccessibleText(presenter.from(arrival) + ", " + presenter.arrivalName(arrival));
                hover(row, arrival);
                drag(row.dot, row);
                arrivals.put(arrival, row);
                group.add(row);
            }
            left.add(group);
        });
    }

    private void makePlaces() {
        for (PortChart port : chart.ports()) {
            String name = port.instruments().stream()
                    .map(id ->
                            desk.session().instrument(id).map(Instrument::name).orElse(id))
                    .collect(Collectors.joining(", "));
            String note = port.instruments().size() > 1 ? "on one port" : "sixteen channels of its own";
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
                EndRow<Place> row = EndRow.place(place, id(place), presenter.colour(place), channel, label, word)
                        .onChosen(() -> hands.choose(place));
                row.setAccessibleText(label + ", " + presenter.address(place));
                hover(row, place);
                drag(row.dot, row);
                places.put(place, row);
                group.add(row);
            }
            if (presenter.isUnfolded(port.port())) {
                group.add(folder("fold-" + port.instruments().get(0), "fold the free channels", port, false));
            }
            right.add(group);
        }
    }

    private static String id(Place place) {
        return place.part() == null
                ? "place-" + place.instrument() + "-channel-" + place.low()
                : "place-" + place.part().instrument() + "-" + place.part().part();
    }

    private Region free(PortChart port, Place place) {
        String text = place.low() == place.high() ? place.low() + " free" : place.low() + "–" + place.high() + " free";
        return folder("free-" + place.instrument() + "-" + place.low(), text, port, true);
    }

    private Button folder(String id, String text, PortChart port, boolean out) {
        Button button = Cards.button(id, text, () -> hands.fold(port.port(), out));
        button.getStyleClass().add("free-channels");
        button.setAccessibleText(out ? "channels " + text + ": show each" : text);
        return button;
    }

    private void makeRibbons() {
        ribbons.clear();
        for (Way way : chart.ways()) {
            Ribbon ribbon = new Ribbon(way, presenter.colour(way.to()), presenter.label(way), presenter.sentence(way));
            ribbon.addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
                pressed = new Point2D(event.getX(), event.getY());
                ribbon.requestFocus();
                hands.choose(way);
                event.consume();
            });
            ribbon.addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> dragEnd(ribbon, event));
            ribbon.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> dropEnd(ribbon, event));
            FocusKeys.choose(ribbon, event -> hands.choose(way));
            FocusKeys.delete(ribbon, () -> hands.unplug(way));
            ribbon.focusedProperty().subscribe(on -> light(on ? way : null));
            hover(ribbon, way);
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

    /** Joins by dragging from a dot to one on the other side. */
    private void drag(Node dot, EndRow<?> row) {
        dot.addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            pressed = here(event);
            event.consume();
        });
        dot.addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> {
            Point2D at = here(event);
            Point2D from = new Point2D(row.dot.getLayoutX(), row.dot.getLayoutY());
            Ribbon.bend(drawn, from.getX(), from.getY(), at.getX(), at.getY());
            drawn.setVisible(true);
            aim(at);
            event.consume();
        });
        dot.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            boolean wasDrawn = drawn.isVisible();
            leave();
            if (!wasDrawn) {
                return;
            }
            Point2D at = here(event);
            Object end = row.end;
            if (end instanceof Arrival from) {
                under(places, at).ifPresent(to -> hands.join(from, to));
            } else if (end instanceof Place to) {
                under(arrivals, at).ifPresent(from -> hands.join(from, to));
            }
        });
    }

    private Point2D here(MouseEvent event) {
        return sceneToLocal(event.getSceneX(), event.getSceneY());
    }

    /** An end of a ribbon that is dragged off follows the pointer: the nearer one. */
    private void dragEnd(Ribbon ribbon, MouseEvent event) {
        Point2D at = here(event);
        if (pressed == null || at.distance(pressed) < DRAGGED_OFF / 2) {
            return;
        }
        double begin = side() + EDGE;
        double end = getWidth() - begin;
        if (isStart(pressed)) {
            Ribbon.bend(drawn, at.getX(), at.getY(), end, ribbon.endY());
        } else {
            Ribbon.bend(drawn, begin, ribbon.startY(), at.getX(), at.getY());
        }
        ribbon.dim(true);
        drawn.setVisible(true);
        aim(at);
        event.consume();
    }

    private boolean isStart(Point2D at) {
        return at.getX() < getWidth() / 2;
    }

    private void dropEnd(Ribbon ribbon, MouseEvent event) {
        boolean wasDrawn = drawn.isVisible();
        leave();
        ribbon.dim(false);
        if (!wasDrawn) {
            return;
        }
        Point2D at = here(event);
        if (isStart(pressed)) {
            under(arrivals, at)
                    .filter(from -> !from.equals(ribbon.way.from()))
                    .ifPresentOrElse(from -> hands.beginAt(ribbon.way, from), () -> dropNowhere(ribbon, at));
        } else {
            under(places, at)
                    .filter(to -> !to.equals(ribbon.way.to()))
                    .ifPresentOrElse(to -> hands.lead(ribbon.way, to), () -> dropNowhere(ribbon, at));
        }
        event.consume();
    }

    private void dropNowhere(Ribbon ribbon, Point2D at) {
        boolean home = under(arrivals, at).isPresent() || under(places, at).isPresent();
        if (!home && at.distance(pressed) >= DRAGGED_OFF) {
            hands.unplug(ribbon.way);
        }
    }

    private static <T> Optional<T> under(Map<T, EndRow<T>> rows, Point2D at) {
        return rows.values().stream()
                .filter(row -> row.getBoundsInParent().contains(at)
                        || row.dot.getBoundsInParent().contains(at))
                .map(row -> row.end)
                .findFirst();
    }

    private void aim(Point2D at) {
        arrivals.values().forEach(row -> row.showAimed(row.getBoundsInParent().contains(at)));
        places.values().forEach(row -> row.showAimed(row.getBoundsInParent().contains(at)));
    }

    private void leave() {
        drawn.setVisible(false);
        aim(new Point2D(-1, -1));
    }

    /** Shows what is heard and what sounds now. */
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

    private double side() {
        return Math.max(LEAST_SIDE, Math.min(MOST_SIDE, getWidth() * 0.27));
    }

    private static double height(Region region, boolean head) {
        return head ? HEAD : region instanceof EndRow ? EndRow.HEIGHT : FREE;
    }

    private static double height(List<List<Region>> groups) {
        double height = BELOW;
        for (List<Region> group : groups) {
            height += GROUP;
            for (int i = 0; i < group.size(); i++) {
                height += height(group.get(i), i == 0) + GAP;
            }
        }
        return height;
    }

    @Override
    protected double computePrefHeight(double width) {
        return Math.max(height(left), height(right));
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
        lay(left, EDGE, side, EDGE + side);
        lay(right, getWidth() - EDGE - side, side, getWidth() - EDGE - side);
        Map<Ribbon, Double> starts = ends(true);
        Map<Ribbon, Double> stops = ends(false);
        List<Bounds> taken = new ArrayList<>();
        for (Ribbon ribbon : ribbons) {
            ribbon.lie(EDGE + side, starts.get(ribbon), getWidth() - EDGE - side, stops.get(ribbon));
        }
        ribbons.forEach(ribbon -> ribbon.layLabel(taken));
    }

    private void lay(List<List<Region>> groups, double x, double width, double dotX) {
        double y = 0;
        for (List<Region> group : groups) {
            y += GROUP;
            for (int i = 0; i < group.size(); i++) {
                Region region = group.get(i);
                double height = height(region, i == 0);
                region.resizeRelocate(x, y, width, height);
                if (region instanceof EndRow<?> row) {
                    row.dot.setLayoutX(dotX);
                    row.dot.setLayoutY(y + height / 2);
                }
                y += height + GAP;
            }
        }
    }

    /** Where ribbons begin or end: those of one dot lie under one another in the order of their other ends. */
    private Map<Ribbon, Double> ends(boolean start) {
        Map<Ribbon, Double> at = new LinkedHashMap<>();
        Map<Object, List<Ribbon>> byEnd = ribbons.stream()
                .collect(Collectors.groupingBy(
                        ribbon -> start ? ribbon.way.from() : ribbon.way.to(),
                        LinkedHashMap::new,
                        Collectors.toList()));
        byEnd.values().forEach(group -> {
            group.sort(Comparator.comparingDouble(ribbon -> start ? toY(ribbon) : fromY(ribbon)));
            double step = Math.min(SPREAD, 2 * MOST_SPREAD / Math.max(1, group.size() - 1));
            for (int i = 0; i < group.size(); i++) {
                double home = start ? fromY(group.get(i)) : toY(group.get(i));
                at.put(group.get(i), home + (i - (group.size() - 1) / 2.0) * step);
            }
        });
        return at;
    }

    private double fromY(Ribbon ribbon) {
        return arrivals.get(ribbon.way.from()).dot.getLayoutY();
    }

    private double toY(Ribbon ribbon) {
        return places.get(ribbon.way.to()).dot.getLayoutY();
    }
}
