package dibble.desktop.takes;

import static dibble.presentation.UiText.say;

import dibble.desktop.ui.Cards;
import dibble.desktop.ui.LowerPane;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.View;
import dibble.desktop.ui.ViewContext;
import dibble.desktop.ui.ViewUpdater;
import dibble.gear.Source;
import dibble.presentation.Command;
import dibble.presentation.Subscription;
import dibble.presentation.TimeScale;
import dibble.presentation.WheelSteps;
import dibble.presentation.takes.ShownNotes;
import dibble.presentation.takes.TakesPresenter;
import dibble.presentation.takes.TakesPresenter.Again;
import dibble.recording.NoteSpans;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.studio.Recording;
import dibble.studio.Transport;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The Takes view: the played events, a line for each source, above the printed tracks, which fill while recording. */
public final class TakesView extends StackPane implements View {
    private static final double MIN_WIDTH = 50;
    private static final double AIR = 12;
    private static final double ZOOM = 2;
    private static final double WHEEL_ZOOM = 1.25;

    /** The number of rows that are built in a frame; the others follow in the next ones. */
    private static final int MAX_AT_ONCE = 8;

    /** The share of the height for tracks while the note editor is open. */
    private static final double ABOVE_NOTES = 0.26;

    private final ViewContext desk;
    private final TakesPresenter presenter;
    private final ViewUpdater watch;
    private final ShownNotes notes;
    private final Label plan = new Label();
    private final TimeRuler ruler;
    private final TakeHead head;
    private final VBox played = new VBox();
    private final VBox raw;
    private final VBox tracks = new VBox();
    private final ScrollPane scroll;
    private final MenuButton addTrack = new MenuButton(say("takes-view.add-track-for"));
    private final OptionsBar options;
    private final RoutePreviewPane again;
    private final SortPane sort;
    private final Playhead playhead;
    private final LowerPane below;
    private final StackPane upper;
    private final HBox adding;
    private final ScrollBar bar = new ScrollBar();
    private final Label empty = new Label();
    private final TrackRow.Opens opens = new TrackRow.Opens() {
        @Override
        public void sort(Track track) {
            TakesView.this.sort(track);
        }

        @Override
        public void notes(Track track, boolean beside) {
            openNotes(track, beside);
        }
    };
    private final Map<String, TrackRow> rows = new HashMap<>();
    private final Map<String, PlayedLine> lines = new HashMap<>();
    private Recording recording;

    /** The range of everything; below, the visible range. */
    private TimeScale whole;

    private TimeScale scale;

    /** The first tick that is shown, and how many; null for everything. */
    private long[] zoom;

    /** True if the notes have just been opened, and want to be seen large enough. */
    private boolean opening;

    private boolean showingBar;
    private boolean redraw;
    private boolean isEmpty;
    private boolean isRoomMade;

    /** The length of all recordings, in nanoseconds. */
    private long length;

    /** @param notesBelow makes what shows the notes of tracks */
    public TakesView(ViewContext desk, LowerPane.Maker notesBelow) {
        this.desk = desk;
        presenter = new TakesPresenter(desk.document());
        notes = new ShownNotes(() -> desk.session().tempo());
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.pulse().whileSo(this::isWorking))
                .with(() -> this::leave);
        below = notesBelow.make(desk, TrackRow.HEAD, this::redraw);
        options = new OptionsBar(desk, presenter);
        again = new RoutePreviewPane(desk, presenter);
        sort = new SortPane(desk, presenter);
        ruler = new TimeRuler(desk.studio());
        playhead = new Playhead(desk.studio());
        head = new TakeHead(desk, presenter, this::ask, watch::stale);
        getStyleClass().add("takes-view");
        plan.setId("record-plan");
        plan.getStyleClass().add("plan");
        plan.setMinWidth(TrackRow.HEAD);
        plan.setMaxWidth(TrackRow.HEAD);
        HBox.setHgrow(ruler, Priority.ALWAYS);
        HBox top = new HBox(plan, ruler);
        top.getStyleClass().add("ruler");
        top.setMinHeight(TimeRuler.HEIGHT);
        top.setAlignment(Pos.CENTER_LEFT);
        raw = new VBox(head, played);
        raw.getStyleClass().add("played");
        addTrack.setId("add-track");
        addTrack.getStyleClass().addAll("small", "add-track");
        adding = new HBox(addTrack);
        adding.getStyleClass().add("add-track-line");
        scroll = Cards.scroll(new VBox(raw, tracks, adding));
        empty.getStyleClass().add("empty");
        empty.setMouseTransparent(true);
        upper = new StackPane(scroll, empty);
        upper.setMinHeight(0);
        VBox body = new VBox(upper, below.node());
        VBox.setVgrow(upper, Priority.ALWAYS);
        VBox.setVgrow(below.node(), Priority.ALWAYS);
        bar.setId("time-bar");
        bar.setAccessibleText(say("takes-view.time"));
        bar.valueProperty().subscribe(value -> scrollTo(value.doubleValue()));
        HBox barLine = new HBox(bar);
        barLine.setPadding(new Insets(0, 0, 0, TrackRow.HEAD));
        HBox.setHgrow(bar, Priority.ALWAYS);
        Cards.show(bar, false);
        VBox foot = new VBox(barLine, again, sort, options);
        BorderPane all = new BorderPane(body);
        all.setTop(top);
        all.setBottom(foot);
        getChildren().addAll(all, playhead);
        addEventFilter(ScrollEvent.SCROLL, this::turn);
        scroll.vvalueProperty().subscribe(value -> redraw());
        widthProperty().subscribe(width -> watch.stale());
        heightProperty().subscribe(height -> watch.stale());
    }

    @Override
    public Subscription open() {
        return watch.open();
    }

    private void leave() {
        again.close();
        sort.close();
        below.leave();
    }

    @Override
    public List<Command> commands() {
        List<Command> all = new ArrayList<>(below.commands());
        all.add(Command.of("zoom-in", say("command.zoom-in"), () -> zoom(1 / ZOOM, getWidth() / 2))
                .key("Shortcut+EQUALS")
                .key("Shortcut+PLUS")
                .whileHeld()
                .in(say("command-group.zoom")));
        all.add(Command.of("zoom-out", say("command.zoom-out"), () -> zoom(ZOOM, getWidth() / 2))
                .key("Shortcut+MINUS")
                .whileHeld()
                .in(say("command-group.zoom")));
        all.add(Command.of("zoom-all", say("command.zoom-all"), () -> zoomTo(null))
                .key("Shortcut+0")
                .in(say("command-group.zoom")));
        return all;
    }

    /** Redraws the same content in the next frame, without other updates. */
    private void redraw() {
        redraw = true;
        desk.pulse().wake();
    }

    /** Shows more or less around a place. @param x from the left edge of the view */
    private void zoom(double times, double x) {
        if (scale != null) {
            zoomTo(wanted().zoomed(times, Math.max(0, x - TrackRow.HEAD), whole));
        }
    }

    /** Returns the scale of the next drawing: a wheel moves more than once a frame. */
    private TimeScale wanted() {
        return zoom == null
                ? whole
                : whole.within(zoom[0], Math.min(whole.ticks(), zoom[1])).moved(0, whole);
    }

    private void zoomTo(TimeScale next) {
        zoom = next == null || next.ticks() >= whole.ticks() ? null : new long[] {next.from(), next.ticks()};
        redraw();
    }

    private void scrollTo(double tick) {
        if (!showingBar && zoom != null) {
            zoomTo(scale.within(Math.round(tick), scale.ticks()));
        }
    }

    /** Ctrl and the wheel zoom, Shift and the wheel, or a wheel to the side, go along. */
    private void turn(ScrollEvent event) {
        double up = event.getDeltaY() != 0 ? event.getDeltaY() : event.getDeltaX();
        boolean along = event.isShiftDown() || event.getDeltaY() == 0 && event.getDeltaX() != 0;
        // Numbers that are turned by the wheel have it first.
        if (scale == null || up == 0 || isTurned(event)) {
            return;
        }
        if (event.isShortcutDown()) {
            zoom(Math.pow(WHEEL_ZOOM, -up / WheelSteps.STEP), event.getX());
            event.consume();
        } else if (along) {
            TimeScale now = wanted();
            zoomTo(now.moved(Math.round(-up / now.width() * now.ticks()), whole));
            event.consume();
        }
    }

    private static boolean isTurned(ScrollEvent event) {
        Node node = event.getPickResult().getIntersectedNode();
        while (node != null && !(node instanceof TextInputControl)) {
            node = node.getParent();
        }
        return node != null;
    }

    private void openNotes(Track track, boolean beside) {
        again.close();
        sort.close();
        opening = !below.isOpen();
        below.open(track.id(), beside && below.isOpen());
        watch.stale();
        desk.pulse().once(() -> bringIntoSight(rows.get(track.id())));
    }

    private void bringIntoSight(TrackRow row) {
        double hidden = scroll.getContent().getLayoutBounds().getHeight()
                - scroll.getViewportBounds().getHeight();
        if (row != null && hidden > 0) {
            double top = scroll.getContent()
                    .sceneToLocal(row.localToScene(row.getBoundsInLocal()))
                    .getMinY();
            scroll.setVvalue(Math.max(0, Math.min(1, top / hidden)));
        }
    }

    private void ask(Take take, Again how) {
        sort.close();
        again.ask(take, how);
    }

    private void sort(Track track) {
        again.close();
        sort.ask(track);
    }

    private Stream<NoteLane> lanes() {
        return Stream.concat(
                rows.values().stream().map(TrackRow::lane),
                lines.values().stream().map(PlayedLine::lane));
    }

    private boolean isWorking() {
        return notes.isWorking() || below.isWorking() || lanes().anyMatch(NoteLane::isWorking);
    }

    private void show() {
        notes.follow(recording);
        length = presenter.length();
        plan.setText(presenter.plan());
        showTracks();
        showPlayed();
        head.show(recording != null);
        addTrack.getItems()
                .setAll(presenter.inputs().stream().map(this::addItem).toList());
        options.show();
        again.show();
        sort.show();
        boolean nothing = tracks.getChildren().isEmpty();
        boolean takesNothing = presenter.lastTake().isEmpty() && recording == null;
        StackPane.setAlignment(empty, nothing ? Pos.CENTER : Pos.BOTTOM_CENTER);
        isEmpty = nothing || takesNothing;
        makeRoom();
        empty.setText(
                nothing ? say("takes-view.no-zones-with-sounds-yet") : say("takes-view.press-record-and-play-each"));
        draw();
        notes.forgetOthers();
    }

    private MenuItem addItem(Map.Entry<String, Track.Input> input) {
        MenuItem item = new MenuItem(input.getKey());
        item.setOnAction(event -> presenter.addTrack(input.getKey(), input.getValue()));
        return item;
    }

    private void showTracks() {
        List<Track> shown = recording == null
                ? presenter.tracksToCome()
                : recording.printer().tracks();
        List<Node> nodes = new ArrayList<>();
        int made = 0;
        for (Track track : shown) {
            TrackRow row = rows.get(track.id());
            if (row == null && made == MAX_AT_ONCE) {
                watch.stale();
                continue;
            }
            if (row == null) {
                made++;
                row = new TrackRow(desk, presenter, opens);
                rows.put(track.id(), row);
            }
            row.show(track);
            nodes.add(row);
        }
        rows.values().retainAll(nodes);
        Cards.put(tracks, nodes);
    }

    private void showPlayed() {
        List<Node> nodes = new ArrayList<>();
        for (Source source : desk.session().sources()) {
            PlayedLine line = lines.computeIfAbsent(source.id(), id -> new PlayedLine());
            line.setName(source.name());
            nodes.add(line);
        }
        lines.values().retainAll(nodes);
        Cards.put(played, nodes);
    }

    private void follow() {
        Recording now = desk.studio().recording();
        boolean news = notes.hasNews() | below.hasNews();
        turnPage();
        below.follow();
        if (now != recording || news) {
            recording = now;
            show();
        } else if (recording != null || redraw) {
            draw();
        }
        lanes().forEach(NoteLane::follow);
        rows.values().forEach(TrackRow::followLevel);
        options.follow();
        if (scale != null) {
            ruler.show(
                    scale,
                    desk.studio().options(),
                    desk.session().markers(),
                    desk.theme().palette());
            playhead.follow(
                    scale,
                    desk.theme().palette(),
                    TimeRuler.HEIGHT
                            + scroll.getHeight()
                            + (below.isOpen() ? below.node().getLayoutBounds().getHeight() : 0));
        }
    }

    /** Draws the notes, all on the same scale. */
    private void draw() {
        redraw = false;
        if (below.isOpen() != isRoomMade) {
            makeRoom();
            // Opening a session changed the length; everything is visible again.
            zoom = below.isOpen() ? zoom : null;
        }
        double width = getWidth() - TrackRow.HEAD - AIR;
        if (width < MIN_WIDTH) {
            return;
        }
        long begins = recording == null ? 0 : notes.begins();
        long now = recording == null ? length : Math.max(begins, desk.studio().position());
        whole = TimeScale.upTo(now, desk.session().tempo(), width);
        if (opening) {
            below.wanted().ifPresent(wanted -> {
                opening = false;
                zoom = zoom == null && wanted[1] < whole.ticks() ? wanted : zoom;
            });
        }
        scale = zoom == null
                ? whole
                : whole.within(zoom[0], Math.min(whole.ticks(), zoom[1])).moved(0, whole);
        showBar();
        below.show(scale);
        double each = (scroll.getViewportBounds().getHeight() - (raw.isVisible() ? raw.getHeight() : 0))
                / Math.max(1, tracks.getChildren().size());
        double height = Math.floor(Math.max(TrackRow.MIN_HEIGHT, Math.min(TrackRow.MAX_HEIGHT, each)));
        for (TrackRow row : rows.values()) {
            row.setPrefHeight(height);
            if (below.isOpen() && !isSeen(row)) {
                continue;
            }
            boolean fills = recording != null && presenter.isArmed(row.track());
            NoteSpans live = fills ? notes.liveOf(row.track().id()) : null;
            row.draw(notes.of(row.track()), live, begins, scale, now, length);
        }
        if (!below.isOpen()) {
            lines.forEach((source, line) -> drawPlayed(source, line, now));
        }
    }

    private void showBar() {
        showingBar = true;
        Cards.show(bar, zoom != null);
        bar.setMax(whole.ticks() - scale.ticks());
        bar.setVisibleAmount((double) scale.ticks() / whole.ticks() * bar.getMax());
        bar.setBlockIncrement(scale.ticks());
        bar.setUnitIncrement(scale.ticks() / 8.0);
        bar.setValue(scale.from());
        showingBar = false;
    }

    /** Keeps the playhead visible. */
    private void turnPage() {
        if (zoom != null && scale != null && desk.studio().transport() != Transport.STOPPED) {
            long tick = scale.tempo().ticks(desk.studio().position());
            if (tick >= scale.to() || tick < scale.from()) {
                zoomTo(scale.within(
                                scale.tempo().barStart(scale.tempo().place(tick).bar()), scale.ticks())
                        .moved(0, whole));
            }
        }
    }

    /** The note editor takes most of the space; the played events and the options are hidden. */
    private void makeRoom() {
        boolean open = below.isOpen();
        isRoomMade = open;
        Cards.show(raw, !open);
        Cards.show(adding, !open);
        Cards.show(options, !open);
        empty.setVisible(isEmpty && !open);
        upper.setMaxHeight(open ? Math.max(2 * TrackRow.MIN_HEIGHT, getHeight() * ABOVE_NOTES) : Double.MAX_VALUE);
        upper.setMinHeight(open ? upper.getMaxHeight() : 0);
    }

    /** Returns true if a row is in the part of the tracks that is seen, which is small while notes are open. */
    private boolean isSeen(TrackRow row) {
        Bounds place = scroll.sceneToLocal(row.localToScene(row.getBoundsInLocal()));
        return place != null && place.getMaxY() > 0 && place.getMinY() < scroll.getHeight();
    }

    private void drawPlayed(String source, PlayedLine line, long now) {
        Palette palette = desk.theme().palette();
        Optional<NoteSpans> spans = recording != null
                ? Optional.of(notes.livePlayed(source))
                : presenter.lastTake().flatMap(take -> notes.of(take, source));
        line.lane()
                .show(new NoteLane.Picture(
                        spans.map(NoteLane.Notes::all).stream().toList(),
                        0,
                        scale,
                        now,
                        palette.get("ink"),
                        null,
                        palette.get("rule")));
    }
}
