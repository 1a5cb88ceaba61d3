package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.FocusKeys;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.PartBadge;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.Pointer;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Instrument;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.StripRef;
import dibble.midi.GeneralMidi;
import dibble.presentation.Navigator;
import dibble.presentation.keys.KeysPresenter;
import dibble.routing.Destination;
import dibble.routing.Routing;
import dibble.session.Gesture;
import dibble.session.SessionFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The sounds: instruments with their parts, to be dragged onto a keyboard, with their sounding notes. */
final class SoundsPanel extends VBox {
    private static final PseudoClass UNFED = PseudoClass.getPseudoClass("unfed");
    private static final double METER_WIDTH = 74;

    /** The level that no bar shows any more, in dB below full scale. */
    private static final double MIN_SHOWN = 60;

    /** Receives the position of a dragged part, in coordinates of the scene. */
    interface Drags {
        void moved(PartRef part, double sceneX, double sceneY);

        void dropped(PartRef part, double sceneX, double sceneY);

        /** Ends a drag without a drop. */
        void cancelled();

        /** A part was chosen with the keyboard, for the selected source. */
        void chosen(PartRef part);
    }

    private final ViewContext desk;
    private final Drags drags;
    private final List<Meter> meters = new ArrayList<>();

    private List<Object> shown = List.of();
    private boolean folded;

    private record Meter(Destination destination, Region bar) {}

    SoundsPanel(ViewContext desk, Drags drags) {
        this.desk = desk;
        this.drags = drags;
        getStyleClass().add("sounds");
        setId("sounds");
    }

    /** Shows the instruments; rebuilt only after a change. */
    void show() {
        Routing routing = desk.routing();
        Set<PartRef> fed = routing.zones().stream()
                .map(KeysPresenter::part)
                .flatMap(Optional::stream)
                .collect(Collectors.toSet());
        List<Object> now = List.of(desk.session().instruments(), routing.channels(), fed, folded);
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        meters.clear();
        List<Node> nodes = new ArrayList<>();
        Label title = new Label(say("common.sounds"));
        title.getStyleClass().add("heading");
        title.setMinWidth(Region.USE_PREF_SIZE);
        Button fold = Cards.button("fold-sounds", folded ? say("common.show-2") : say("common.collapse"), () -> {
            folded = !folded;
            show();
        });
        fold.getStyleClass().add("link");
        fold.setAccessibleText(folded ? say("sounds-panel.show-the-sounds") : say("sounds-panel.collapse-the-sounds"));
        HBox head = line(title, say("sounds-panel.drag-one-onto-a-keyboard"));
        head.getChildren().add(1, fold);
        nodes.add(head);
        if (folded) {
            Cards.rebuild(this, nodes);
            return;
        }
        for (Instrument instrument : desk.session().instruments()) {
            Label name = new Label(instrument.name());
            name.getStyleClass().add("instrument-name");
            nodes.add(line(name, instrument.builtIn() ? say("common.built-in") : say("sounds-panel.module")));
            for (Part part : instrument.parts()) {
                nodes.add(partLine(instrument, part, routing, fed));
            }
        }
        Cards.rebuild(this, nodes);
    }

    private static HBox line(Label left, String right) {
        Label note = new Label(right);
        note.getStyleClass().add("soft");
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox line = new HBox(8, left, space, note);
        line.setAlignment(Pos.CENTER_LEFT);
        line.getStyleClass().add("sounds-line");
        return line;
    }

    private HBox partLine(Instrument instrument, Part part, Routing routing, Set<PartRef> fed) {
        PartRef ref = instrument.ref(part);
        Label name = new Label(part.name());
        name.getStyleClass().add("part-name");
        HBox.setHgrow(name, Priority.ALWAYS);
        name.setMaxWidth(Double.MAX_VALUE);
        Region bar = new Region();
        bar.getStyleClass().add("meter-bar");
        bar.setManaged(false);
        Pane meter = new Pane(bar);
        meter.getStyleClass().add("meter");
        meter.setMinWidth(METER_WIDTH);
        meter.setMaxWidth(METER_WIDTH);
        bar.resizeRelocate(0, 0, 0, 6);
        routing.destination(ref).ifPresent(destination -> meters.add(new Meter(destination, bar)));
        HBox line =
                new HBox(10, new PartBadge().show(part.colour(), SessionFormatter.channel(ref, routing)), name, meter);
        line.setStyle(PartColours.css(part.colour()));
        line.getStyleClass().add("part-line");
        line.setId("part-" + ref.instrument() + "-" + ref.part());
        line.setFocusTraversable(true);
        boolean isFed = fed.contains(ref);
        line.pseudoClassStateChanged(UNFED, !isFed);
        String sound = part.program() == null ? "" : ", " + GeneralMidi.program(part.program());
        String hint = say("sounds-panel.text", part.name() + sound, isFed);
        line.setAccessibleText(say("sounds-panel.part", hint));
        Tooltip.install(line, new Tooltip(say("sounds-panel.drag-it-onto-a-keyboard", hint)));
        desk.pointer().edits(line, new Drag(line, ref));
        FocusKeys.choose(line, event -> drags.chosen(ref));
        HoverHighlight.on(desk, line, Navigator.Kind.PART, ref::toString);
        ContextItems.on(
                line,
                () -> List.of(
                        Cards.item("context-play", say("context.give-to-the-selected-source"), () -> drags.chosen(ref)),
                        Cards.item(
                                "context-gear",
                                say("context.show-in-gear"),
                                () -> desk.places().show(new Navigator.Thing(Navigator.Kind.PART, ref.toString())))));
        return line;
    }

    private final class Drag implements Pointer.Handler {
        private final Node line;
        private final PartRef part;

        Drag(Node line, PartRef part) {
            this.line = line;
            this.part = part;
        }

        @Override
        public boolean press(MouseEvent event) {
            line.requestFocus();
            return true;
        }

        @Override
        public void drag(MouseEvent event, Gesture gesture) {
            drags.moved(part, event.getSceneX(), event.getSceneY());
        }

        @Override
        public void release(MouseEvent event, Gesture gesture) {
            gesture.leave();
            if (event.isStillSincePress()) {
                drags.cancelled();
            } else {
                drags.dropped(part, event.getSceneX(), event.getSceneY());
            }
        }

        @Override
        public void cancel() {
            drags.cancelled();
        }
    }

    /** Shows how loud the parts are now. */
    void follow() {
        for (Meter meter : meters) {
            double peak = desk.meters()
                    .strip(meter.destination().port(), meter.destination().channel(), StripRef.ALL)
                    .peak();
            double shown = Math.max(0, Math.min(1, 1 + peak / MIN_SHOWN));
            double width = Math.round(shown * METER_WIDTH);
            if (meter.bar().getWidth() != width) {
                meter.bar().resize(width, 6);
            }
        }
    }
}
