package dibble.desktop.keys;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.ContextItems;
import dibble.desktop.ui.HoverHighlight;
import dibble.desktop.ui.KeyboardPane;
import dibble.desktop.ui.PartColours;
import dibble.desktop.ui.ViewContext;
import dibble.gear.Source;
import dibble.gear.SourceKind;
import dibble.midi.Range;
import dibble.presentation.LiveState;
import dibble.presentation.Navigator;
import dibble.presentation.Piano;
import dibble.presentation.Words;
import dibble.presentation.keys.KeysPresenter;
import dibble.presentation.keys.NoteScale;
import dibble.routing.Zone;
import dibble.session.Session;
import dibble.session.SessionFormatter;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.css.PseudoClass;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;

/** One source: its name and switches at the left, its bands above its keyboard on the note ruler. */
final class SourceRow extends Pane {
    static final double HEAD = 200;
    private static final double MIN_KEYBOARD = 28;
    private static final double MAX_KEYBOARD = 64;
    private static final double BAND_STEP = 32;
    private static final double TOP = 22;
    private static final double GAP = 6;
    private static final double FOOT = 8;
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final PseudoClass AIMED = PseudoClass.getPseudoClass("aimed");

    private final ViewContext desk;
    private final KeysPresenter presenter;
    private final VBox head = new VBox(4);
    private final Label name = new Label();
    private final Label letIn = new Label();
    private final ToggleButton hear = new ToggleButton();
    private final Button meet = new Button(say("common.close-gaps"));
    private final Canvas ways = new Canvas();
    private final Canvas marks = new Canvas();
    private final KeyboardPane keyboard = new KeyboardPane(this::shape, false);
    private final Map<String, ZoneBand> bands = new HashMap<>();
    private final Label dragNote = new Label();
    private final Label hint = new Label(say("source-row.no-sound-yet-drag-one"));
    private Source source;
    private SourceKind kind;
    private NoteScale scale;
    private int levels = 1;
    private List<Object> drawn = List.of();
    private boolean waysStale;
    private LiveState.Down followed;
    private long followedVersion;
    private double spare;
    private double keyboardHeight = MIN_KEYBOARD;

    SourceRow(ViewContext desk, KeysPresenter presenter) {
        this.desk = desk;
        this.presenter = presenter;
        getStyleClass().add("source-row");
        head.getStyleClass().add("source-head");
        name.getStyleClass().add("source-name");
        name.setTooltip(new Tooltip());
        letIn.getStyleClass().add("soft");
        hear.getStyleClass().add("switch");
        hear.setTooltip(new Tooltip(say("about.hear")));
        hear.setOnAction(event -> presenter.setHeard(source.id(), hear.isSelected()));
        meet.getStyleClass().add("link");
        meet.setTooltip(new Tooltip(say("source-row.closes-gaps-between-neighbouring-zones")));
        meet.setOnAction(event -> presenter.closeGaps(source.id()));
        head.getChildren().addAll(name, letIn, hear, meet);
        ways.setMouseTransparent(true);
        marks.setMouseTransparent(true);
        dragNote.getStyleClass().add("drag-note");
        dragNote.setMouseTransparent(true);
        dragNote.setVisible(false);
        keyboard.setPlayer(desk.pointer(), new KeyboardPane.Player() {
            @Override
            public void press(int key, int velocity) {
                select();
                desk.press(source, key, velocity);
            }

            @Override
            public void release(int key) {
                desk.release(source, key);
            }
        });
        hint.getStyleClass().add("soft");
        hint.setMouseTransparent(true);
        getChildren().addAll(head, marks, hint, keyboard, ways, dragNote);
        HoverHighlight.on(desk, head, Navigator.Kind.SOURCE, () -> source == null ? "" : source.id());
        ContextItems.on(
                head,
                () -> List.of(
                        Cards.item(
                                "context-hear",
                                hear.isSelected() ? say("context.dont-hear") : say("context.hear"),
                                hear::fire),
                        Cards.item("context-close-gaps", say("common.close-gaps"), meet::fire),
                        Cards.item(
                                "context-gear",
                                say("context.show-in-gear"),
                                () -> desk.places().show(new Navigator.Thing(Navigator.Kind.SOURCE, source.id())))));
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            select();
            desk.selection().zone().set(null);
        });
    }

    /** Pads are on the ruler like keys, so that bands align with them, but look like pads. */
    private Piano shape(Range keys, double width) {
        return source.kind() == SourceKind.PADS ? Piano.pads(keys, 0, width) : Piano.columns(keys, 0, width);
    }

    private void select() {
        desk.selection().source().set(source.id());
    }

    String sourceId() {
        return source.id();
    }

    /**
     * Shows a source and its zones, in place.
     *
     * @param room the additional height, for a larger keyboard and spacing
     */
    void show(Source shown, NoteScale on, double room) {
        List<Object> next = all(shown, on, room);
        if (next.equals(drawn)) {
            return;
        }
        drawn = next;
        spare = room;
        keyboardHeight = Math.min(MAX_KEYBOARD, MIN_KEYBOARD + spare);
        source = shown;
        scale = on;
        setId("source-" + source.id());
        name.setText(source.name());
        name.getTooltip().setText(source.name());
        letIn.setText(Words.letIn(source)
                + (source.transpose() == 0 ? "" : " · " + SessionFormatter.transpose(source.transpose())));
        boolean heard = !desk.performance().unheard().contains(source.id());
        hear.setSelected(heard);
        hear.setText(heard ? say("source-row.heard") : say("common.not-heard"));
        hear.setId("hear-" + source.id());
        hear.setAccessibleText(say("source-row.hear", source.name()));
        keyboard.setId("keys-" + source.id());
        keyboard.setAccessibleText(say("source-row.keyboard-of", source.name()));
        keyboard.setKeys(source.keys(), desk.session().middleC());
        if (source.kind() != kind) {
            kind = source.kind();
            keyboard.requestLayout();
        }
        pseudoClassStateChanged(
                SELECTED, source.id().equals(desk.selection().source().get()));
        meet.setId("close-gaps-" + source.id());
        meet.setVisible(!presenter.gaps(source).isEmpty());
        showBands();
        waysStale = true;
        requestLayout();
    }

    /** Returns the displayed state; nothing is redrawn while it is the same. */
    private List<Object> all(Source shown, NoteScale on, double room) {
        Session session = desk.session();
        List<Zone> zones = presenter.zonesOf(shown.id());
        Set<String> selected = zones.stream()
                .map(Zone::id)
                .filter(desk.selection().zones()::contains)
                .collect(Collectors.toSet());
        return List.of(
                shown,
                zones,
                on,
                room,
                selected,
                shown.id().equals(desk.selection().source().get()),
                desk.performance().unheard().contains(shown.id()),
                session.instruments(),
                session.scenes(),
                session.middleC(),
                desk.theme().palette(),
                dragText());
    }

    private String dragText() {
        return bands.values().stream()
                .map(ZoneBand::dragText)
                .filter(text -> !text.isEmpty())
                .findFirst()
                .orElse("");
    }

    /** A key of the source was pressed: bands of keyswitches say which was chosen. */
    void pressed(int key) {
        bands.values().forEach(band -> band.choose(key));
    }

    private void showBands() {
        List<Zone> zones = presenter.zonesOf(source.id());
        Map<String, Integer> levelOf = presenter.levels(source.id());
        levels =
                Math.max(1, levelOf.values().stream().mapToInt(i -> i + 1).max().orElse(1));
        Set<String> there = new HashSet<>();
        for (Zone zone : zones) {
            there.add(zone.id());
            ZoneBand band = bands.get(zone.id());
            if (band == null) {
                band = new ZoneBand(desk, presenter);
                bands.put(zone.id(), band);
                getChildren().add(getChildren().size() - 2, band);
            }
            band.show(zone, scale, desk.selection().zones().contains(zone.id()));
            double y = keyboardTop() - GAP - ZoneBand.HEIGHT - levelOf.get(zone.id()) * BAND_STEP;
            band.resizeRelocate(
                    HEAD + scale.x(zone.keys().low()) - ZoneBand.GRIP,
                    y,
                    scale.column() * zone.keys().size() + 2 * ZoneBand.GRIP,
                    ZoneBand.HEIGHT);
        }
        hint.setVisible(zones.isEmpty());
        bands.values().removeIf(band -> {
            boolean gone = !there.contains(band.zoneId());
            if (gone) {
                getChildren().remove(band);
            }
            return gone;
        });
        ZoneBand chosen = bands.get(desk.selection().zone().get());
        if (chosen != null) {
            chosen.toFront();
            ways.toFront();
        }
        String drag = dragText();
        dragNote.setVisible(!drag.isEmpty());
        dragNote.setText(drag);
        if (chosen != null) {
            dragNote.autosize();
            dragNote.relocate(chosen.getLayoutX() + ZoneBand.GRIP, Math.max(0, chosen.getLayoutY() - 22));
            dragNote.toFront();
        }
        // The visible notes to the left of the first key are under the head.
        head.toFront();
    }

    private double keyboardTop() {
        return leastKeyboardTop() + Math.max(0, spare - (keyboardHeight - MIN_KEYBOARD));
    }

    private double leastKeyboardTop() {
        return Math.max(TOP + levels * BAND_STEP + GAP, 62);
    }

    /** The height that a source needs for its zones. */
    static double leastHeight(KeysPresenter presenter, Source source) {
        int most = presenter.levels(source.id()).values().stream()
                .mapToInt(level -> level + 1)
                .max()
                .orElse(1);
        return Math.max(TOP + most * BAND_STEP + GAP, 62) + MIN_KEYBOARD + FOOT + 4;
    }

    private double wantedHeight() {
        return keyboardTop() + keyboardHeight + FOOT + 4;
    }

    @Override
    protected double computePrefHeight(double width) {
        return wantedHeight();
    }

    @Override
    protected void layoutChildren() {
        // The line under the row stays in sight.
        head.resizeRelocate(0, 0, HEAD, getHeight() - 1);
        double left = HEAD + scale.x(source.keys().low());
        keyboard.resizeRelocate(
                left, keyboardTop(), scale.column() * source.keys().size(), keyboardHeight);
        hint.autosize();
        hint.relocate(left, keyboardTop() - GAP - hint.getHeight());
        drawMarks();
        ways.relocate(HEAD, 0);
        ways.setWidth(scale.width());
        ways.setHeight(getHeight());
    }

    /** Draws octave lines, the background of the keyboard, unused keys, and the sounding range of transposed bands. */
    private void drawMarks() {
        marks.relocate(HEAD, 0);
        marks.setWidth(scale.width());
        marks.setHeight(getHeight());
        GraphicsContext g = marks.getGraphicsContext2D();
        g.clearRect(0, 0, marks.getWidth(), marks.getHeight());
        g.setFill(desk.theme().palette().get("bed"));
        g.fillRect(0, keyboardTop(), scale.width(), keyboardHeight);
        for (int note = scale.span().low(); note <= scale.span().high(); note++) {
            if (note % 12 == 0) {
                g.setFill(desk.theme().palette().get(note == 60 ? "strong-rule" : "rule"));
                g.fillRect(Math.round(scale.x(note)), 0, 1, marks.getHeight());
            }
        }
        for (Zone zone : presenter.zonesOf(source.id())) {
            if (zone.transpose() + source.transpose() != 0 && zone.enabled()) {
                presenter.soundsAt(zone).ifPresent(range -> drawGhost(g, zone, range));
            }
        }
        for (Range gap : presenter.gaps(source)) {
            drawGap(g, gap);
        }
        for (Range twice : presenter.doubled(source)) {
            g.setFill(desk.theme().palette().get("check"));
            g.fillRect(scale.x(twice.low()), keyboardTop() - 4, scale.column() * twice.size(), 3);
        }
    }

    private void drawGhost(GraphicsContext g, Zone zone, Range range) {
        Color colour = PartColours.of(SessionFormatter.colour(zone, desk.session()));
        g.setFill(colour.deriveColor(0, 1, 1, 0.45));
        double y = keyboardTop() + keyboardHeight + 3;
        g.fillRect(scale.x(range.low()), y, scale.column() * range.size(), 4);
    }

    private void drawGap(GraphicsContext g, Range gap) {
        g.setStroke(desk.theme().palette().get("soft"));
        g.setLineWidth(1);
        double y = keyboardTop() - GAP;
        double from = scale.x(gap.low());
        double to = from + scale.column() * gap.size();
        for (double x = from; x < to; x += 6) {
            g.strokeLine(x, y, Math.min(to, x + 5), y - 5);
        }
        g.strokeLine(from, y + 1, to, y + 1);
    }

    /** Shows the sounding notes: held keys, with a line up to their bands. */
    void follow() {
        LiveState.Down down = desk.live().down(source.id());
        keyboard.setDown(down, null);
        keyboard.drawIfStale();
        if (down != followed || down.version() != followedVersion || waysStale) {
            followed = down;
            followedVersion = down.version();
            waysStale = false;
            drawWays();
        }
    }

    private void drawWays() {
        GraphicsContext g = ways.getGraphicsContext2D();
        g.clearRect(0, 0, ways.getWidth(), ways.getHeight());
        g.setStroke(desk.theme().palette().get("ink"));
        g.setFill(desk.theme().palette().get("ink"));
        g.setLineWidth(2);
        for (int key = source.keys().low(); key <= source.keys().high(); key++) {
            if (desk.live().isDown(source.id(), key)) {
                double x = keyboard.getLayoutX() - HEAD + keyboard.middleOf(key);
                for (ZoneBand band : bands.values()) {
                    Zone zone = band.zone();
                    if (zone.enabled()
                            && zone.keys().holds(key)
                            && desk.live().isDown(source.id(), key, zone.channels())) {
                        // At the lower edge, below the band's words.
                        double y = band.getLayoutY() + ZoneBand.HEIGHT - 3;
                        g.strokeLine(x, y, x, keyboardTop());
                        g.fillOval(x - 4, y - 4, 8, 8);
                    }
                }
            }
        }
    }

    /** Returns true if a part is held over this row. */
    void setAimed(boolean aimed) {
        pseudoClassStateChanged(AIMED, aimed);
    }

    /** The key under a place in the scene. */
    int keyAt(double sceneX) {
        return scale.noteAt(sceneToLocal(sceneX, 0).getX() - HEAD);
    }
}
