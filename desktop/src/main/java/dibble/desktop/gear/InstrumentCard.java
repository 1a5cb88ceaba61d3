package dibble.desktop.gear;

import dibble.checks.Finding;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Chip;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.Words;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.midi.GeneralMidi;
import dibble.routing.Routing;
import dibble.standins.StandIn;
import dibble.standins.StandIns;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** An instrument: its parts in rows, and the sixteen channels of its port with their owners. */
final class InstrumentCard extends VBox {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final double RANGE_WIDTH = 104;
    private static final double CHANNEL_WIDTH = 66;
    private static final double OUT_WIDTH = 30;
    private static final double WIDE = 480;

    private final Desk desk;
    private final GearPresenter presenter;
    private final Instrument instrument;
    private final Map<PartRef, HBox> rows = new HashMap<>();
    private final PlantPane planting;
    private final FacePane face;
    private final ChannelStrip strip;

    /**
     * @param routing that of now
     * @param findings what checks found about it
     * @param open whether its parts are shown, rather than their number
     * @param turn opens or folds it
     * @param faced whether the face of its stand-in is shown
     * @param turnFace shows that face, or no longer
     */
    InstrumentCard(
            Desk desk,
            GearPresenter presenter,
            Instrument instrument,
            Routing routing,
            List<Finding> findings,
            boolean open,
            Runnable turn,
            boolean faced,
            Runnable turnFace) {
        this.desk = desk;
        this.presenter = presenter;
        this.instrument = instrument;
        getStyleClass().add("gear-card");
        setId("instrument-" + instrument.id());
        Button fold = Cards.button(
                "fold-" + instrument.id(),
                open ? "fold" : "show " + Words.count(instrument.parts().size(), "part"),
                turn);
        fold.getStyleClass().add("link");
        planting = new PlantPane(presenter);
        Button title = Cards.button("name-" + instrument.id(), instrument.name(), () -> presenter.select(instrument));
        title.getStyleClass().addAll("link", "card-title");
        title.setAccessibleText("instrument " + instrument.name());
        title.setMinWidth(40);
        HBox name = new HBox(8, title, fold);
        name.getStyleClass().add("card-line");
        StandIn device = instrument.builtIn()
                ? null
                : desk.standIns().standIn(instrument.port()).orElse(null);
        if (device != null) {
            Button turnsFace = Cards.button("face-of-" + instrument.id(), faced ? "hide face" : "face", turnFace);
            turnsFace.getStyleClass().add("link");
            turnsFace.setAccessibleText("what the stand-in of " + instrument.name() + " received");
            name.getChildren().add(turnsFace);
        }
        getChildren().add(Cards.line(name, about()));
        if (open) {
            showParts(routing);
        }
        strip = channels(routing);
        getChildren().add(strip);
        face = faced && device != null ? new FacePane(desk, instrument, device) : null;
        if (face != null) {
            getChildren().add(face);
        }
        desk.devices().trouble(instrument.port()).ifPresent(why -> getChildren().add(Cards.trouble(why)));
        findings.forEach(finding -> getChildren().add(Cards.finding(desk, finding)));
    }

    private void showParts(Routing routing) {
        getChildren().add(head());
        for (Part part : instrument.parts()) {
            getChildren().add(row(part, routing));
        }
        if (instrument.parts().isEmpty()) {
            getChildren().add(Cards.soft("No parts yet. A part is a sound on a channel of its own."));
        }
        Button add = Cards.button("add-part-" + instrument.id(), "Add part", () -> presenter.addPart(instrument.id()));
        Button plant = Cards.button(
                "plant-" + instrument.id(),
                "Plant channels…",
                () -> planting.askChannels(
                        instrument.parts().stream().map(instrument::ref).toList()));
        plant.setDisable(instrument.parts().isEmpty());
        Button send = Cards.button(
                "send-" + instrument.id(),
                "Send all sounds",
                () -> desk.studio().sendSounds(instrument.port()));
        send.setTooltip(new Tooltip("Bank, program, level and pan of every part, once more"));
        send.setDisable(instrument.parts().isEmpty());
        HBox buttons = new HBox(8, add, plant, send);
        buttons.getStyleClass().add("card-buttons");
        getChildren().addAll(planting, buttons);
    }

    private Label about() {
        String receives = switch (instrument.receives()) {
            case BY_CHANNEL -> "";
            case ONE_CHANNEL -> " · hears one channel";
            case ALL -> " · hears all channels";
        };
        boolean standIn = instrument.port().startsWith(StandIns.PREFIX);
        String port = standIn ? "a stand-in" : "port “" + Words.port(instrument.port(), desk.session()) + "”";
        String kind = instrument.builtIn() ? "built in · its own port" : "module · " + port;
        Label about = Cards.soft(kind
                + receives
                + desk.studio()
                        .identity(instrument.port())
                        .map(answer -> " · answers: maker " + answer.maker() + ", version " + answer.version())
                        .orElse(""));
        about.setTooltip(new Tooltip(instrument.port()));
        return about;
    }

    /** What a narrow card leaves out: it is in the panel at the right as well. */
    private void onlyWhereWide(Node... nodes) {
        for (Node node : nodes) {
            node.managedProperty().bind(widthProperty().greaterThan(WIDE));
            node.visibleProperty().bind(node.managedProperty());
        }
    }

    private HBox head() {
        Label channel = Cards.soft("channel");
        channel.setMinWidth(CHANNEL_WIDTH);
        Label part = Cards.soft("part");
        HBox.setHgrow(part, Priority.ALWAYS);
        part.setMaxWidth(Double.MAX_VALUE);
        part.setPrefWidth(130);
        Label sound = Cards.soft("sound");
        HBox.setHgrow(sound, Priority.ALWAYS);
        sound.setMaxWidth(Double.MAX_VALUE);
        sound.setPrefWidth(150);
        Label range = Cards.soft("answers to");
        range.setMinWidth(RANGE_WIDTH);
        Label volume = Cards.soft("level");
        volume.setMinWidth(40);
        Label out = Cards.soft("out");
        out.setMinWidth(OUT_WIDTH);
        onlyWhereWide(range, volume, out);
        HBox head = new HBox(8, channel, part, sound, range, volume, out);
        head.getStyleClass().add("part-head");
        return head;
    }

    private HBox row(Part part, Routing routing) {
        PartRef ref = instrument.ref(part);
        Chip chip = new Chip().show(part.colour(), Words.channel(ref, routing));
        HBox channel = new HBox(6, chip, Cards.soft(part.channel() == null ? "kept" : "fixed"));
        channel.setMinWidth(CHANNEL_WIDTH);
        Label name = Cards.strong(part.name());
        HBox.setHgrow(name, Priority.ALWAYS);
        name.setMaxWidth(Double.MAX_VALUE);
        name.setPrefWidth(130);
        name.setMinWidth(40);
        Label sound = new Label(
                part.program() == null
                        ? "as it is"
                        : part.drums() ? "kit " + (part.program() + 1) : GeneralMidi.program(part.program()));
        HBox.setHgrow(sound, Priority.ALWAYS);
        sound.setMaxWidth(Double.MAX_VALUE);
        sound.setPrefWidth(150);
        sound.setMinWidth(40);
        Label volume = new Label(part.volume() == null ? "–" : String.valueOf(part.volume()));
        volume.setMinWidth(40);
        Label out = new Label(String.valueOf(part.output()));
        out.setMinWidth(OUT_WIDTH);
        Pane range = range(part);
        onlyWhereWide(range, volume, out);
        HBox row = new HBox(8, channel, name, sound, range, volume, out);
        row.getStyleClass().add("part-row");
        row.setStyle(PartColours.css(part.colour()));
        row.setId("gear-part-" + ref.instrument() + "-" + ref.part());
        row.setFocusTraversable(true);
        row.setAccessibleText("part " + part.name() + ", channel " + Words.channel(ref, routing));
        row.addEventHandler(MouseEvent.MOUSE_CLICKED, event -> {
            row.requestFocus();
            select(ref, event.isShortcutDown(), event.isShiftDown());
            event.consume();
        });
        row.addEventHandler(KeyEvent.KEY_PRESSED, event -> rowKey(event, ref));
        rows.put(ref, row);
        return row;
    }

    private void select(PartRef ref, boolean also, boolean upTo) {
        if (also) {
            presenter.selectAlso(ref);
        } else if (upTo) {
            presenter.selectTo(ref);
        } else {
            presenter.select(ref);
        }
    }

    private void rowKey(KeyEvent event, PartRef ref) {
        boolean used = true;
        if (event.getCode() == KeyCode.ENTER || event.getCode() == KeyCode.SPACE) {
            select(ref, event.isShortcutDown(), event.isShiftDown());
        } else if (event.getCode() == KeyCode.DELETE) {
            presenter.deletePart(ref);
        } else if (event.isAltDown() && event.getCode() == KeyCode.UP) {
            presenter.movePart(ref, -1);
        } else if (event.isAltDown() && event.getCode() == KeyCode.DOWN) {
            presenter.movePart(ref, 1);
        } else {
            used = false;
        }
        if (used) {
            event.consume();
        }
    }

    private static Pane range(Part part) {
        Region bar = new Region();
        bar.getStyleClass().add("meter-bar");
        bar.setManaged(false);
        double unit = RANGE_WIDTH / 128;
        bar.resizeRelocate(part.keys().low() * unit, 0, Math.max(3, part.keys().size() * unit), 6);
        Pane range = new Pane(bar);
        range.getStyleClass().add("meter");
        range.setMinWidth(RANGE_WIDTH);
        range.setMaxWidth(RANGE_WIDTH);
        return range;
    }

    /** The sixteen channels of the port; two owners are a clash, and are both named. */
    private ChannelStrip channels(Routing routing) {
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
        ChannelStrip strip = new ChannelStrip(Words.port(instrument.port(), desk.session()), desk.theme(), owners);
        strip.setId("channels-" + instrument.id());
        return strip;
    }

    /** Shows which parts are selected, and whether the instrument is. */
    void showSelected(Collection<PartRef> selected, boolean whole) {
        rows.forEach((ref, row) -> row.pseudoClassStateChanged(SELECTED, selected.contains(ref)));
        pseudoClassStateChanged(SELECTED, whole);
    }

    /** Takes in that the theme has changed. */
    void drawAnew() {
        strip.draw();
    }

    /** Follows what sounds. */
    void follow() {
        if (face != null) {
            face.follow();
        }
    }
}
