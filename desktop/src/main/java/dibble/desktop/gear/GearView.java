package dibble.desktop.gear;

import dibble.checks.Checks;
import dibble.checks.Finding;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.View;
import dibble.desktop.ui.Words;
import dibble.gear.ChannelPlan;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.ports.MachineDevices;
import dibble.session.Session;
import dibble.standins.StandIns;
import dibble.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
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
    private static final double SIDE_WIDTH = 290;

    private final Desk desk;
    private final GearPresenter presenter;
    private final VBox sources = new VBox(10);
    private final VBox instruments = new VBox(10);
    private final Label sourceCount = Cards.soft("");
    private final Label partCount = Cards.soft("");
    private final GearInspector inspector;
    private final VBox ports = new VBox(4);
    private final List<SourceCard> sourceCards = new ArrayList<>();
    private final List<InstrumentCard> instrumentCards = new ArrayList<>();
    private final Map<List<Object>, SourceCard> sourceByKey = new HashMap<>();
    private final Map<List<Object>, InstrumentCard> instrumentByKey = new HashMap<>();

    /** Instruments that were opened or folded by hand. */
    private final Map<String, Boolean> turned = new HashMap<>();

    private Session shown;
    private List<String> shownPorts = List.of();
    private List<String> portsOfCards = List.of();
    private boolean stale = true;

    public GearView(Desk desk) {
        this.desk = desk;
        presenter = new GearPresenter(desk);
        inspector = new GearInspector(desk, presenter);
        setId("gear");
        MenuButton add = new MenuButton("Add a source");
        add.setId("add-source");
        for (GearPresenter.Size size : GearPresenter.Size.values()) {
            MenuItem item = new MenuItem(size.title);
            item.setId("add-" + size.name().toLowerCase(Locale.ROOT));
            item.setOnAction(event -> presenter.addSource(size));
            add.getItems().add(item);
        }
        VBox left = new VBox(10, title("Played by", sourceCount, add), sources);
        left.getStyleClass().add("gear-column");
        ScrollPane leftScroll = scroll(left);
        leftScroll.setMinWidth(SOURCES_WIDTH);
        leftScroll.setPrefWidth(SOURCES_WIDTH);
        Button addInstrument = Cards.button("add-instrument", "Add instrument", presenter::addInstrument);
        Button send = Cards.button(
                "send-sounds", "Send all sounds", () -> desk.studio().sendAllSounds());
        send.setTooltip(new Tooltip("Bank, program, level and pan of every part, once more"));
        VBox middle = new VBox(10, title("Sounds", partCount, send, addInstrument), instruments);
        middle.getStyleClass().add("gear-column");
        ports.setId("ports");
        VBox side = new VBox(inspector, ports);
        ports.getStyleClass().add("gear-ports");
        ScrollPane sideScroll = scroll(side);
        sideScroll.getStyleClass().add("side");
        sideScroll.setMinWidth(SIDE_WIDTH);
        sideScroll.setPrefWidth(SIDE_WIDTH);
        setLeft(leftScroll);
        setCenter(scroll(middle));
        setRight(sideScroll);
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
        return Subscription.combine(
                unlisten::run,
                desk.selection().source().subscribe(id -> stale = true),
                desk.selection().part().subscribe(id -> stale = true),
                desk.pulse().each(this::follow));
    }

    private void follow() {
        List<String> there = new ArrayList<>(desk.devices().inputs());
        there.addAll(desk.devices().outputs());
        if (stale || !there.equals(shownPorts)) {
            stale = false;
            shownPorts = there;
            show();
        }
        long now = Clock.SYSTEM.nanos();
        sourceCards.forEach(card -> card.follow(now));
    }

    private void show() {
        Session session = desk.session();
        // The performance changes often while playing, and cards show nothing of it.
        if (!session.equals(shown) || !shownPorts.equals(portsOfCards)) {
            shown = session;
            portsOfCards = shownPorts;
            showCards(session);
        }
        String source = presenter.selectedPart().isPresent()
                ? null
                : desk.selection().source().get();
        PartRef part = presenter.selectedPart().orElse(null);
        for (int i = 0; i < sourceCards.size(); i++) {
            sourceCards
                    .get(i)
                    .showSelected(Objects.equals(session.sources().get(i).id(), source));
        }
        instrumentCards.forEach(card -> card.showSelected(part));
        inspector.show(shownPorts);
        showPorts();
    }

    private void showCards(Session session) {
        sourceCards.clear();
        instrumentCards.clear();
        Map<List<Object>, SourceCard> sourcesBefore = new HashMap<>(sourceByKey);
        Map<List<Object>, InstrumentCard> instrumentsBefore = new HashMap<>(instrumentByKey);
        sourceByKey.clear();
        instrumentByKey.clear();
        for (Source source : session.sources()) {
            List<Object> key = List.of(source, session.middleC(), shownPorts, own(session, source));
            SourceCard before = sourcesBefore.get(key);
            SourceCard card = before != null ? before : new SourceCard(desk, presenter, source);
            sourceByKey.put(key, card);
            sourceCards.add(card);
        }
        List<Finding> findings =
                Checks.find(GEAR_CHECKS, session, desk.performance(), Optional.of(Set.copyOf(shownPorts)));
        ChannelPlan channels = session.channels(desk.performance());
        int all = session.instruments().stream()
                .mapToInt(instrument -> instrument.parts().size())
                .sum();
        for (Instrument instrument : session.instruments()) {
            // All that a card shows: one that would show the same is kept, which matters where there are forty.
            List<Object> key = List.of(
                    instrument,
                    onPort(session, channels, instrument.port()),
                    findings.stream().map(Finding::ids).toList(),
                    shownPorts,
                    isOpen(instrument, all));
            InstrumentCard before = instrumentsBefore.get(key);
            InstrumentCard card = before != null ? before : card(instrument, findings, all);
            instrumentByKey.put(key, card);
            instrumentCards.add(card);
        }
        put(sources, sourceCards);
        if (sourceCards.isEmpty()) {
            sources.getChildren()
                    .add(empty("Nobody plays yet. Add a source, or begin with a starting point (the session’s menu)."));
        }
        put(instruments, instrumentCards);
        if (instrumentCards.isEmpty()) {
            instruments.getChildren().add(empty("Nothing sounds yet. Add an instrument."));
        }
        int parts = session.instruments().stream()
                .mapToInt(instrument -> instrument.parts().size())
                .sum();
        sourceCount.setText(Words.count(session.sources().size(), "source"));
        partCount.setText(Words.count(session.instruments().size(), "instrument") + " · " + Words.count(parts, "part"));
    }

    /** Puts cards into a column; those that are there already stay, since taking one out and in is dear. */
    private static void put(VBox column, List<? extends Node> cards) {
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

    private InstrumentCard card(Instrument instrument, List<Finding> findings, int allParts) {
        boolean open = isOpen(instrument, allParts);
        return new InstrumentCard(desk, presenter, instrument, findings, open, () -> {
            turned.put(instrument.id(), !open);
            shown = null;
            stale = true;
        });
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

    private void showPorts() {
        List<Node> nodes = new ArrayList<>();
        nodes.add(Cards.heading("Ports"));
        List<String> inputs = desk.devices().inputs();
        List<String> outputs = desk.devices().outputs();
        boolean anyReal = shownPorts.stream().anyMatch(name -> name.startsWith(MachineDevices.PREFIX));
        if (!anyReal) {
            Label none = Cards.soft("No MIDI device is plugged in. Stand-ins play the part of real gear.");
            none.setWrapText(true);
            nodes.add(none);
        }
        Set<String> used = new HashSet<>();
        desk.session().sources().forEach(source -> used.add(source.port()));
        desk.session().instruments().forEach(instrument -> used.add(instrument.port()));
        // A stand-in is there for whoever asks; only those that the session uses are worth a line.
        Predicate<String> shows = name -> !name.startsWith(StandIns.PREFIX) || used.contains(name);
        shownPorts.stream().filter(shows).distinct().sorted().forEach(name -> {
            String ways = (inputs.contains(name) ? "in" : "")
                    + (inputs.contains(name) && outputs.contains(name) ? " · " : "")
                    + (outputs.contains(name) ? "out" : "");
            Label label = new Label(name);
            label.setMinWidth(60);
            nodes.add(Cards.line(label, Cards.soft(ways)));
        });
        ports.getChildren().setAll(nodes);
    }
}
