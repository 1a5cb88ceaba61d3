package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.edits.StartingPoint;
import dibble.presentation.Command;
import dibble.presentation.Subscription;
import dibble.presentation.gear.GearPresenter;
import dibble.presentation.gear.NamesActions;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.binding.Bindings;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The Gear view: sources and instruments with their ports and channels. */
public final class GearView extends BorderPane implements View {
    private static final double SOURCES_WIDTH = 310;
    private static final int MAX_RECENT = 5;
    private static final double SIDE_WIDTH = 306;

    private final ViewContext desk;
    private final Consumer<StartingPoint> starts;
    private final Consumer<Path> opens;
    private final NamesActions names;
    private final GearPresenter presenter;
    private final GearCards cards;
    private final SourceFinder which;
    private final PortsPanel ports;
    private final ShelfPanel shelf;
    private final ToggleButton detailsTab = tab("gear-details", say("gear-view.details"));
    private final ToggleButton portsTab = tab("gear-ports", say("gear-view.ports-and-shelf"));
    private final VBox portsAndShelf;
    private final ScrollPane sideScroll = Cards.scroll(null);
    private final ScrollPane leftScroll;
    private final SilencePane silence;
    private final ViewUpdater watch;

    /** Made when something is selected for the first time: its forms are the dearer half of this view. */
    private Details details;

    /** The state of the ports at the last drawing. */
    private List<Object> shownPorts = List.of();

    /**
     * @param starts begins a new session from a starting point
     * @param opens opens a session
     * @param names reads and writes names of sounds
     */
    public GearView(ViewContext desk, Consumer<StartingPoint> starts, Consumer<Path> opens, NamesActions names) {
        this.desk = desk;
        this.starts = starts;
        this.opens = opens;
        this.names = names;
        presenter = new GearPresenter(
                desk.document(),
                desk.selection(),
                desk.devices(),
                () -> desk.preferences().get().hiddenPorts());
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.selection().part().follow(this::turnToDetails))
                .with(() -> desk.selection().instrument().follow(this::turnToDetails))
                .with(() -> desk.live().onKey((source, key, velocity) -> found(source)))
                .with(() -> this::leave);
        cards = new GearCards(desk, presenter, watch::stale, this::beginnings);
        which = new SourceFinder(desk, presenter, this::showSource);
        shelf = new ShelfPanel(desk, presenter);
        ports = new PortsPanel(desk);
        silence = new SilencePane(desk);
        setId("gear");
        leftScroll = Cards.scroll(cards.sources());
        setLeft(left());
        setCenter(middle());
        portsAndShelf = new VBox(ports, shelf);
        setRight(side());
        turnTo(false);
        FocusKeys.escape(this, () -> which.ask(false));
    }

    @Override
    public List<Command> commands() {
        return List.of(Command.of("plant-selected", say("common.plant-channels"), () -> {
                    turnTo(true);
                    show();
                    details().plantSelected();
                })
                .key("P")
                .about(say("gear-view.gives-the-selected-parts-channels")));
    }

    private Node left() {
        HBox head = title(say("common.played-by"), cards.sourceCount(), which);
        ((Label) head.getChildren().get(0)).setTooltip(new Tooltip(say("about.source")));
        MenuButton add = new MenuButton(say("gear-view.add-source"));
        add.setId("add-source");
        for (GearPresenter.Size size : GearPresenter.Size.values()) {
            String id = "add-" + size.name().toLowerCase(Locale.ROOT);
            add.getItems().add(Cards.item(id, size.title, () -> presenter.addSource(size)));
        }
        MenuButton points = new MenuButton(say("gear-view.starting-points"));
        points.setId("starting-points");
        for (StartingPoint point : StartingPoint.values()) {
            String id = "begin-" + point.name().toLowerCase(Locale.ROOT);
            points.getItems().add(Cards.item(id, point.title(), () -> starts.accept(point)));
        }
        HBox foot = new HBox(8, add, points);
        foot.getStyleClass().add("gear-foot");
        BorderPane left = new BorderPane(leftScroll, head, null, foot, null);
        left.setMinWidth(SOURCES_WIDTH);
        left.setPrefWidth(SOURCES_WIDTH);
        left.setMaxWidth(SOURCES_WIDTH);
        return left;
    }

    private Node middle() {
        MenuButton add = new MenuButton(say("gear-view.add-instrument"));
        add.setId("add-instrument");
        add.setMinWidth(USE_PREF_SIZE);
        for (GearPresenter.Sounds sounds : GearPresenter.Sounds.values()) {
            String id = "add-" + sounds.name().toLowerCase(Locale.ROOT).replace('_', '-');
            add.getItems().add(Cards.item(id, sounds.title, () -> presenter.addInstrument(sounds)));
        }
        Button test = Cards.button("silence-test", say("gear-view.stray-sound-test"), silence::begin);
        test.setTooltip(new Tooltip(say("gear-view.plays-what-should-stay-silent")));
        VBox asking = new VBox(silence);
        asking.getStyleClass().add("gear-asking");
        asking.managedProperty().bind(silence.visibleProperty());
        HBox head = title(say("common.sounds"), cards.partCount(), test, add);
        return new BorderPane(Cards.scroll(cards.instruments()), new VBox(head, asking), null, null, null);
    }

    /** The starting points, where a session is bare. */
    private Node beginnings() {
        VBox beginnings = new VBox(8, Cards.soft(say("gear-view.or-begin-with-one-of")));
        for (StartingPoint point : StartingPoint.values()) {
            beginnings
                    .getChildren()
                    .add(Cards.button(
                            "bare-" + point.name().toLowerCase(Locale.ROOT),
                            point.title(),
                            () -> starts.accept(point)));
        }
        List<Path> recent = desk.preferences().memory().recent();
        if (!recent.isEmpty()) {
            beginnings.getChildren().add(Cards.soft(say("gear-view.or-open-a-recent-session")));
        }
        for (int i = 0; i < Math.min(MAX_RECENT, recent.size()); i++) {
            Path path = recent.get(i);
            Button open = Cards.button("bare-recent-" + i, path.getFileName().toString(), () -> opens.accept(path));
            open.setTooltip(new Tooltip(path.toString()));
            beginnings.getChildren().add(open);
        }
        return beginnings;
    }

    private static ToggleButton tab(String id, String words) {
        ToggleButton tab = new ToggleButton(words);
        tab.setId(id);
        tab.getStyleClass().add("small");
        return tab;
    }

    private Node side() {
        detailsTab.setOnAction(event -> turnTo(true));
        portsTab.setOnAction(event -> turnTo(false));
        HBox tabs = new HBox(6, portsTab, detailsTab);
        tabs.getStyleClass().add("side-tabs");
        sideScroll.getStyleClass().add("side");
        BorderPane side = new BorderPane(sideScroll, tabs, null, null, null);
        side.getStyleClass().add("gear-side");
        side.setMinWidth(SIDE_WIDTH);
        side.setPrefWidth(SIDE_WIDTH);
        side.setMaxWidth(SIDE_WIDTH);
        return side;
    }

    private Details details() {
        if (details == null) {
            details = new Details(desk, presenter, shelf::keep, names);
        }
        return details;
    }

    private void turnTo(boolean toDetails) {
        detailsTab.setSelected(toDetails);
        portsTab.setSelected(!toDetails);
        sideScroll.setContent(toDetails ? details() : portsAndShelf);
        watch.stale();
    }

    private void turnToDetails(String selected) {
        if (selected != null) {
            turnTo(true);
        }
    }

    private void found(String source) {
        which.found(source);
    }

    /** Scrolls to a source's card with its details. */
    private void showSource(String id) {
        presenter.select(id);
        turnTo(true);
        show();
        // Its place is known after the next layout.
        Node card = cards.source(id);
        if (card != null) {
            leftScroll.applyCss();
            leftScroll.layout();
            double space = leftScroll.getContent().getBoundsInLocal().getHeight()
                    - leftScroll.getViewportBounds().getHeight();
            leftScroll.setVvalue(
                    space <= 0 ? 0 : Math.min(1, card.getBoundsInParent().getMinY() / space));
            card.requestFocus();
        }
    }

    private static HBox title(String text, Label count, Node... buttons) {
        HBox.setHgrow(count, Priority.ALWAYS);
        count.setMaxWidth(Double.MAX_VALUE);
        count.setMinWidth(0);
        // Where there is no room for all of it, a part of it says nothing.
        count.visibleProperty()
                .bind(Bindings.createBooleanBinding(
                        () -> count.getWidth() >= count.prefWidth(-1), count.widthProperty(), count.textProperty()));
        Label heading = Cards.heading(text);
        heading.setMinWidth(Label.USE_PREF_SIZE);
        HBox title = new HBox(8, heading, count);
        title.getChildren().addAll(buttons);
        title.getStyleClass().addAll("gear-title", "gear-head");
        return title;
    }

    @Override
    public Subscription open() {
        shelf.load();
        return watch.open();
    }

    private void leave() {
        which.ask(false);
        silence.close();
    }

    private void follow() {
        if (!ports().equals(shownPorts)) {
            show();
        }
        if (portsTab.isSelected()) {
            ports.show();
        }
        which.follow();
        cards.follow();
    }

    /** Returns the state of the ports: those present, and of those in use the problems and identities. */
    private List<Object> ports() {
        List<Object> known = new ArrayList<>(desk.devices().inputs());
        known.addAll(desk.devices().outputs());
        Set<String> used = new LinkedHashSet<>();
        desk.session().sources().forEach(source -> used.add(source.port()));
        desk.session().instruments().forEach(instrument -> used.add(instrument.port()));
        for (String port : used) {
            known.add(desk.devices().trouble(port));
            known.add(desk.studio().identity(port));
        }
        return known;
    }

    private void show() {
        shownPorts = ports();
        cards.show();
        if (detailsTab.isSelected()) {
            if (presenter.hasSelection()) {
                details().show();
            } else {
                turnTo(false);
            }
        }
    }
}
