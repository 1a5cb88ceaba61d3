package dibble.desktop.gear;

import static dibble.presentation.UiText.say;

import dibble.checks.Finding;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.PortId;
import dibble.presentation.Words;
import dibble.presentation.gear.GearPresenter;
import dibble.programs.OwnPorts;
import dibble.routing.Routing;
import dibble.session.SessionFormatter;
import dibble.sheet.SetUpList;
import dibble.standins.StandIn;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javafx.beans.value.ObservableBooleanValue;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** An instrument: its parts in rows, and the sixteen channels of its port with their owners. */
final class InstrumentCard extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final double WIDE = 480;

    /** With more parts than these, instruments are folded until a user opens them. */
    private static final int MAX_OPEN = 64;

    private final ViewContext desk;
    private final GearPresenter presenter;
    private final Runnable stale;
    private final Map<PartRef, PartRow> rows = new HashMap<>();
    private final ObservableBooleanValue wide = widthProperty().greaterThan(WIDE);
    private final PlantPane planting;
    private final ChannelStrip strip;
    private Instrument instrument;
    private FacePane face;

    /** Opened or folded by hand; null for neither. */
    private Boolean turned;

    /** True if the face of its stand-in is shown. */
    private boolean faced;

    /** The displayed state; the card is not touched while it is the same. */
    private List<Object> shown;

    /** @param stale has it shown again */
    InstrumentCard(ViewContext desk, GearPresenter presenter, String id, Runnable stale) {
        this.desk = desk;
        this.presenter = presenter;
        this.stale = stale;
        planting = new PlantPane(presenter);
        strip = new ChannelStrip(desk.theme());
        strip.setId("channels-" + id);
        getStyleClass().add("gear-card");
        setId("instrument-" + id);
    }

    /**
     * Shows the instrument as it is.
     *
     * @param findings what checks found about it
     * @param allParts how many parts all instruments have
     */
    void show(Instrument now, List<Finding> findings, int allParts) {
        instrument = now;
        Routing routing = desk.routing();
        boolean open = turned == null ? allParts <= MAX_OPEN || now.parts().isEmpty() : turned;
        List<List<Part>> owners = owners(routing);
        // Edits of its parts alone leave the rest of the card as it is.
        List<Object> next = List.of(
                now.withParts(List.of()),
                now.parts().stream().map(Part::id).toList(),
                findings.stream().map(Finding::text).toList(),
                desk.devices().trouble(now.port()),
                desk.studio().identity(now.port()),
                faced,
                open);
        if (!Objects.equals(next, shown)) {
            shown = next;
            make(findings, open);
        }
        now.parts()
                .forEach(part -> Optional.ofNullable(rows.get(now.ref(part)))
                        .ifPresent(row -> row.show(
                                part, routing, SessionFormatter.program(desk.session(), now.ref(part), part.sound()))));
        strip.show(SessionFormatter.port(now.port(), desk.session()), owners);
    }

    private void make(List<Finding> findings, boolean open) {
        List<Node> nodes = new ArrayList<>();
        Button title = Cards.button("name-" + instrument.id(), instrument.name(), () -> presenter.select(instrument));
        title.getStyleClass().addAll("link", "card-title");
        title.setAccessibleText(say("instrument-card.instrument", instrument.name()));
        title.setMinWidth(40);
        String count = say("instrument-card.show-parts", instrument.parts().size());
        HBox name = new HBox(
                8, title, link("fold-" + instrument.id(), open ? say("common.collapse") : count, () -> turned = !open));
        name.getStyleClass().add("card-line");
        StandIn device = instrument.builtIn()
                ? null
                : desk.standIns().standIn(instrument.port()).orElse(null);
        if (device != null) {
            Button turnsFace = link(
                    "face-of-" + instrument.id(),
                    faced ? say("instrument-card.hide-received-data") : say("instrument-card.received-data"),
                    () -> faced = !faced);
            turnsFace.setAccessibleText(say("instrument-card.what-the-stand-in-of", instrument.name()));
            name.getChildren().add(turnsFace);
        }
        nodes.add(Cards.line(name, about()));
        Map<PartRef, PartRow> before = new HashMap<>(rows);
        rows.clear();
        if (open) {
            addParts(nodes, before);
        }
        nodes.add(strip);
        face = faced && device != null ? new FacePane(desk, instrument, device) : null;
        if (face != null) {
            nodes.add(face);
        }
        desk.devices().trouble(instrument.port()).ifPresent(why -> nodes.add(Cards.trouble(why)));
        findings.forEach(finding -> nodes.add(Cards.finding(desk, finding)));
        Cards.rebuild(this, nodes);
    }

    private Button link(String id, String text, Runnable turn) {
        Button link = Cards.button(id, text, () -> {
            turn.run();
            stale.run();
        });
        link.getStyleClass().add("link");
        return link;
    }

    private void addParts(List<Node> nodes, Map<PartRef, PartRow> before) {
        nodes.add(head());
        for (Part part : instrument.parts()) {
            PartRef ref = instrument.ref(part);
            PartRow known = before.get(ref);
            PartRow row = known == null ? new PartRow(desk, presenter, ref, wide) : known;
            rows.put(ref, row);
            nodes.add(row);
        }
        boolean none = instrument.parts().isEmpty();
        if (none) {
            nodes.add(Cards.soft(say("instrument-card.no-parts-yet-a-part")));
        }
        Button add = Cards.button(
                "add-part-" + instrument.id(),
                say("instrument-card.add-part"),
                () -> presenter.addPart(instrument.id()));
        Button plant = Cards.button(
                "plant-" + instrument.id(),
                say("common.plant-channels"),
                () -> planting.askChannels(
                        instrument.parts().stream().map(instrument::ref).toList()));
        plant.setTooltip(new Tooltip(say("about.plant")));
        plant.setDisable(none);
        Button send = Cards.button("send-" + instrument.id(), say("instrument-card.send-all-sounds"), this::sendSounds);
        send.setTooltip(new Tooltip(say("instrument-card.sends-bank-program-level-and")));
        send.setDisable(none);
        HBox buttons = new HBox(8, add, plant, send);
        buttons.getStyleClass().add("card-buttons");
        nodes.addAll(List.of(planting, buttons));
    }

    private void sendSounds() {
        String port = instrument.port();
        desk.studio().sendSounds(port);
        List<String> sent = SetUpList.of(desk.session(), desk.performance()).sent(port::equals);
        desk.document().perform(performance -> performance.withSetUp(sent, true));
    }

    private Label about() {
        boolean standIn = PortId.isStandIn(instrument.port());
        String port = OwnPorts.isOwn(instrument.port())
                ? instrument.partPorts()
                        ? say("instrument-card.another-program-part-ports")
                        : say("instrument-card.another-program")
                : standIn
                        ? say("instrument-card.a-stand-in")
                        : say("instrument-card.port", SessionFormatter.port(instrument.port(), desk.session()));
        String kind = instrument.builtIn()
                ? say("instrument-card.built-in-its-own-port")
                : say("instrument-card.module", port);
        List<String> words = new ArrayList<>(List.of(kind));
        switch (instrument.receives()) {
            case ONE_CHANNEL -> words.add(say("instrument-card.one-channel-only"));
            case ALL -> words.add(say("instrument-card.omni"));
            default -> {
                // By channel, as is expected.
            }
        }
        desk.studio()
                .identity(instrument.port())
                .map(answer -> say("instrument-card.identified-as-maker-version", answer.maker(), answer.version()))
                .ifPresent(words::add);
        Label about = Cards.soft(String.join(" · ", words));
        about.setTooltip(new Tooltip(Words.portInList(instrument.port(), desk.session())));
        return about;
    }

    private HBox head() {
        Label channel = Cards.soft(say("instrument-card.channel"));
        channel.setMinWidth(PartRow.CHANNEL_WIDTH);
        Label part = Cards.soft(say("instrument-card.part"));
        PartRow.grow(part, 130);
        Label sound = Cards.soft(say("instrument-card.sound"));
        PartRow.grow(sound, 150);
        Label range = Cards.soft(say("instrument-card.keys"));
        range.setMinWidth(PartRow.RANGE_WIDTH);
        Label volume = Cards.soft(say("instrument-card.level"));
        volume.setMinWidth(PartRow.LEVEL_WIDTH);
        Label out = Cards.soft(say("instrument-card.out"));
        out.setMinWidth(PartRow.OUT_WIDTH);
        PartRow.onlyWhere(wide, range, volume, out);
        HBox head = new HBox(8, channel, part, sound, range, volume, out);
        head.getStyleClass().add("part-head");
        return head;
    }

    /** For each channel of the port the parts that are on it; two are a clash, and are both named. */
    private List<List<Part>> owners(Routing routing) {
        List<List<Part>> owners = new ArrayList<>();
        for (int channel = 0; channel < 16; channel++) {
            owners.add(new ArrayList<>());
        }
        for (Instrument other : desk.session().instruments()) {
            if (other.port().equals(instrument.port())) {
                other.parts()
                        .forEach(part -> routing.channels()
                                .channel(other.ref(part))
                                .ifPresent(channel -> owners.get(channel - 1).add(part)));
            }
        }
        return owners;
    }

    /** Shows which parts are selected, and whether the instrument is. */
    void showSelected(Collection<PartRef> selected, boolean whole) {
        rows.forEach((ref, row) -> row.showSelected(selected.contains(ref)));
        pseudoClassStateChanged(SELECTED, whole);
    }

    /** Updates the sounding notes. */
    void follow() {
        if (face != null) {
            face.follow();
        }
    }
}
