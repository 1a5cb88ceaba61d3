package dibble.desktop.channels;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.gear.Instrument;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.presentation.Command;
import dibble.presentation.Prompter;
import dibble.presentation.Subscription;
import dibble.presentation.channels.ChannelsPresenter;
import dibble.routing.ZoneTarget;
import dibble.session.ChannelChart;
import dibble.session.ChannelChart.Arrival;
import dibble.session.ChannelChart.Place;
import dibble.session.ChannelChart.PortChart;
import dibble.session.ChannelChart.Way;
import dibble.session.SessionFormatter;
import dibble.text.UserException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The Channels view: received channels, and ribbons from them to the parts that they play. */
public final class ChannelsView extends BorderPane implements View {
    private static final String HINT = say("channels-view.drag-from-dot-to-dot");

    private final ViewContext desk;
    private final ChannelsPresenter presenter;
    private final ChartPane pane;
    private final FlowPane filters = new FlowPane(6, 6);
    private final Label empty = new Label();
    private final MenuButton across = new MenuButton(say("channels-view.same-channel-across"));
    private final MenuButton toOne = new MenuButton(say("channels-view.all-to-one-sound"));
    private final Button unplugAll;
    private final ToggleButton byPlaying = new ToggleButton(say("channels-view.play-then-click"));
    private final TextField typed = new TextField();
    private final Label told = Cards.soft(HINT);
    private final ConnectSeriesPane plant;
    private final RibbonPanel way;
    private Arrival picked;
    private String besideZone;

    /** The event count at the last look: {@link dibble.presentation.LiveState#count}. */
    private long heardAt;

    private final ViewUpdater watch;

    /** Builds the view; it follows nothing before {@link #open}. */
    public ChannelsView(ViewContext desk) {
        this.desk = desk;
        presenter = new ChannelsPresenter(desk.document(), desk.live()::heardOn);
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.live().onKey((source, key, velocity) -> pressed(source, key)))
                .with(() -> this::leave);
        getStyleClass().add("channels-view");
        setId("channels");
        pane = new ChartPane(desk, presenter, new ChartHands());
        Label arrives = Cards.heading(say("channels-view.incoming"));
        arrives.setMinWidth(USE_PREF_SIZE);
        Label plays = Cards.heading(say("channels-view.sounds"));
        plays.setMinWidth(USE_PREF_SIZE);
        HBox.setHgrow(filters, Priority.ALWAYS);
        HBox head = new HBox(14, arrives, filters, plays);
        head.getStyleClass().addAll("channels-head", "card-line");
        empty.getStyleClass().add("empty");
        empty.setWrapText(true);
        ScrollPane scroll = Cards.scroll(new StackPane(pane, empty));
        scroll.setFitToHeight(true);
        plant = new ConnectSeriesPane(presenter);
        way = new RibbonPanel(desk, presenter);
        across.setId("straight-across");
        across.setTooltip(new Tooltip(say("channels-view.connect-each-channel-to-the")));
        toOne.setId("all-to-one");
        across.setMinWidth(USE_PREF_SIZE);
        toOne.setMinWidth(USE_PREF_SIZE);
        unplugAll = Cards.button("unplug-all", say("channels-view.disconnect-all"), presenter::unplugAll);
        byPlaying.setId("join-by-playing");
        byPlaying.setMinWidth(USE_PREF_SIZE);
        byPlaying.setTooltip(new Tooltip(say("channels-view.play-a-key-to-pick")));
        byPlaying.setOnAction(event -> {
            pick(null);
            tell(byPlaying.isSelected() ? say("channels-view.play-a-key-on-the") : HINT);
        });
        typed.setId("join-typed");
        typed.setPromptText(say("channels-view.2-kalimba"));
        typed.setAccessibleText(say("channels-view.a-channel-and-a-sound"));
        typed.setTooltip(new Tooltip(say("channels-view.type-a-channel-and-a")));
        typed.setPrefColumnCount(11);
        typed.setOnAction(event -> joinTyped());
        told.setId("channels-told");
        told.setWrapText(true);
        HBox.setHgrow(told, Priority.ALWAYS);
        told.setMaxWidth(Double.MAX_VALUE);
        FlowPane buttons = new FlowPane(
                8,
                6,
                across,
                toOne,
                Cards.button("join-plant-open", say("channels-view.plant"), () -> plant.ask(pane.chart())),
                unplugAll,
                byPlaying,
                typed,
                Cards.button("join-typed-do", say("channels-view.connect"), this::joinTyped));
        HBox line = new HBox(14, buttons, told);
        line.getStyleClass().add("card-line");
        HBox.setHgrow(buttons, Priority.SOMETIMES);
        told.setMinWidth(150);
        buttons.setPrefWrapLength(860);
        buttons.setMinWidth(500);
        told.setPrefWidth(330);
        VBox foot = new VBox(8, plant, way, line);
        foot.getStyleClass().add("channels-foot");
        setTop(head);
        setCenter(scroll);
        setBottom(foot);
        FocusKeys.escape(this, this::leave);
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    @Override
    public List<Command> commands() {
        return List.of(Command.of("plant-ways", say("channels-view.plant"), () -> plant.ask(pane.chart()))
                .key("P")
                .about(say("channels-view.connects-a-row-of-channels")));
    }

    /** Waits for nothing any more. */
    private void leave() {
        pick(null);
        byPlaying.setSelected(false);
        besideZone = null;
        tell(HINT);
    }

    private void tell(String words) {
        told.setText(words);
    }

    private void follow() {
        // A source that is let in on all channels shows those on which it was heard.
        if (heardAt != desk.live().count()) {
            heardAt = desk.live().count();
            if (!presenter.chart().arrivals().equals(pane.chart().arrivals())) {
                show();
            }
        }
        pane.follow();
    }

    private void show() {
        ChannelChart chart = presenter.chart();
        pane.show(chart);
        pane.showPicked(picked);
        way.show();
        showFilters();
        boolean bare = chart.arrivals().isEmpty();
        empty.setText(bare ? say("channels-view.no-sources-yet-add-one") : "");
        empty.setVisible(bare);
        empty.setManaged(bare);
        across.getItems().setAll(chart.ports().stream().map(this::acrossItem).toList());
        toOne.getItems().setAll(presenter.parts().stream().map(this::toOneItem).toList());
        across.setDisable(chart.ports().isEmpty() || bare);
        toOne.setDisable(toOne.getItems().isEmpty() || bare);
        unplugAll.setDisable(chart.ways().isEmpty());
        unplugAll.setText(
                presenter.filter() == null
                        ? say("channels-view.disconnect-all")
                        : say(
                                "channels-view.disconnect-all-of",
                                SessionFormatter.source(presenter.filter(), desk.session())));
    }

    private void showFilters() {
        List<Node> chips = new ArrayList<>();
        chips.add(filter("show-all-sources", say("common.all-sources"), null));
        for (Source source : desk.session().sources()) {
            chips.add(filter("show-" + source.id(), source.name(), source.id()));
        }
        List<String> before = filters.getChildren().stream()
                .map(node -> ((ToggleButton) node).getText())
                .toList();
        List<String> now =
                chips.stream().map(node -> ((ToggleButton) node).getText()).toList();
        if (before.equals(now)) {
            for (int i = 0; i < chips.size(); i++) {
                ((ToggleButton) filters.getChildren().get(i)).setSelected(((ToggleButton) chips.get(i)).isSelected());
            }
        } else {
            filters.getChildren().setAll(chips);
        }
    }

    private ToggleButton filter(String id, String text, String source) {
        ToggleButton button = new ToggleButton(text);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setSelected(Objects.equals(presenter.filter(), source));
        button.setOnAction(event -> {
            presenter.show(source);
            if (source != null) {
                desk.selection().source().set(source);
            }
            watch.stale();
        });
        return button;
    }

    private MenuItem acrossItem(PortChart port) {
        String name = port.instruments().stream()
                .map(id -> desk.session().instrument(id).map(Instrument::name).orElse(id))
                .reduce((one, other) -> one + ", " + other)
                .orElse("");
        MenuItem item = new MenuItem(say("channels-view.to", name));
        item.setOnAction(event -> presenter.straightAcross(pane.chart(), port));
        return item;
    }

    private MenuItem toOneItem(PartRef ref) {
        MenuItem item = new MenuItem(desk.session().part(ref).orElseThrow().name());
        item.setOnAction(event -> presenter.allToOne(new ZoneTarget.ToPart(ref)));
        return item;
    }

    /** A key: its channel is taken where joining goes by playing, and a split is made where one waits for it. */
    private void pressed(String source, int key) {
        if (besideZone != null
                && desk.session()
                        .zone(besideZone)
                        .filter(it -> it.isPlayedBy(source))
                        .isPresent()
                && presenter.beside(besideZone, key)) {
            besideZone = null;
            tell(HINT);
            return;
        }
        if (!byPlaying.isSelected()) {
            return;
        }
        int channel = desk.live().last(source).channel();
        Optional<Arrival> arrival = presenter.chart().arrivals().stream()
                .filter(it -> it.source().equals(source) && it.channel() == channel)
                .findFirst();
        arrival.ifPresent(it -> {
            pick(it);
            tell(say("channels-view.now-click-the-sound-for", presenter.from(it)));
        });
    }

    private void pick(Arrival arrival) {
        picked = arrival;
        pane.showPicked(arrival);
    }

    private void joinTyped() {
        try {
            ChannelsPresenter.Typed read = presenter.read(
                    typed.getText(),
                    presenter.filter() == null ? desk.selection().source().get() : presenter.filter());
            typed.clear();
            join(read.from(), read.to());
        } catch (UserException e) {
            tell(e.getMessage());
        }
    }

    private void join(Arrival from, ZoneTarget to) {
        if (presenter.isJoined(from, to)) {
            // Twice the same would sound once and confuse twice.
            pick(null);
            tell(say(
                    "channels-view.already-plays-with-all-its",
                    presenter.from(from),
                    SessionFormatter.target(to, desk.session())));
            return;
        }
        List<String> already = presenter.playsAlready(pane.chart(), from);
        String zone = presenter.join(from, to);
        desk.selection().zoneAlone(zone);
        pick(null);
        String said = say("channels-view.plays", presenter.from(from), SessionFormatter.target(to, desk.session()));
        if (already.isEmpty()) {
            tell(said + ".");
            return;
        }
        tell(say("channels-view.layered-with", said, String.join(", ", already)));
        desk.ask()
                .tell(
                        say("channels-view.layered-with-2", said, String.join(", ", already)),
                        new Prompter.Answer(say("channels-view.split-instead-press-the-split"), () -> {
                            besideZone = zone;
                            tell(say(
                                    "channels-view.press-the-lowest-key-for",
                                    SessionFormatter.target(to, desk.session())));
                        }));
    }

    private final class ChartHands implements ChartPane.Hands {
        @Override
        public void join(Arrival from, Place to) {
            to.target().ifPresent(target -> ChannelsView.this.join(from, target));
        }

        @Override
        public void lead(Way of, Place to) {
            to.target().ifPresent(target -> presenter.lead(pane.chart(), of, target));
        }

        @Override
        public void beginAt(Way of, Arrival from) {
            presenter.beginAt(pane.chart(), of, from);
        }

        @Override
        public void unplug(Way of) {
            String sentence = presenter.sentence(of);
            presenter.unplug(pane.chart(), of);
            tell(say("channels-view.disconnected", sentence));
        }

        @Override
        public void choose(Way of) {
            desk.selection().zoneAlone(of.zone().id());
            if (desk.session().source(of.from().source()).isPresent()) {
                desk.selection().source().set(of.from().source());
            }
        }

        @Override
        public void choose(Arrival arrival) {
            if (desk.session().source(arrival.source()).isPresent()) {
                desk.selection().source().set(arrival.source());
            }
            boolean again = arrival.equals(picked);
            pick(again ? null : arrival);
            tell(again ? HINT : say("channels-view.now-click-the-sound-for", presenter.from(arrival)));
        }

        @Override
        public void choose(Place place) {
            if (picked != null) {
                join(picked, place);
            }
        }

        @Override
        public void fold(String port, boolean out) {
            presenter.fold(port, out);
            watch.stale();
        }
    }
}
