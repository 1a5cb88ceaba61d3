package dibble.desktop.takes;

import static dibble.desktop.ui.UiText.say;

import dibble.desktop.takes.TakesPresenter.Again;
import dibble.desktop.ui.Cards;
import dibble.desktop.ui.Desk;
import dibble.desktop.ui.Palette;
import dibble.desktop.ui.View;
import dibble.desktop.ui.Watch;
import dibble.gear.Source;
import dibble.recording.NoteSpans;
import dibble.recording.Take;
import dibble.recording.Track;
import dibble.studio.Recording;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;

/** What was played, a line a source; below it the tracks that are printed from it, filling while it is played. */
public final class TakesView extends StackPane implements View {
    private static final double LEAST_WIDTH = 50;
    private static final double AIR = 12;

    private final Desk desk;
    private final TakesPresenter presenter;
    private final Watch watch;
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
    private final AgainPane again;
    private final SortPane sort;
    private final Playhead playhead;
    private final Label empty = new Label();
    private final Map<String, TrackRow> rows = new HashMap<>();
    private final Map<String, PlayedLine> lines = new HashMap<>();
    private Recording recording;
    private TimeScale scale;

    /** How long everything is that was recorded, in nanoseconds. */
    private long length;

    public TakesView(Desk desk) {
        this.desk = desk;
        presenter = new TakesPresenter(desk.document());
        notes = new ShownNotes(() -> desk.session().tempo());
        watch = desk.watch(this::show)
                .each(this::follow)
                .with(() -> desk.pulse().whileSo(this::isWorking))
                .with(() -> this::leave);
        options = new OptionsBar(desk, presenter);
        again = new AgainPane(desk, presenter);
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
        HBox adding = new HBox(addTrack);
        adding.getStyleClass().add("add-track-line");
        scroll = Cards.scroll(new VBox(raw, tracks, adding));
        empty.getStyleClass().add("empty");
        empty.setMouseTransparent(true);
        BorderPane whole = new BorderPane(new StackPane(scroll, empty));
        whole.setTop(top);
        whole.setBottom(new VBox(again, sort, options));
        getChildren().addAll(whole, playhead);
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
        return notes.isWorking() || lanes().anyMatch(NoteLane::isWorking);
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
        empty.setVisible(nothing || takesNothing);
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
        for (Track track : shown) {
            TrackRow row = rows.computeIfAbsent(track.id(), id -> new TrackRow(desk, presenter, this::sort));
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
        if (now != recording || notes.hasNews()) {
            recording = now;
            show();
        } else if (recording != null) {
            draw();
        }
        lanes().forEach(NoteLane::follow);
        options.follow();
        if (scale != null) {
            ruler.show(scale, desk.studio().options(), desk.theme().palette());
            playhead.follow(scale, desk.theme().palette(), TimeRuler.HEIGHT + scroll.getHeight());
        }
    }

    /** Draws the notes, on a scale that all of them lie on. */
    private void draw() {
        double width = getWidth() - TrackRow.HEAD - AIR;
        if (width < LEAST_WIDTH) {
            return;
        }
        long begins = recording == null ? 0 : notes.begins();
        long now = recording == null ? length : Math.max(begins, desk.studio().position());
        scale = TimeScale.upTo(now, desk.session().tempo(), width);
        double each = (scroll.getViewportBounds().getHeight() - raw.getHeight())
                / Math.max(1, tracks.getChildren().size());
        double height = Math.floor(Math.max(TrackRow.LEAST_HEIGHT, Math.min(TrackRow.MOST_HEIGHT, each)));
        for (TrackRow row : rows.values()) {
            row.setPrefHeight(height);
            boolean fills = recording != null && presenter.isArmed(row.track());
            NoteSpans live = fills ? notes.liveOf(row.track().id()) : null;
            row.draw(notes.of(row.track()), live, begins, scale, now, length);
        }
        lines.forEach((source, line) -> drawPlayed(source, line, now));
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
