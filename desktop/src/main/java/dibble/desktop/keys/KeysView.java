package dibble.desktop.keys;

import dibble.desktop.ui.Desk;
import dibble.desktop.ui.View;
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
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
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
    private boolean stale = true;

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
        inspector = new ZoneInspector(desk, presenter);
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
        Pane rulerPane = new Pane(ruler);
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
        getChildren().addAll(whole, overlay);
        scroll.viewportBoundsProperty().subscribe(bounds -> stale = true);
    }

    @Override
    public Subscription open() {
        Runnable unlisten = desk.document().listen(this::show);
        stale = true;
        return Subscription.combine(
                unlisten::run,
                desk.selection().source().subscribe(id -> stale = true),
                desk.selection().zone().subscribe(id -> stale = true),
                desk.theme().paletteProperty().subscribe(palette -> stale = true),
                desk.live().onKey((source, key, velocity) -> {
                    question.pressed(source, key);
                    inspector.pressed(source, key);
                }),
                desk.pulse().each(this::follow));
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
        return new NoteScale(presenter.span(), width);
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
        empty.setText("No source yet. A new session brings two keyboards.");
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
