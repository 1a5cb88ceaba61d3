package dibble.desktop.takes;

import dibble.desktop.takes.TakesPresenter.Again;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Form;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.View;
import dibble.desktop.ui.Words;
import dibble.gear.Source;
import dibble.recording.NoteSpans;
import dibble.recording.Printer;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.studio.RecordOptions;
import dibble.studio.Recording;
import dibble.studio.Transport;
import dibble.time.TempoMap;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
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
    private final ComboBox<Form.Choice> choice = new ComboBox<>();
    private final FlowPane takeButtons = new FlowPane(6, 4);
    private final MenuButton addTrack = new MenuButton("Add a track for…");
    private final OptionsBar options;
    private final AgainPane again;
    private final SortPane sort;
    private boolean showing;
    private final VBox tracks = new VBox();
    private final Canvas playhead = new Canvas();
    private final Label empty = new Label();
    private final Map<String, TrackRow> rows = new HashMap<>();
    private final Map<String, NoteLane> lines = new HashMap<>();
    private final Map<String, NoteSpans> playedSpans = new HashMap<>();
    private final Map<String, NoteSpans> liveSpans = new HashMap<>();
    private Recording following;
    private Take shownTake;
    private TempoMap shownTempo;
    private TimeScale scale;
    private boolean stale = true;
    private boolean drawAll = true;
    private RecordOptions drawnOptions;

    public TakesView(Desk desk) {
        this.desk = desk;
        presenter = new TakesPresenter(desk.document());
        options = new OptionsBar(desk, presenter);
        again = new AgainPane(desk, presenter);
        sort = new SortPane(desk, presenter);
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
        choice.setId("take-choice");
        choice.setAccessibleText("the take that is looked at");
        choice.getStyleClass().add("gear-choice");
        choice.setOnAction(event -> {
            if (!showing && choice.getValue() != null) {
                presenter.look((String) choice.getValue().value());
                stale = true;
            }
        });
        Button heard =
                Cards.button("print-as-heard", "Print as it was heard", () -> take().ifPresent(this::printAsHeard));
        heard.setTooltip(new Tooltip("Puts this take onto the tracks, with the zones that it was played with"));
        Button routed = Cards.button(
                "route-again-open", "Route again…", () -> take().ifPresent(take -> ask(take, Again.ROUTED)));
        routed.setTooltip(new Tooltip("Prints it with the zones and scenes of now, after a look at what changes"));
        takeButtons
                .getChildren()
                .setAll(
                        choice,
                        heard,
                        routed,
                        Cards.button("delete-take", "Delete take", () -> take().ifPresent(presenter::deleteTake)));
        takeButtons.getStyleClass().add("take-buttons");
        takeButtons.setPrefWrapLength(700);
        HBox title = new HBox(8, heading, takeName, takeButtons);
        title.getStyleClass().add("played-title");
        title.setAlignment(Pos.CENTER_LEFT);
        raw.getChildren().setAll(title, played);
        raw.getStyleClass().add("played");
        addTrack.setId("add-track");
        addTrack.getStyleClass().addAll("small", "add-track");
        HBox adding = new HBox(addTrack);
        adding.getStyleClass().add("add-track-line");
        VBox content = new VBox(raw, tracks, adding);
        scroll.setContent(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("rows");
        empty.getStyleClass().add("empty");
        empty.setMouseTransparent(true);
        StackPane.setAlignment(empty, Pos.BOTTOM_CENTER);
        BorderPane whole = new BorderPane(new StackPane(scroll, empty));
        whole.setTop(top);
        whole.setBottom(new VBox(again, sort, options));
        rulerPane.setId("ruler");
        rulerPane.setAccessibleText("ruler: a click sets where it plays and records from");
        rulerPane.setFocusTraversable(true);
        rulerPane.setOnMouseClicked(event -> locate(event.getX()));
        rulerPane.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.HOME) {
                desk.studio().locate(0);
            } else if (event.getCode() == KeyCode.LEFT || event.getCode() == KeyCode.RIGHT) {
                step(event.getCode() == KeyCode.LEFT ? -1 : 1);
            }
            drawAll = true;
        });
        playhead.setMouseTransparent(true);
        playhead.setManaged(false);
        getChildren().addAll(whole, playhead);
        widthProperty().subscribe(width -> drawAll = true);
        heightProperty().subscribe(height -> drawAll = true);
    }

    private Optional<Take> take() {
        return presenter.lastTake();
    }

    private void ask(Take take, Again how) {
        sort.close();
        again.ask(take, how);
    }

    /** Asks where something would be lost. */
    private void printAsHeard(Take take) {
        if (presenter.isEdited(take)) {
            ask(take, Again.AS_HEARD);
        } else {
            presenter.print(take, Again.AS_HEARD);
        }
    }

    private void sort(Track track) {
        again.close();
        sort.ask(track);
    }

    /** The beat that is nearest is where it plays and records from. */
    private void locate(double x) {
        if (scale != null) {
            TempoMap tempo = desk.session().tempo();
            long tick = scale.tickAt(x);
            long beat = tempo.meter(tick).ticksPerBeat();
            desk.studio().locate(tempo.nanos(Math.max(0, (tick + beat / 2) / beat * beat)));
            drawAll = true;
        }
    }

    private void step(int bars) {
        TempoMap tempo = desk.session().tempo();
        long bar = tempo.place(tempo.ticks(desk.studio().place())).bar();
        desk.studio().locate(tempo.nanos(tempo.barStart(Math.max(1, bar + bars))));
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
        options.follow();
        draw();
    }

    private void show() {
        stale = false;
        drawAll = true;
        plan.setText(presenter.plan());
        showTracks();
        showPlayed();
        Optional<Take> take = presenter.lastTake();
        takeName.setText(following != null ? "now" : take.isPresent() ? "" : "nothing yet");
        showTakes(take);
        addTrack.getItems()
                .setAll(presenter.inputs().stream().map(this::addItem).toList());
        options.show();
        again.show();
        sort.show();
        boolean nothing = presenter.tracksToCome().isEmpty();
        StackPane.setAlignment(empty, nothing ? Pos.CENTER : Pos.BOTTOM_CENTER);
        empty.setVisible(nothing || take.isEmpty() && following == null);
        empty.setText(
                nothing
                        ? "No zone leads to a part yet: in Keys, drag a sound onto a keyboard."
                        : "Press Record and play: each sound is printed onto its own track.");
    }

    private void showTakes(Optional<Take> take) {
        showing = true;
        List<Form.Choice> takes = desk.session().takes().stream()
                .map(it -> new Form.Choice(it.id(), it.name() + " · " + Words.count(it.noteCount(), "note")))
                .toList();
        if (!choice.getItems().equals(takes)) {
            choice.getItems().setAll(takes);
        }
        takes.stream()
                .filter(it -> take.isPresent() && it.value().equals(take.get().id()))
                .findFirst()
                .ifPresent(choice::setValue);
        boolean any = take.isPresent() && following == null;
        takeButtons.setVisible(any);
        takeButtons.setManaged(any);
        showing = false;
    }

    private MenuItem addItem(Map.Entry<String, Track.Input> input) {
        MenuItem item = new MenuItem(input.getKey());
        item.setOnAction(event -> presenter.addTrack(input.getKey(), input.getValue()));
        return item;
    }

    private void showTracks() {
        List<Track> shown = new ArrayList<>(
                following == null
                        ? presenter.tracksToCome()
                        : following.printer().tracks());
        List<Node> nodes = new ArrayList<>();
        for (Track track : shown) {
            TrackRow row = rows.computeIfAbsent(track.id(), id -> new TrackRow(desk, presenter, this::sort));
            row.show(track);
            nodes.add(row);
        }
        if (!tracks.getChildren().equals(nodes)) {
            tracks.getChildren().setAll(nodes);
        }
    }

    private void showPlayed() {
        Take take = presenter.lastTake().orElse(null);
        TempoMap tempo = desk.session().tempo();
        if (take != shownTake || !tempo.equals(shownTempo)) {
            shownTake = take;
            shownTempo = tempo;
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
                    NoteSpans spans = new NoteSpans(
                            take.log(), take.sources().indexOf(id), nanos -> tempo.nanos(take.tick(nanos)));
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
        long now = following == null
                ? presenter.length()
                : Math.max(place(following, 0), desk.studio().position());
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
            boolean fills = recording && presenter.isArmed(row.track());
            row.draw(fills ? liveSpans(row.trackId()) : null, recording ? place(following, 0) : 0, scale, now, fills);
        }
        RecordOptions chosen = desk.studio().options();
        if (!chosen.equals(drawnOptions)) {
            drawnOptions = chosen;
            drawRuler();
        }
        if (scaled || drawAll || recording) {
            drawPlayed(now, recording);
        }
        drawAll = drawAll && getScene() == null;
        drawPlayhead();
    }

    private NoteSpans liveSpans(String track) {
        Recording recording = following;
        Printer printer = recording.printer();
        for (int i = 0; i < printer.tracks().size(); i++) {
            if (printer.tracks().get(i).id().equals(track)) {
                int number = i;
                NoteSpans spans = liveSpans.computeIfAbsent(
                        track, id -> new NoteSpans(printer.log(number), -1, nanos -> place(recording, nanos)));
                spans.update();
                return spans;
            }
        }
        return null;
    }

    /** Where a recording has come at a time since its beginning, in nanoseconds of the session as it is now. */
    private long place(Recording recording, long nanos) {
        return desk.session().tempo().nanos(recording.tempo().ticks(recording.from() + nanos));
    }

    private void drawPlayed(long now, boolean recording) {
        Palette palette = desk.theme().palette();
        for (Source source : desk.session().sources()) {
            NoteSpans spans = playedSpans.get(source.id());
            if (recording) {
                Recording live = following;
                int number = live.sources().indexOf(source.id());
                spans = liveSpans.computeIfAbsent(
                        "played " + source.id(), id -> new NoteSpans(live.log(), number, nanos -> place(live, nanos)));
                spans.update();
            }
            lines.get(source.id())
                    .draw(
                            spans == null ? List.of() : List.of(NoteLane.Notes.all(spans)),
                            0,
                            scale,
                            now,
                            palette.get("ink"),
                            null,
                            palette.get("rule"));
        }
    }

    private void drawRuler() {
        ruler.setWidth(scale.width());
        ruler.setHeight(RULER);
        GraphicsContext g = ruler.getGraphicsContext2D();
        g.clearRect(0, 0, ruler.getWidth(), RULER);
        g.setFont(Font.font("Dibble Sans", 13));
        RecordOptions.Stretch range = desk.studio().options().range();
        if (range != null
                && (desk.studio().options().loops() || desk.studio().options().punches())) {
            g.setFill(desk.theme().palette().get("leaf-wash"));
            double from = scale.xOfTick(range.from());
            g.fillRect(from, 4, scale.xOfTick(range.to()) - from, RULER - 4);
        }
        g.setFill(desk.theme().palette().get("leaf"));
        for (TempoMap.Tempo change : scale.tempo().tempos()) {
            if (change.at() > 0) {
                // A change of tempo is a mark over its bar.
                g.fillRect(Math.round(scale.xOfTick(change.at())), 2, 10, 3);
            }
        }
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
        double foot = RULER + scroll.getHeight();
        playhead.setHeight(foot);
        GraphicsContext g = playhead.getGraphicsContext2D();
        g.clearRect(0, 0, getWidth(), foot);
        if (transport == Transport.STOPPED && desk.studio().place() > 0) {
            g.setFill(desk.theme().palette().get("ink"));
            double x = TrackRow.HEAD + scale.xOfNanos(desk.studio().place());
            g.fillPolygon(new double[] {x - 5, x + 5, x}, new double[] {RULER - 12, RULER - 12, RULER - 2}, 3);
        }
        if (transport != Transport.STOPPED) {
            g.setFill(desk.theme().palette().get(transport == Transport.RECORDING ? "record" : "leaf"));
            double x = TrackRow.HEAD + scale.xOfNanos(desk.studio().position());
            g.fillRect(Math.round(x), 4, 2, foot);
        }
    }
}
