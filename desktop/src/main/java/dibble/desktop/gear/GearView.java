package dibble.desktop.gear;

import dibble.checks.Checks;
import dibble.checks.Finding;
import dibble.checks.Live;
import dibble.desktop.ui.AskBar;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.View;
import dibble.desktop.ui.Words;
import dibble.edits.StartingPoint;
import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.routing.Routing;
import dibble.session.Session;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import javafx.collections.SetChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;

/** Gear: who plays, what sounds, on which port and channel. */
public final class GearView extends BorderPane implements View {
    private static final Set<String> GEAR_CHECKS = Set.of("channel-clash", "no-channel-left", "port-missing");
    private static final int MOST_OPEN = 64;
    private static final double SOURCES_WIDTH = 310;
    private static final double SIDE_WIDTH = 306;

    private final Desk desk;
    private final Consumer<StartingPoint> starts;
    private final GearPresenter presenter;
    private final VBox sources = new VBox(10);
    private final VBox instruments = new VBox(10);
    private final Label sourceCount = Cards.soft("");
    private final Label partCount = Cards.soft("");
    private final Details details;
    private final PortsPanel ports;
    private final ToggleButton detailsTab = new ToggleButton("Details");
    private final ToggleButton portsTab = new ToggleButton("Ports and shelf");
    private final ToggleButton which = new ToggleButton("Which one is this?");
    private final ScrollPane sideScroll;
    private final ScrollPane leftScroll;
    private final VBox portsAndShelf;
    private final SilencePane silence;
    private final List<SourceCard> sourceCards = new ArrayList<>();
    private final List<InstrumentCard> instrumentCards = new ArrayList<>();
    private final Map<List<Object>, SourceCard> sourceByKey = new HashMap<>();
    private final Map<List<Object>, InstrumentCard> instrumentByKey = new HashMap<>();

    /** Instruments that were opened or folded by hand. */
    private final Map<String, Boolean> turned = new HashMap<>();

    /** Instruments whose stand-in's face is shown. */
    private final Set<String> faced = new HashSet<>();

    private Session shown;
    private List<String> shownPorts = List.of();
    private List<Object> shownStates = List.of();
    private boolean stale = true;

    /** @param starts begins a new session from a starting point */
    public GearView(Desk desk, Consumer<StartingPoint> starts) {
        this.desk = desk;
        this.starts = starts;
        presenter = new GearPresenter(desk);
        details = new Details(desk, presenter);
        ports = new PortsPanel(desk);
        silence = new SilencePane(desk);
        setId("gear");
        which.setId("which-one");
        which.setTooltip(new Tooltip("Press a key: Dibble shows which source it is, even where none is on that port"));
        which.setMinWidth(USE_PREF_SIZE);
        which.setOnAction(event -> askWhich(which.isSelected()));
        VBox left = new VBox(10, sources);
        left.getStyleClass().add("gear-column");
        leftScroll = scroll(left);
        HBox leftHead = title("Played by", sourceCount, which);
        leftHead.getStyleClass().add("gear-head");
        HBox leftFoot = new HBox(8, addMenu(), startingPoints(starts));
        leftFoot.getStyleClass().add("gear-foot");
        BorderPane leftSide = new BorderPane(leftScroll, leftHead, null, leftFoot, null);
        leftSide.setMinWidth(SOURCES_WIDTH);
        leftSide.setPrefWidth(SOURCES_WIDTH);
        leftSide.setMaxWidth(SOURCES_WIDTH);
        MenuButton addInstrument = new MenuButton("Add instrument");
        addInstrument.setId("add-instrument");
        addInstrument.setMinWidth(USE_PREF_SIZE);
        for (GearPresenter.Sounds sounds : GearPresenter.Sounds.values()) {
            MenuItem item = new MenuItem(sounds.title);
            item.setId("add-" + sounds.name().toLowerCase(Locale.ROOT).replace('_', '-'));
            item.setOnAction(event -> presenter.addInstrument(sounds));
            addInstrument.getItems().add(item);
        }
        Button silenceTest = Cards.button("silence-test", "Silence test…", silence::begin);
        silenceTest.setTooltip(new Tooltip("Plays what should not sound, and asks whether it does"));
        VBox asking = new VBox(silence);
        asking.getStyleClass().add("gear-asking");
        asking.managedProperty().bind(silence.visibleProperty());
        HBox middleHead = title("Sounds", partCount, silenceTest, addInstrument);
        middleHead.getStyleClass().add("gear-head");
        VBox middle = new VBox(10, instruments);
        middle.getStyleClass().add("gear-column");
        setLeft(leftSide);
        setCenter(new BorderPane(scroll(middle), new VBox(middleHead, asking), null, null, null));
        portsAndShelf = new VBox(ports, new ShelfPanel(desk, presenter));
        sideScroll = scroll(portsAndShelf);
        sideScroll.getStyleClass().add("side");
        setRight(side());
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE && which.isSelected()) {
                askWhich(false);
                event.consume();
            } else if (event.getCode() == KeyCode.P
                    && !event.isShortcutDown()
                    && !(event.getTarget() instanceof TextInputControl)) {
                turnTo(true);
                show();
                details.plantSelected();
                event.consume();
            }
        });
    }

    private MenuButton addMenu() {
        MenuButton add = new MenuButton("Add a source");
        add.setId("add-source");
        for (GearPresenter.Size size : GearPresenter.Size.values()) {
            MenuItem item = new MenuItem(size.title);
            item.setId("add-" + size.name().toLowerCase(Locale.ROOT));
            item.setOnAction(event -> presenter.addSource(size));
            add.getItems().add(item);
        }
        return add;
    }

    /** The starting points, where a session is bare. */
    private VBox beginnings() {
        VBox beginnings = new VBox(8, empty("Or begin with one of these:"));
        for (StartingPoint point : StartingPoint.values()) {
            beginnings
                    .getChildren()
                    .add(Cards.button(
                            "bare-" + point.name().toLowerCase(Locale.ROOT),
                            point.title(),
                            () -> starts.accept(point)));
        }
        return beginnings;
    }

    private static MenuButton startingPoints(Consumer<StartingPoint> starts) {
        MenuButton points = new MenuButton("Starting points");
        points.setId("starting-points");
        for (StartingPoint point : StartingPoint.values()) {
            MenuItem item = new MenuItem(point.title());
            item.setId("begin-" + point.name().toLowerCase(Locale.ROOT));
            item.setOnAction(event -> starts.accept(point));
            points.getItems().add(item);
        }
        return points;
    }

    private BorderPane side() {
        detailsTab.setId("gear-details");
        portsTab.setId("gear-ports");
        detailsTab.setOnAction(event -> turnTo(true));
        portsTab.setOnAction(event -> turnTo(false));
        HBox tabs = new HBox(6, portsTab, detailsTab);
        tabs.getStyleClass().add("side-tabs");
        detailsTab.getStyleClass().add("small");
        portsTab.getStyleClass().add("small");
        BorderPane side = new BorderPane(sideScroll, tabs, null, null, null);
        side.getStyleClass().add("gear-side");
        side.setMinWidth(SIDE_WIDTH);
        side.setPrefWidth(SIDE_WIDTH);
        side.setMaxWidth(SIDE_WIDTH);
        turnTo(false);
        return side;
    }

    private void turnTo(boolean toDetails) {
        detailsTab.setSelected(toDetails);
        portsTab.setSelected(!toDetails);
        sideScroll.setContent(toDetails ? details : portsAndShelf);
        stale = true;
    }

    /** Waits for a key on any port, or no longer. */
    private void askWhich(boolean on) {
        which.setSelected(on);
        which.setText(on ? "Press a key…" : "Which one is this?");
        desk.studio().listenEverywhere(on);
    }

    private void found(String source) {
        if (which.isSelected()) {
            askWhich(false);
            presenter.select(source);
            turnTo(true);
            showSource(source);
        }
    }

    /** Brings a source's card into sight. */
    private void showSource(String id) {
        show();
        for (int i = 0; i < sourceCards.size(); i++) {
            if (desk.session().sources().get(i).id().equals(id)) {
                SourceCard card = sourceCards.get(i);
                double space = leftScroll.getContent().getBoundsInLocal().getHeight()
                        - leftScroll.getViewportBounds().getHeight();
                leftScroll.setVvalue(
                        space <= 0 ? 0 : Math.min(1, card.getBoundsInParent().getMinY() / space));
                card.requestFocus();
            }
        }
    }

    private void tellStranger() {
        String port = which.isSelected() ? desk.studio().strangerPlayed() : null;
        if (port != null) {
            askWhich(false);
            desk.ask()
                    .tell(
                            Words.portInList(port, desk.session()) + " was played, and no source is on it.",
                            new AskBar.Answer("Add it", () -> {
                                presenter.addSourceOn(port);
                                turnTo(true);
                            }));
        }
    }

    private static Label empty(String text) {
        Label label = Cards.soft(text);
        label.setWrapText(true);
        return label;
    }

    private static HBox title(String text, Label count, Node... buttons) {
        HBox.setHgrow(count, Priority.ALWAYS);
        count.setMaxWidth(Double.MAX_VALUE);
        count.setMinWidth(0);
        Label heading = Cards.heading(text);
        heading.setMinWidth(Label.USE_PREF_SIZE);
        HBox title = new HBox(8, heading, count);
        title.getChildren().addAll(buttons);
        title.getStyleClass().add("gear-title");
        return title;
    }

    private static ScrollPane scroll(VBox content) {
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("rows");
        return scroll;
    }

    @Override
    public Subscription open() {
        Runnable unlisten = desk.document().listen(() -> stale = true);
        stale = true;
        SetChangeListener<String> row = change -> stale = true;
        desk.selection().parts().addListener(row);
        return Subscription.combine(
                unlisten::run,
                () -> desk.selection().parts().removeListener(row),
                desk.selection().source().subscribe(id -> stale = true),
                desk.selection().part().subscribe(part -> {
                    stale = true;
                    if (part != null) {
                        turnTo(true);
                    }
                }),
                desk.selection().instrument().subscribe(id -> {
                    stale = true;
                    if (id != null) {
                        turnTo(true);
                    }
                }),
                desk.preferences().property().subscribe(settings -> stale = true),
                desk.theme().paletteProperty().subscribe(palette -> instrumentCards.forEach(InstrumentCard::drawAnew)),
                desk.live().onKey((source, key, velocity) -> found(source)),
                desk.pulse().each(this::follow),
                () -> {
                    askWhich(false);
                    silence.close();
                });
    }

    private void follow() {
        List<String> there = new ArrayList<>(desk.devices().inputs());
        there.addAll(desk.devices().outputs());
        List<Object> states = states();
        if (stale || !there.equals(shownPorts) || !states.equals(shownStates)) {
            if (!there.equals(shownPorts) || !states.equals(shownStates)) {
                shown = null;
            }
            stale = false;
            shownPorts = there;
            shownStates = states;
            show();
        }
        if (portsTab.isSelected()) {
            ports.show();
        }
        tellStranger();
        long now = Clock.SYSTEM.nanos();
        sourceCards.forEach(card -> card.follow(now));
        instrumentCards.forEach(InstrumentCard::follow);
    }

    /** What is known of the ports in use beyond their being there. */
    private List<Object> states() {
        Set<String> used = new LinkedHashSet<>();
        desk.session().sources().forEach(source -> used.add(source.port()));
        desk.session().instruments().forEach(instrument -> used.add(instrument.port()));
        List<Object> states = new ArrayList<>();
        for (String port : used) {
            states.add(desk.devices().trouble(port));
            states.add(desk.studio().identity(port));
        }
        return states;
    }

    private void show() {
        Session session = desk.session();
        // The performance changes often while playing, and cards show nothing of it.
        if (!session.equals(shown)) {
            shown = session;
            showCards(session);
        }
        List<PartRef> row = presenter.selectedParts();
        String whole = row.isEmpty() ? desk.selection().instrument().get() : null;
        String source =
                row.isEmpty() && whole == null ? desk.selection().source().get() : null;
        for (int i = 0; i < sourceCards.size(); i++) {
            sourceCards
                    .get(i)
                    .showSelected(Objects.equals(session.sources().get(i).id(), source));
        }
        for (int i = 0; i < instrumentCards.size(); i++) {
            instrumentCards
                    .get(i)
                    .showSelected(row, session.instruments().get(i).id().equals(whole));
        }
        if (detailsTab.isSelected()) {
            if (row.isEmpty() && whole == null && presenter.selectedSource().isEmpty()) {
                turnTo(false);
            } else {
                details.show(shownPorts);
            }
        }
    }

    private void showCards(Session session) {
        sourceCards.clear();
        instrumentCards.clear();
        Map<List<Object>, SourceCard> sourcesBefore = new HashMap<>(sourceByKey);
        Map<List<Object>, InstrumentCard> instrumentsBefore = new HashMap<>(instrumentByKey);
        sourceByKey.clear();
        instrumentByKey.clear();
        Set<String> there = new HashSet<>(shownPorts);
        List<Finding> findings = Checks.find(GEAR_CHECKS, session, desk.performance(), Live.ports(there));
        for (Source source : session.sources()) {
            List<Finding> own = findings.stream()
                    .filter(finding -> finding.ids().contains(source.id()))
                    .toList();
            List<Object> key = List.of(
                    source,
                    session.middleC(),
                    own.stream().map(Finding::text).toList(),
                    own(session, source),
                    states(source.port()));
            SourceCard before = sourcesBefore.get(key);
            SourceCard card = before != null ? before : new SourceCard(desk, presenter, source, own);
            sourceByKey.put(key, card);
            sourceCards.add(card);
        }
        Routing routing = desk.routing();
        int all = session.instruments().stream()
                .mapToInt(instrument -> instrument.parts().size())
                .sum();
        for (Instrument instrument : session.instruments()) {
            List<Finding> own = findings.stream()
                    .filter(finding -> finding.ids().stream()
                            .anyMatch(id -> id.equals(instrument.id()) || id.startsWith(instrument.id() + "/")))
                    .toList();
            // All that a card shows: one that would show the same is kept, which matters where there are forty.
            List<Object> key = List.of(
                    instrument,
                    onPort(session, routing.channels(), instrument.port()),
                    own.stream().map(Finding::text).toList(),
                    states(instrument.port()),
                    faced.contains(instrument.id()),
                    isOpen(instrument, all));
            InstrumentCard before = instrumentsBefore.get(key);
            InstrumentCard card = before != null ? before : card(instrument, routing, own, all);
            instrumentByKey.put(key, card);
            instrumentCards.add(card);
        }
        put(sources, sourceCards);
        if (sourceCards.isEmpty()) {
            sources.getChildren()
                    .add(empty("Nobody plays yet. Add a source, or begin with a starting point: both are below."));
        }
        put(instruments, instrumentCards);
        if (instrumentCards.isEmpty()) {
            instruments
                    .getChildren()
                    .add(empty("Nothing sounds yet. Add an instrument, or take one from the gear shelf at the right."));
            if (sourceCards.isEmpty()) {
                instruments.getChildren().add(beginnings());
            }
        }
        sourceCount.setText(Words.count(session.sources().size(), "source"));
        partCount.setText(Words.count(session.instruments().size(), "instrument") + " · " + Words.count(all, "part"));
    }

    /** Puts cards into a column; those that are there already stay, since taking one out and in is dear. */
    private static void put(VBox column, List<? extends Node> cards) {
        Cards.keepFocus(column, () -> putAll(column, cards));
    }

    private static void putAll(VBox column, List<? extends Node> cards) {
        List<Node> there = column.getChildren();
        if (there.size() != cards.size()) {
            column.getChildren().setAll(cards);
            return;
        }
        for (int i = 0; i < cards.size(); i++) {
            if (there.get(i) != cards.get(i)) {
                // A card that changed places is nowhere else by then only if all are set anew.
                if (there.contains(cards.get(i))) {
                    column.getChildren().setAll(cards);
                    return;
                }
                there.set(i, cards.get(i));
            }
        }
    }

    private List<Object> states(String port) {
        return List.of(desk.devices().trouble(port), desk.studio().identity(port));
    }

    private InstrumentCard card(Instrument instrument, Routing routing, List<Finding> findings, int allParts) {
        boolean open = isOpen(instrument, allParts);
        boolean hasFace = faced.contains(instrument.id());
        return new InstrumentCard(
                desk,
                presenter,
                instrument,
                routing,
                findings,
                open,
                () -> turn(() -> turned.put(instrument.id(), !open)),
                hasFace,
                () -> turn(() -> {
                    if (!faced.remove(instrument.id())) {
                        faced.add(instrument.id());
                    }
                }));
    }

    private void turn(Runnable change) {
        change.run();
        shown = null;
        stale = true;
    }

    /** Where there are many parts, instruments are folded unless somebody opens them. */
    private boolean isOpen(Instrument instrument, int allParts) {
        return turned.getOrDefault(
                instrument.id(), allParts <= MOST_OPEN || instrument.parts().isEmpty());
    }

    private static String own(Session session, Source source) {
        return session.instrument(source.ownInstrument()).map(Instrument::name).orElse("");
    }

    /** The parts on a port with their channels. */
    private static List<Object> onPort(Session session, ChannelPlan channels, String port) {
        List<Object> there = new ArrayList<>();
        for (Instrument instrument : session.instruments()) {
            if (instrument.port().equals(port)) {
                for (Part part : instrument.parts()) {
                    there.add(part);
                    there.add(channels.channel(instrument.ref(part)));
                }
            }
        }
        return there;
    }
}
