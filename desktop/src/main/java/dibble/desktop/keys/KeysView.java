package dibble.desktop.keys;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.View;
import dibble.desktop.ui.Words;
import dibble.gear.Part;
import dibble.gear.PartRef;
import dibble.gear.Source;
import dibble.midi.NoteNames;
import dibble.midi.Range;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.collections.SetChangeListener;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.FontWeight;
import javafx.util.Subscription;

/** Sources under one another on one note ruler, their zones as bands, the sounds at the right. */
public final class KeysView extends StackPane implements View {
    private static final double SIDE = 332;
    private static final double RULER = 28;
    private static final double MOST_ROOM = 170;
    private static final double ZOOM = 0.75;
    private static final int LEAST_SPAN = 18;

    private final Desk desk;
    private final KeysPresenter presenter;
    private final Canvas ruler = new Canvas();
    private final VBox rowBox = new VBox();
    private final ScrollPane scroll = new ScrollPane(rowBox);
    private final Label empty = new Label();
    private final Map<String, SourceRow> rows = new HashMap<>();
    private final SoundsPanel sounds;
    private final ZoneInspector inspector;
    private final Pane overlay = new Pane();
    private final Label ghost = new Label();
    private final DropQuestion question;
    private final Label waiting = new Label();
    private KeyWaiter waiter;
    private String copied;
    private boolean stale = true;

    /** The notes that are shown, or null for all that the gear uses. */
    private Range view;

    /** Takes the next key that is pressed. */
    private interface KeyWaiter {
        void pressed(String source, int key);
    }

    public KeysView(Desk desk) {
        this.desk = desk;
        presenter = new KeysPresenter(desk.document());
        getStyleClass().add("keys-view");
        sounds = new SoundsPanel(desk, new SoundsPanel.Drags() {
            @Override
            public void moved(PartRef part, double sceneX, double sceneY) {
                dragPart(part, sceneX, sceneY);
            }

            @Override
            public void dropped(PartRef part, double sceneX, double sceneY) {
                dropPart(part, sceneX, sceneY);
            }

            @Override
            public void chosen(PartRef part) {
                choosePart(part);
            }
        });
        inspector = new ZoneInspector(
                desk,
                presenter,
                zone -> wait(
                        "Press the key that is to play the first keyswitch of "
                                + Words.target(zone.to(), desk.session()),
                        (source, key) -> KeysPresenter.part(zone)
                                .ifPresent(part -> selectFresh(presenter.keyswitches(source, part, key)))));
        waiting.setId("waiting");
        waiting.getStyleClass().add("ghost");
        waiting.setVisible(false);
        StackPane.setAlignment(waiting, javafx.geometry.Pos.TOP_CENTER);
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        question = new DropQuestion(desk, presenter, () -> showQuestion(false));
        ghost.getStyleClass().add("ghost");
        ghost.setMouseTransparent(true);
        ghost.setVisible(false);
        overlay.setPickOnBounds(false);
        overlay.getChildren().addAll(ghost, question);
        showQuestion(false);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("rows");
        empty.getStyleClass().add("empty");
        HBox zooming = new HBox(
                2,
                Cards.button("zoom-out", "−", () -> zoom(1 / ZOOM, middle())),
                Cards.button("zoom-in", "+", () -> zoom(ZOOM, middle())),
                Cards.button("zoom-fit", "fit", () -> {
                    view = null;
                    stale = true;
                }));
        zooming.getChildren().forEach(button -> button.getStyleClass().add("link"));
        zooming.getChildren().get(0).setAccessibleText("more notes");
        zooming.getChildren().get(1).setAccessibleText("fewer notes");
        zooming.setLayoutX(112);
        zooming.setLayoutY(3);
        addEventFilter(ScrollEvent.SCROLL, this::wheel);
        Pane rulerPane = new Pane(ruler, zooming);
        rulerPane.getStyleClass().add("ruler");
        rulerPane.setMinHeight(RULER);
        rulerPane.setPrefHeight(RULER);
        BorderPane left = new BorderPane(new StackPane(scroll, empty));
        left.setTop(rulerPane);
        ScrollPane side = new ScrollPane(new VBox(sounds, inspector));
        side.setFitToWidth(true);
        side.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        side.getStyleClass().add("side");
        side.setMinWidth(SIDE);
        side.setPrefWidth(SIDE);
        BorderPane whole = new BorderPane(left);
        whole.setRight(side);
        getChildren().addAll(whole, overlay, waiting);
        scroll.viewportBoundsProperty().subscribe(bounds -> stale = true);
    }

    @Override
    public Subscription open() {
        Runnable unlisten = desk.document().listen(this::show);
        stale = true;
        SetChangeListener<String> chosen = change -> stale = true;
        desk.selection().zones().addListener(chosen);
        return Subscription.combine(
                unlisten::run,
                () -> desk.selection().zones().removeListener(chosen),
                desk.selection().source().subscribe(id -> stale = true),
                desk.selection().zone().subscribe(id -> stale = true),
                desk.theme().paletteProperty().subscribe(palette -> stale = true),
                () -> wait(null, null),
                desk.live().onKey((source, key, velocity) -> {
                    if (waiter != null) {
                        KeyWaiter now = waiter;
                        wait(null, null);
                        now.pressed(source, key);
                        return;
                    }
                    Optional.ofNullable(rows.get(source)).ifPresent(row -> row.pressed(key));
                    question.pressed(source, key);
                    inspector.pressed(source, key);
                }),
                desk.pulse().each(this::follow));
    }

    /** Waits for a key on any source; null for no longer. */
    private void wait(String what, KeyWaiter next) {
        waiter = next;
        waiting.setText(what == null ? "" : what + " (Esc leaves it)");
        waiting.setVisible(what != null);
    }

    private void selectFresh(String zone) {
        if (zone != null) {
            desk.selection().zoneAlone(zone);
        }
    }

    /** Letters work on the selection, where they are not played or typed. */
    private void key(KeyEvent event) {
        if (event.getTarget() instanceof TextInputControl) {
            return;
        }
        String zone = desk.selection().zone().get();
        String source = desk.selection().source().get();
        boolean used = true;
        if (event.getCode() == KeyCode.ESCAPE && waiter != null) {
            wait(null, null);
        } else if (event.isShortcutDown() && event.getCode() == KeyCode.A && source != null) {
            presenter.zonesOf(source).forEach(it -> {
                desk.selection().zones().add(it.id());
                desk.selection().zone().set(it.id());
            });
        } else if (event.isShortcutDown() && event.getCode() == KeyCode.C && zone != null) {
            copied = zone;
        } else if (event.isShortcutDown() && event.getCode() == KeyCode.V && copied != null && source != null) {
            selectFresh(presenter.copy(copied, source));
        } else if (event.isShortcutDown() && (event.getCode() == KeyCode.PLUS || event.getCode() == KeyCode.EQUALS)) {
            zoom(ZOOM, middle());
        } else if (event.isShortcutDown() && event.getCode() == KeyCode.MINUS) {
            zoom(1 / ZOOM, middle());
        } else if (event.isShortcutDown() && event.getCode() == KeyCode.DIGIT0) {
            view = null;
            stale = true;
        } else if (event.getCode() == KeyCode.PAGE_UP || event.getCode() == KeyCode.PAGE_DOWN) {
            turn(event.getCode() == KeyCode.PAGE_UP ? -12 : 12);
        } else if (event.isShortcutDown() || event.isAltDown()) {
            used = false;
        } else if (event.getCode() == KeyCode.S && zone != null) {
            wait("Press the first key of the upper part", (on, key) -> {
                if (desk.session().zone(zone).filter(it -> it.isPlayedBy(on)).isPresent()) {
                    selectFresh(presenter.cut(zone, key));
                }
            });
        } else if (event.getCode() == KeyCode.L && zone != null) {
            desk.session().zone(zone).ifPresent(it -> selectFresh(presenter.copy(zone, it.source())));
        } else if (event.getCode() == KeyCode.H && source != null) {
            boolean unheard = desk.performance().unheard().contains(source);
            desk.document().perform(performance -> performance.withHeard(source, unheard));
        } else {
            used = false;
        }
        if (used) {
            event.consume();
        }
    }

    private void follow() {
        if (stale) {
            show();
        }
        rows.values().forEach(SourceRow::follow);
        sounds.follow();
    }

    private NoteScale scale() {
        double width = Math.max(200, scroll.getViewportBounds().getWidth() - SourceRow.HEAD - 8);
        return new NoteScale(view == null ? presenter.span() : view, width);
    }

    /** Shows fewer notes (a factor below 1) or more, around one of them; as many as the gear uses is the most. */
    private void zoom(double factor, int around) {
        Range whole = presenter.span();
        Range now = view == null ? whole : view;
        int size = (int) Math.max(LEAST_SPAN, Math.round(now.size() * factor));
        if (size >= whole.size()) {
            view = null;
        } else {
            double share = (around - now.low()) / (double) now.size();
            show(around - (int) Math.round(share * size), size, whole);
        }
        stale = true;
    }

    private void show(int low, int size, Range whole) {
        int from = Math.max(whole.low(), Math.min(whole.high() - size + 1, low));
        view = new Range(from, from + size - 1);
        stale = true;
    }

    /** Turns to lower or higher notes. */
    private void turn(int notes) {
        if (view != null) {
            show(view.low() + notes, view.size(), presenter.span());
        }
    }

    private int middle() {
        Range now = view == null ? presenter.span() : view;
        return desk.session()
                .zone(desk.selection().zone().get())
                .map(zone -> Math.max(
                        now.low(),
                        Math.min(now.high(), (zone.keys().low() + zone.keys().high()) / 2)))
                .orElse((now.low() + now.high()) / 2);
    }

    private void wheel(ScrollEvent event) {
        double by = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        if (by == 0) {
            return;
        }
        if (event.isShortcutDown()) {
            zoom(
                    by > 0 ? ZOOM : 1 / ZOOM,
                    scale().noteAt(sceneToLocal(event.getSceneX(), 0).getX() - SourceRow.HEAD));
            event.consume();
        } else if (event.isShiftDown() && view != null) {
            turn(by > 0 ? -3 : 3);
            event.consume();
        }
    }

    /** Few sources get more room each, so that a small session does not leave a hole. */
    private double roomPerRow() {
        List<Source> sources = desk.session().sources();
        double needed = sources.stream()
                .mapToDouble(source -> SourceRow.leastHeight(presenter, source))
                .sum();
        double left = scroll.getViewportBounds().getHeight() - needed;
        return Math.max(0, Math.min(MOST_ROOM, left / Math.max(1, sources.size())));
    }

    private void show() {
        stale = false;
        question.leaveIfOutdated();
        NoteScale scale = scale();
        List<SourceRow> shown = new ArrayList<>();
        Set<String> there = new HashSet<>();
        double room = roomPerRow();
        for (Source source : desk.session().sources()) {
            there.add(source.id());
            SourceRow row = rows.computeIfAbsent(source.id(), id -> new SourceRow(desk, presenter));
            row.show(source, scale, room);
            shown.add(row);
        }
        rows.keySet().retainAll(there);
        if (!rowBox.getChildren().equals(shown)) {
            rowBox.getChildren().setAll(shown);
        }
        empty.setText("No source yet. Add one in Gear.");
        empty.setVisible(shown.isEmpty());
        drawRuler(scale);
        sounds.show();
        inspector.show();
    }

    private void drawRuler(NoteScale scale) {
        ruler.setWidth(SourceRow.HEAD + scale.width() + 8);
        ruler.setHeight(RULER);
        GraphicsContext g = ruler.getGraphicsContext2D();
        g.clearRect(0, 0, ruler.getWidth(), RULER);
        Color soft = desk.theme().palette().get("soft");
        g.setFill(soft);
        g.setFont(Font.font("Dibble Sans", 13));
        g.fillText("Played by", 16, 18);
        Range span = scale.span();
        for (int note = span.low(); note <= span.high(); note++) {
            if (note % 12 == 0) {
                double x = SourceRow.HEAD + Math.round(scale.x(note));
                g.setFill(desk.theme().palette().get(note == 60 ? "soft" : "strong-rule"));
                g.fillRect(x, 8, 1, RULER - 8);
                if (x + 54 < ruler.getWidth()) {
                    g.setFill(note == 60 ? desk.theme().palette().get("ink") : soft);
                    g.setFont(Font.font("Dibble Sans", note == 60 ? FontWeight.BOLD : FontWeight.NORMAL, 13));
                    g.fillText(NoteNames.name(note, desk.session().middleC()) + " · " + note, x + 4, 18);
                }
            }
        }
    }

    private Optional<SourceRow> rowAt(double sceneX, double sceneY) {
        return rowBox.getChildren().stream()
                .map(SourceRow.class::cast)
                .filter(row -> row.localToScene(row.getLayoutBounds()).contains(sceneX, sceneY)
                        && scroll.localToScene(scroll.getLayoutBounds()).contains(sceneX, sceneY))
                .findFirst();
    }

    private void dragPart(PartRef part, double sceneX, double sceneY) {
        ghost.setText(desk.session().part(part).map(Part::name).orElse(""));
        ghost.setVisible(true);
        ghost.autosize();
        var at = overlay.sceneToLocal(sceneX, sceneY);
        ghost.relocate(at.getX() + 10, at.getY() + 6);
        Optional<SourceRow> aimed = rowAt(sceneX, sceneY);
        rows.values().forEach(row -> row.setAimed(aimed.filter(row::equals).isPresent()));
    }

    private void dropPart(PartRef part, double sceneX, double sceneY) {
        ghost.setVisible(false);
        rows.values().forEach(row -> row.setAimed(false));
        rowAt(sceneX, sceneY).ifPresent(row -> {
            var at = overlay.sceneToLocal(sceneX, sceneY);
            add(part, row.sourceId(), row.keyAt(sceneX), at.getX(), at.getY());
        });
    }

    private void choosePart(PartRef part) {
        String source = desk.selection().source().get();
        if (source != null && rows.containsKey(source)) {
            var row = rows.get(source).localToScene(SourceRow.HEAD, 0);
            var at = overlay.sceneToLocal(row);
            add(part, source, 60, at.getX() + 40, at.getY() + 20);
        }
    }

    private void add(PartRef part, String source, int key, double x, double y) {
        desk.selection().source().set(source);
        if (!presenter.needsAnswer(source)) {
            desk.selection().zone().set(presenter.layer(source, part));
            return;
        }
        question.ask(source, part, key);
        showQuestion(true);
        question.applyCss();
        question.autosize();
        question.relocate(
                Math.max(8, Math.min(x, overlay.getWidth() - question.getWidth() - 8)),
                Math.max(8, Math.min(y, overlay.getHeight() - question.getHeight() - 8)));
        question.focusFirst();
    }

    private void showQuestion(boolean on) {
        question.setVisible(on);
        question.setManaged(on);
    }
}
