package dibble.desktop.takes;

import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.View;
import dibble.gear.Source;
import dibble.recording.NoteSpans;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.studio.Recording;
import dibble.studio.Transport;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.util.Subscription;

/** What was played, a line a source; below it the tracks that are printed from it, filling while it is played. */
public final class TakesView extends StackPane implements View {
    private static final double RULER = 28;
    private static final double LINE = 24;

    private final Desk desk;
    private final TakesPresenter presenter;
    private final Label plan = new Label();
    private final Canvas ruler = new Canvas();
    private final VBox played = new VBox();
    private final VBox raw = new VBox();
    private final ScrollPane scroll = new ScrollPane();
    private final Label takeName = new Label();
    private final VBox tracks = new VBox();
    private final Canvas playhead = new Canvas();
    private final Label empty = new Label();
    private final Map<String, TrackRow> rows = new HashMap<>();
    private final Map<String, NoteLane> lines = new HashMap<>();
    private final Map<String, NoteSpans> playedSpans = new HashMap<>();
    private final Map<String, NoteSpans> liveSpans = new HashMap<>();
    private Recording following;
    private Take shownTake;
    private TimeScale scale;
    private boolean stale = true;
    private boolean drawAll = true;

    public TakesView(Desk desk) {
        this.desk = desk;
        presenter = new TakesPresenter(desk.document());
        getStyleClass().add("takes-view");
        plan.setId("record-plan");
        plan.getStyleClass().add("plan");
        plan.setMinWidth(TrackRow.HEAD);
        plan.setMaxWidth(TrackRow.HEAD);
        Pane rulerPane = new Pane(ruler);
        HBox.setHgrow(rulerPane, Priority.ALWAYS);
        HBox top = new HBox(plan, rulerPane);
        top.getStyleClass().add("ruler");
        top.setMinHeight(RULER);
        top.setAlignment(Pos.CENTER_LEFT);
        Label heading = new Label("What was played");
        heading.getStyleClass().add("heading");
        takeName.getStyleClass().add("soft");
        takeName.setId("take-name");
        HBox title = new HBox(8, heading, takeName);
        title.getStyleClass().add("played-title");
        title.setAlignment(Pos.BASELINE_LEFT);
        raw.getChildren().setAll(title, played);
        raw.getStyleClass().add("played");
        VBox content = new VBox(raw, tracks);
        scroll.setContent(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("rows");
        empty.getStyleClass().add("empty");
        empty.setMouseTransparent(true);
        StackPane.setAlignment(empty, Pos.BOTTOM_CENTER);
        BorderPane whole = new BorderPane(new StackPane(scroll, empty));
        whole.setTop(top);
        playhead.setMouseTransparent(true);
        playhead.setManaged(false);
        getChildren().addAll(whole, playhead);
        widthProperty().subscribe(width -> drawAll = true);
        heightProperty().subscribe(height -> drawAll = true);
    }

    @Override
    public Subscription open() {
        Runnable unlisten = desk.document().listen(() -> stale = true);
        stale = true;
        return Subscription.combine(
                unlisten::run,
                desk.theme().paletteProperty().subscribe(palette -> {
                    stale = true;
                    drawAll = true;
                }),
                desk.pulse().each(this::follow));
    }

    private void follow() {
        Recording recording = desk.studio().recording();
        if (recording != following) {
            following = recording;
            liveSpans.clear();
            stale = true;
        }
        if (stale) {
            show();
        }
        draw();
    }

    private void show() {
        stale = false;
        drawAll = true;
        plan.setText(presenter.plan());
        showTracks();
        showPlayed();
        Optional<Take> take = presenter.lastTake();
        takeName.setText(following != null ? "now" : take.map(Take::name).orElse("nothing yet"));
        boolean nothing = presenter.tracksToCome().isEmpty();
        StackPane.setAlignment(empty, nothing ? Pos.CENTER : Pos.BOTTOM_CENTER);
        empty.setVisible(nothing || take.isEmpty() && following == null);
        empty.setText(
                nothing
                        ? "No zone leads to a part yet: in Keys, drag a sound onto a keyboard."
                        : "Press Record and play: each sound is printed onto its own track.");
    }

    private void showTracks() {
        List<Track> shown = new ArrayList<>(
                following == null
                        ? presenter.tracksToCome()
                        : following.printer().tracks());
        List<Node> nodes = new ArrayList<>();
        for (Track track : shown) {
            TrackRow row = rows.computeIfAbsent(track.id(), id -> new TrackRow(desk, presenter));
            row.show(track);
            nodes.add(row);
        }
        if (!tracks.getChildren().equals(nodes)) {
            tracks.getChildren().setAll(nodes);
        }
    }

    private void showPlayed() {
        Take take = presenter.lastTake().orElse(null);
        if (take != shownTake) {
            shownTake = take;
            playedSpans.clear();
        }
        List<Node> nodes = new ArrayList<>();
        for (Source source : desk.session().sources()) {
            NoteLane lane = lines.computeIfAbsent(source.id(), id -> new NoteLane(3));
            HBox.setHgrow(lane, Priority.ALWAYS);
            Label name = new Label(source.name());
            name.getStyleClass().add("played-name");
            name.setMinWidth(TrackRow.HEAD);
            name.setMaxWidth(TrackRow.HEAD);
            HBox line = new HBox(name, lane);
            line.setMinHeight(LINE);
            line.setMaxHeight(LINE);
            nodes.add(line);
            if (take != null && take.sources().contains(source.id())) {
                playedSpans.computeIfAbsent(source.id(), id -> {
                    NoteSpans spans = new NoteSpans(take.log(), take.sources().indexOf(id));
                    spans.update();
                    return spans;
                });
            }
        }
        played.getChildren().setAll(nodes);
    }

    private void draw() {
        double width = getWidth() - TrackRow.HEAD - 12;
        if (width < 50) {
            return;
        }
        long now = following == null ? presenter.length() : desk.studio().position();
        TimeScale next = TimeScale.upTo(now, desk.session().tempo(), width);
        boolean scaled = !next.equals(scale);
        scale = next;
        boolean recording = following != null;
        if (scaled || drawAll) {
            drawRuler();
            rows.values().forEach(TrackRow::redraw);
        }
        double each = (scroll.getViewportBounds().getHeight() - raw.getHeight())
                / Math.max(1, tracks.getChildren().size());
        double height = Math.floor(Math.max(TrackRow.LEAST_HEIGHT, Math.min(TrackRow.MOST_HEIGHT, each)));
        for (Node node : tracks.getChildren()) {
            TrackRow row = (TrackRow) node;
            row.setPrefHeight(height);
            row.draw(recording ? liveSpans(row.trackId()) : null, scale, now, recording);
        }
        if (scaled || drawAll || recording) {
            drawPlayed(now, recording);
        }
        drawAll = drawAll && getScene() == null;
        drawPlayhead();
    }

    private NoteSpans liveSpans(String track) {
        Printer printer = following.printer();
        for (int i = 0; i < printer.tracks().size(); i++) {
            if (printer.tracks().get(i).id().equals(track)) {
                int number = i;
                NoteSpans spans = liveSpans.computeIfAbsent(track, id -> new NoteSpans(printer.log(number), -1));
                spans.update();
                return spans;
            }
        }
        return null;
    }

    private void drawPlayed(long now, boolean recording) {
        Palette palette = desk.theme().palette();
        for (Source source : desk.session().sources()) {
            NoteSpans spans = playedSpans.get(source.id());
            if (recording) {
                int number = following.sources().indexOf(source.id());
                spans = liveSpans.computeIfAbsent(
                        "played " + source.id(), id -> new NoteSpans(following.log(), number));
                spans.update();
            }
            lines.get(source.id()).draw(spans, scale, now, palette.get("ink"), null, palette.get("rule"));
        }
    }

    private void drawRuler() {
        ruler.setWidth(scale.width());
        ruler.setHeight(RULER);
        GraphicsContext g = ruler.getGraphicsContext2D();
        g.clearRect(0, 0, ruler.getWidth(), RULER);
        g.setFont(Font.font("Dibble Sans", 13));
        int step = scale.barStep();
        for (long bar = 1; bar <= scale.bars(); bar += step) {
            double x = Math.round(scale.xOfTick(scale.tempo().barStart(bar)));
            g.setFill(desk.theme().palette().get("strong-rule"));
            g.fillRect(x, 8, 1, RULER - 8);
            g.setFill(desk.theme().palette().get("soft"));
            g.fillText(String.valueOf(bar), x + 4, 18);
        }
    }

    private void drawPlayhead() {
        Transport transport = desk.studio().transport();
        playhead.setWidth(getWidth());
        playhead.setHeight(getHeight());
        GraphicsContext g = playhead.getGraphicsContext2D();
        g.clearRect(0, 0, getWidth(), getHeight());
        if (transport != Transport.STOPPED) {
            g.setFill(desk.theme().palette().get(transport == Transport.RECORDING ? "record" : "leaf"));
            double x = TrackRow.HEAD + scale.xOfNanos(desk.studio().position());
            g.fillRect(Math.round(x), 4, 2, getHeight());
        }
    }
}
